import type { FieldProblem, RunMade, Step } from '@keen-bleed/contract';
import { procedureFor } from '../../../procedure/procedureFor';
import { stepMakerById } from '../../../procedure/stepMakers';
import { CORE_VERSION } from '../../../version';
import { checkStandings } from './askedEarlier';

/** Versions whose runs may still lie on a phone, with the steps that version made. */
const EARLIER: readonly string[] = ['0.2.0', '0.3.0', '0.4.0', '0.5.0'];

/**
 * Whether what a run asks is what its rig and rule set ask for. By the core of today it has to be just that; by an
 * earlier one its words may differ, but nothing required may be missing, no figure may be reckoned otherwise, and every
 * answer has to stand as it stood.
 *
 * @returns null where it is, otherwise the field of what was made that is wrong
 */
export function checkAsked(made: RunMade, coreVersion: string): FieldProblem | null {
  if (made.also && !made.retestOf) {
    return { field: 'also', message: 'Only a retest asks for steps beside its rule set.' };
  }
  const stranger = made.also?.find((stepId) => !stepMakerById(stepId));
  if (stranger !== undefined) {
    return { field: 'also', message: `There is no step "${stranger}".` };
  }
  const { steps } = procedureFor(made, made.ruleSet, made.leftOut, { also: made.also });
  if (coreVersion === CORE_VERSION) {
    if (alike(made.steps, steps)) return null;
    return { field: 'steps', message: 'The app on this device is out of date: reload it once.' };
  }
  if (!EARLIER.includes(coreVersion)) {
    return {
      field: 'steps',
      message: `This run was made by version ${coreVersion}, which this server does not know.`,
    };
  }
  const known = new Set(made.ruleSet.steps.map(({ stepId }) => stepId));
  const unknown = made.steps.find((step) => !known.has(step.id) && step.required);
  if (unknown) {
    return { field: 'steps', message: `This rule set has no step "${unknown.id}".` };
  }
  const changed = steps.find((step) => {
    const asked = made.steps.find(({ id }) => id === step.id);
    return asked ? !sameFigures(asked, step) : step.required;
  });
  return changed
    ? { field: 'steps', message: `“${changed.title}” is not as this rule set asks for it.` }
    : checkStandings(made.steps, steps, coreVersion);
}

function sameFigures(asked: Step, step: Step): boolean {
  return (
    asked.required === step.required &&
    asked.maySkip === step.maySkip &&
    asked.act.kind === step.act.kind &&
    alike(plain(asked.reckon), plain(step.reckon))
  );
}

/** How figures are reckoned, without the gauge they are read from, which earlier versions did not say. */
const plain = (reckon: Step['reckon']) =>
  reckon.map((each) => (each.kind === 'level' ? { ...each, by: undefined } : each));

/** The same by meaning: the order of fields does not count, and what is not there is not there. */
function alike(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  // Runs at every opening of a run: no lists of keys are made.
  for (const key in left) if (!alike(left[key], right[key])) return false;
  for (const key in right) if (right[key] !== undefined && left[key] === undefined) return false;
  return true;
}
