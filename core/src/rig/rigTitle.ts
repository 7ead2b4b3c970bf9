import type { RigUnderTest } from './rigUnderTest';
import { unitsOf } from './rigUnderTest';
import { unitTitle } from './unitTitle';

/** How people in the yard call what is run: the unit, or all that is coupled, front to rear. */
export function rigTitle(rig: RigUnderTest): string {
  return unitsOf(rig).map(unitTitle).join(' + ');
}
