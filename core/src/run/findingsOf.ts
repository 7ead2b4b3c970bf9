import type { Finding, School } from '@keen-bleed/contract';
import type { LookItem, Step } from '../procedure/procedure';
import type { RunState } from './runState';
import { sayParts } from '../procedure/wording';

/** What a step asks to be looked at; none for most. */
export function itemsOf({ act }: Step): readonly LookItem[] {
  return act.kind === 'look' || act.kind === 'ready' ? (act.items ?? []) : [];
}

/** What was seen, heard and felt, in the order of the steps. */
export function findingsOf(state: RunState, school: School): Finding[] {
  return state.procedure.steps.flatMap((step) => {
    const answers = state.answers.get(step.id);
    if (!answers || state.skips.has(step.id)) return [];
    return itemsOf(step).flatMap((item): Finding[] => {
      const option = item.options.find((each) => each.value === answers[item.key]);
      if (!option) return [];
      return [
        {
          stepId: step.id,
          key: item.key,
          title: sayParts(item.ask, school),
          said: option.title,
          standing: option.standing,
          means: option.means ? sayParts(option.means, school) : null,
        },
      ];
    });
  });
}
