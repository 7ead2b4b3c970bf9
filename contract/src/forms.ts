/* What the browser takes from the contract: the closed lists, the form checks and the types. */
import validators from '../generated/form-validators.cjs';
import type { FieldProblem } from './errors';
import type { FormName } from './form-names';
import { problemsOf } from './problem-in-words';

/**
 * Checks what a person filled in by the very schema the server will check it with.
 *
 * @returns one problem per wrong field; none where the form can be sent
 */
export function checkForm(name: FormName, value: unknown): FieldProblem[] {
  return problemsOf(validators[name], value);
}

export {
  chamberTypes,
  couplings,
  figureIds,
  gaugeRoles,
  jointSides,
  MOST_DRAINED_ML,
  MOST_FACTS_AT_ONCE,
  needs,
  pressureUnits,
  roles,
  tankRoles,
  unitKinds,
} from './choices';
export type { FormName } from './form-names';
