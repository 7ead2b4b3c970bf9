/* What comes with the first screen: the checks of what is filled in at the door, apart from the other forms, and codes. */
import validators from '../generated/door-form-validators.cjs';
import type { FieldProblem } from './errors';
import type { DoorFormName } from './form-names';
import { problemsOf } from './problem-in-words';

/**
 * Checks what a person filled in to get in, by the very schema the server will check it with.
 *
 * @returns one problem per wrong field; none where the form can be sent
 */
export function checkDoorForm(name: DoorFormName, value: unknown): FieldProblem[] {
  return problemsOf(validators[name], value);
}

export { errorStatus } from './errors';
