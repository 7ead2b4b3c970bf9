import type { Finding, School } from '@keen-bleed/contract';
import type { LookItem, Step } from '../procedure/procedure';
import type { RunState } from './runState';
import { sayParts } from '../procedure/wording';

/** The answer to anything that is asked and was not done; it stands beside every item's own options. */
export const NOT_DONE = 'not-done';
/** That answer in words. */
export const NOT_DONE_SAID = 'not done';

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
      const answer = answers[item.key];
      if (answer === NOT_DONE) {
        const title = sayParts(item.ask, school);
        return [
          {
            stepId: step.id,
            key: item.key,
            title,
            said: NOT_DONE_SAID,
            standing: 'noted',
            means: null,
          },
        ];
      }
      const option = item.options.find((each) => each.value === answer);
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

/** What a required step asked for and nobody did, in words; in the order of the steps. */
export function notDone(state: RunState, school: School): string[] {
  return state.procedure.steps.flatMap((step) =>
    !step.required || state.skips.has(step.id)
      ? []
      : itemsOf(step)
          .filter((item) => state.answers.get(step.id)?.[item.key] === NOT_DONE)
          .map((item) => sayParts(item.ask, school)),
  );
}
