import type { RuleSet, RuleStep } from '@keen-bleed/contract';
import type { RigUnderTest } from '../rig/rigUnderTest';
import type { Procedure, Step } from './procedure';
import { stepMakerById, stepMakers } from './stepMakers';

/** Holds that move behind the fall where a rule set tests the warning first. */
const LEAK_STEPS = new Set(['static-hold', 'applied-hold']);
const END_OF_FALL = 'rebuild';

/** The rule set's steps in the order its switches ask for. */
function orderedSteps({ steps, switches }: RuleSet): readonly RuleStep[] {
  if (switches.order === 'leak-first') return steps;
  const leaks = steps.filter(({ stepId }) => LEAK_STEPS.has(stepId));
  const others = steps.filter(({ stepId }) => !LEAK_STEPS.has(stepId));
  const at = others.findIndex(({ stepId }) => stepId === END_OF_FALL);
  if (at < 0) return steps;
  return [...others.slice(0, at + 1), ...leaks, ...others.slice(at + 1)];
}

interface ProcedureOptions {
  /** Draining stays a step of its own, as it was up to 0.1.0. */
  apart?: boolean;
  /** Steps that are asked whatever the rule set says of them, each in its usual place. */
  also?: readonly string[] | undefined;
}

/** How runs were put together while draining was always a step of its own. */
export const drainApart: ProcedureOptions = { apart: true };

/**
 * The steps of a run: those of the rule set that this rig has the parts for, less the ones that were not due.
 *
 * @param leftOut ids of steps that were not due when the run started
 */
export function procedureFor(
  rig: RigUnderTest,
  ruleSet: RuleSet,
  leftOut: readonly string[] = [],
  { apart = false, also = [] }: ProcedureOptions = {},
): Procedure {
  const steps = withAlso(orderedSteps(ruleSet), also).flatMap(({ stepId, need }): Step[] => {
    if (need === 'off' || leftOut.includes(stepId)) return [];
    const made = stepMakerById(stepId)?.make({ rig, ruleSet });
    return made ? [{ ...made, required: need === 'must' }] : [];
  });
  return { title: ruleSet.title, steps: apart ? steps : drainedOnTheWay(steps) };
}

/** The rule set’s steps with others among them, these before the first that usually comes after them. */
function withAlso(steps: readonly RuleStep[], also: readonly string[]): readonly RuleStep[] {
  const placeOf = (stepId: string) => stepMakers.findIndex(({ id }) => id === stepId);
  let all = steps.filter(({ stepId }) => !also.includes(stepId));
  for (const stepId of [...also].sort((a, b) => placeOf(a) - placeOf(b))) {
    const before = all.findIndex((each) => placeOf(each.stepId) > placeOf(stepId));
    const at = before < 0 ? all.length : before;
    all = [...all.slice(0, at), { stepId, need: 'must' }, ...all.slice(at)];
  }
  return all;
}

/**
 * Draining that comes right after the rig was made safe is done in the same walk round it: one step, one press.
 * A rule set that asks for it elsewhere keeps it as a step of its own.
 */
function drainedOnTheWay(steps: readonly Step[]): Step[] {
  const [first, second, ...rest] = steps;
  if (first?.act.kind !== 'ready' || second?.id !== 'drain' || second.act.kind !== 'look') {
    return [...steps];
  }
  const both: Step = {
    ...first,
    title: `${first.title}, and drain`,
    say: [...first.say, ...second.say],
    cautions: [...first.cautions, ...second.cautions],
    act: { ...first.act, items: [...(first.act.items ?? []), ...second.act.items] },
  };
  return [both, ...rest];
}
