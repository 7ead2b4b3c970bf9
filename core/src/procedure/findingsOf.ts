import type { Finding, School } from '@keen-bleed/contract';
import type { RunState } from './runState';
import { sayParts } from './wording';

/** What was seen, heard and felt, in the order of the steps. */
export function findingsOf(state: RunState, school: School): Finding[] {
  return state.procedure.steps.flatMap((step) => {
    const answers = state.answers.get(step.id);
    if (step.act.kind !== 'look' || !answers || state.skips.has(step.id)) return [];
    return step.act.items.flatMap((item): Finding[] => {
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
