import type { Limit, RuleSet, RuleSetDraft, RuleStep } from '@keen-bleed/contract';

/** What a shop’s copy of a rule set has not, since what it was copied from has grown. */
export interface Missed {
  steps: readonly RuleStep[];
  /** Limits whose figure the copy does not bound, or bounds without the date, plate or weight that decides. */
  limits: readonly Limit[];
}

type Set = Pick<RuleSetDraft, 'steps' | 'limits'>;

const isDecided = ({ follows, builtFrom, builtBefore, weight }: Limit): boolean =>
  (follows ?? builtFrom ?? builtBefore ?? weight) !== undefined;

/** What a copy misses of the set that ships; limits that a lead has changed are the shop’s own, and stay. */
export function missedBy(copy: Set, shipped: Set): Missed {
  const steps = shipped.steps.filter(
    ({ stepId, need }) => need !== 'off' && !copy.steps.some((each) => each.stepId === stepId),
  );
  const figures = [...new Set(shipped.limits.map(({ figure }) => figure))];
  const limits = figures.flatMap((figure) => {
    const now = shipped.limits.filter((each) => each.figure === figure);
    const own = copy.limits.filter((each) => each.figure === figure);
    if (own.length === 0) return now;
    const isOlder = now.some(isDecided) && !own.some(isDecided);
    const isUntouched = own.every(({ min, max }) =>
      now.some((each) => each.min === min && each.max === max),
    );
    return isOlder && isUntouched ? now : [];
  });
  return { steps, limits };
}

/** A copy with what it missed: each step in its place, each limit in place of the older one of its figure. */
export function takenOver<S extends Set>(copy: S, shipped: Set): S {
  const { steps, limits } = missedBy(copy, shipped);
  const figures = new Set(limits.map(({ figure }) => figure));
  return {
    ...copy,
    steps: steps.reduce<readonly RuleStep[]>(
      (all, step) => placed(all, step, shipped.steps),
      copy.steps,
    ),
    limits: [...copy.limits.filter(({ figure }) => !figures.has(figure)), ...limits],
  };
}

/** A step put after the nearest one that comes before it in the set that ships. */
function placed(
  all: readonly RuleStep[],
  step: RuleStep,
  order: readonly RuleStep[],
): readonly RuleStep[] {
  const before = order
    .slice(
      0,
      order.findIndex(({ stepId }) => stepId === step.stepId),
    )
    .map(({ stepId }) => stepId);
  const at = all.findLastIndex(({ stepId }) => before.includes(stepId)) + 1;
  return [...all.slice(0, at), step, ...all.slice(at)];
}

/** Whether a rule set still asks the stop in its old form. */
export const hasOldStop = ({ steps }: Pick<RuleSet, 'steps'>): boolean =>
  steps.some(({ stepId, need }) => stepId === 'holding' && need !== 'off') &&
  !steps.some(({ stepId }) => stepId === 'service-stop');
