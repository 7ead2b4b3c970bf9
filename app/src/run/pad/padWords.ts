import type { Gauge } from '@keen-bleed/contract';
import {
  caughtMark,
  isAnswered,
  itemsOf,
  markAt,
  NOT_DONE,
  sayPressure,
  type RunState,
} from '@keen-bleed/core';
import { sayClock } from '../../data/when';
import type { LinkedGauge } from '../../linked/linkedGauge';
import { padAt } from '../desk/padAt';
import { needleAt } from '../desk/useNeedle';
import type { RunDesk } from '../desk/useRunDesk';

/** As much of what lies in front of the technician as the pad's words tell of. */
export type PadDesk = Pick<
  RunDesk,
  | 'pad'
  | 'hold'
  | 'settling'
  | 'needlePsi'
  | 'answers'
  | 'openCount'
  | 'caughtAtMs'
  | 'isSet'
  | 'readingNow'
>;

/** What the pad says: the act of the step, not its name, decides. */
export function padWords(
  state: RunState,
  gauge: Gauge,
  { pad, hold, settling, needlePsi, answers, openCount, caughtAtMs, isSet }: PadDesk,
): { title: string; hint: string } {
  const act = state.step?.act;
  if (!act) return { title: 'Keep this run', hint: 'closes it; nothing can be added after' };
  if (openCount > 0) {
    return {
      title: openCount === 1 ? 'One to answer' : `${openCount} to answer`,
      hint: 'tap what you found on each line above',
    };
  }
  if (act.kind === 'ready') return { title: act.pad, hint: 'starts the run' };
  if (isAnswered(act)) {
    const bad = act.items.filter((item) =>
      item.options.some((each) => each.value === answers[item.key] && each.standing === 'bad'),
    ).length;
    const undone = act.items.filter((item) => answers[item.key] === NOT_DONE).length;
    return {
      title: bad > 0 ? `Keep, ${bad} not right` : 'Keep what was found',
      hint: undone > 0 ? `${undone} not done` : 'as answered above',
    };
  }
  if (hold?.over && !pad) return { title: 'Hold over', hint: 'lift the thumb' };
  if (!pad || needlePsi === null) {
    return { title: 'Hold', hint: 'the needle is at the bottom of the scale' };
  }
  const reading = sayPressure(needlePsi, gauge.unit);
  const { spec } = markAt(pad, needlePsi, gauge);
  return {
    title: spec.pad.replace('{reading}', reading),
    hint:
      caughtAtMs !== null
        ? 'the gauge saw it: confirm'
        : settling && settling.leftMs > 0
          ? `better wait ${sayClock(settling.leftMs)} more`
          : spec.at === 'needle' && !isSet
            ? 'suggested: press the ladder where the needle stands'
            : spec.hint,
  };
}

/** Whether there is anything to press. */
export function padWaits({ step }: RunState, { openCount, pad }: PadDesk): boolean {
  const act = step?.act;
  return (
    openCount === 0 &&
    (act === undefined || act.kind === 'ready' || isAnswered(act) || pad !== null)
  );
}

/**
 * What lies in front of the technician in a state of the run that the screen is not drawn with yet: at the moment of
 * its newest entry, with nothing moved since.
 *
 * @param drawn what the screen is drawn with
 */
export function deskAhead(
  state: RunState,
  drawn: { state: RunState; desk: PadDesk },
  linked: LinkedGauge | null,
): PadDesk {
  const { step } = state;
  const isSameStep = step !== null && step.id === drawn.state.step?.id;
  const answers = isSameStep ? drawn.desk.answers : {};
  const { pad, hold, settling, readingNow } = padAt(
    state,
    state.lastAtMs,
    isSameStep && drawn.desk.readingNow,
  );
  const caught = pad && linked ? caughtMark(pad, linked.log, state.lastAtMs) : null;
  const { needlePsi, caughtAtMs, isSet } = needleAt(pad, state.unit.gauge, linked, caught, null);
  return {
    ...{ pad, hold, settling, readingNow, needlePsi, caughtAtMs, isSet, answers },
    openCount: step ? itemsOf(step).filter(({ key }) => answers[key] === undefined).length : 0,
  };
}
