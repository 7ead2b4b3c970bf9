import type { RigUnderTest } from '../../rig/rigUnderTest';
import { Twin, type TwinSite } from '../twin';
import { effectsOf, type Fault, type Severity } from './fault';

/**
 * A twin with faults from its start, for a run that is read off its tanks and dash: left and right are one where
 * no fault is on one side alone, which gives the same pressures from fewer places.
 */
export function twinWith(
  rig: RigUnderTest,
  faults: readonly (readonly [fault: Fault, severity: Severity])[],
  site: Omit<TwinSite, 'sides'> = {},
): Twin {
  const sides = faults.some(([{ oneSide }]) => oneSide) ? 'apart' : 'alike';
  const twin = new Twin(rig, { ...site, sides });
  twin.apply(faults.flatMap(([fault, severity]) => effectsOf(fault, severity)));
  return twin;
}
