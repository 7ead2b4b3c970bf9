import type { Finding, School, StopFact } from '@keen-bleed/contract';
import type { LookAct, LookItem, Step, StopAct } from '../procedure/procedure';
import type { RunState } from './runState';
import { sayParts } from '../procedure/wording';

/** The answer to anything that is asked and was not done; it stands beside every item's own options. */
export const NOT_DONE = 'not-done';
/** That answer in words. */
export const NOT_DONE_SAID = 'not done';

/** A step that one press answers: things to look at, or a stop that is watched. */
export const isAnswered = (act: Step['act']): act is LookAct | StopAct =>
  act.kind === 'look' || act.kind === 'stop';

/** What a step asks to be looked at; none for most. */
export function itemsOf({ act }: Step): readonly LookItem[] {
  return isAnswered(act) || act.kind === 'ready' ? (act.items ?? []) : [];
}

/** What a step may be answered with: what it asks to be looked at, and that a mark never came. */
export function answeredIn(step: Step): readonly LookItem[] {
  const { act } = step;
  return act.kind === 'marks' && act.never ? [act.never] : itemsOf(step);
}

/** What was seen, heard and felt, in the order of the steps. */
export function findingsOf(state: RunState, school: School): Finding[] {
  return state.procedure.steps.flatMap((step) => {
    const measured = state.stops.get(step.id);
    const answers = measured ? wentAs(step, measured) : state.answers.get(step.id);
    if (!answers || state.skips.has(step.id)) return [];
    return answeredIn(step).flatMap((item): Finding[] => {
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
          said: option.title.includes('[') ? sayParts(option.title, school) : option.title,
          standing: option.standing,
          means: option.means ? sayParts(option.means, school) : null,
          ...(step.act.kind === 'stop' || step.act.kind === 'marks'
            ? { answer: option.value }
            : {}),
          ...(option.holds && option.standing === 'bad' ? { holds: true as const } : {}),
        },
      ];
    });
  });
}

/** A stop that was measured was watched only for how it went: its first question. */
const wentAs = (step: Step, { went }: StopFact): Readonly<Record<string, string>> => {
  const [first] = itemsOf(step);
  return first && went !== null ? { [first.key]: went } : {};
};

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
