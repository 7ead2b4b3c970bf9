import type { GaugeRole } from '@keen-bleed/contract';
import { isAnswered, itemsOf, markAt, settlingNow } from '@keen-bleed/core';
import { useEffect, useState } from 'react';
import type { LinkedGauge } from '../../linked/linkedGauge';
import type { LiveRun, NewRunFact } from '../../store/useRun';
import { padAt, type PadAt } from './padAt';
import { useRunClock } from './runClock';
import { signalHoldOver, signalMark } from './signal';
import { useHoldReadings } from './useHoldReadings';
import { useBounceGuard } from './useBounceGuard';
import { useLookAnswers, type Answers } from './useLookAnswers';
import { useNeedle, type Needle } from './useNeedle';
import { useNow } from './useNow';

/** What lies in front of the technician at one moment of a run, and what they can do about it. */
export interface RunDesk extends Omit<Needle, 'byHand' | 'resolutionPsi'>, Omit<PadAt, 'isEnding'> {
  gaugeRole: GaugeRole;
  setGaugeRole: (role: GaugeRole) => void;
  /** Reads a hold before its time is up, or lets it go on. */
  readNow: () => void;
  /** How often what the pad waits for was taken; what is marked is the mean. */
  takes: number;
  takeSeveral: (several: boolean) => void;
  /** The answers of a step of looking as they stand, by key. */
  answers: Answers;
  answer: (key: string, value: string) => void;
  /** Things asked in this step that are not answered yet. */
  openCount: number;
  /** Answers the next of them as it should be. */
  answerUsual: () => void;
  /** The foot moved: the hold begins again, its marks taken back. */
  footMoved: () => void;
  /** More time for the hold that runs, or for the one that has just ended by itself. */
  longer: () => void;
  /** What went wrong with the last fact. */
  trouble: string | null;
  press: () => void;
  undo: () => void;
  tell: (fact: NewRunFact) => void;
}

/** Takes whose mean settles what one leaves open. */
const TAKES = 3;

/** Ties a run's state to the pad, the needle and the clock. */
export function useRunDesk(
  { state, record }: Pick<LiveRun, 'state' | 'record'>,
  linked: LinkedGauge | null = null,
): RunDesk {
  const { gauge } = state.unit;
  const { step } = state;
  const [trouble, setTrouble] = useState<string | null>(null);
  const [chosen, setChosen] = useState<GaugeRole | null>(null);
  const [takesIn, setTakesIn] = useState<string | null>(null);
  const [readingIn, setReadingIn] = useState<string | null>(null);
  const counts = useBounceGuard();
  const clock = useRunClock();

  const tick = useNow(state.hold !== null || settlingNow(state, state.lastAtMs) !== null);
  // The first drawing after a mark may still hold the clock of before it.
  const nowMs = Math.max(tick, state.lastAtMs);
  const { hold, settling, readingNow, isEnding, pad } = padAt(
    state,
    nowMs,
    readingIn !== null && readingIn === step?.id,
  );
  useHoldReadings(state, hold, linked, nowMs, record);
  const gaugeRole =
    chosen ??
    linked?.asRole ??
    (step?.act.kind === 'ready' ? step.act.gauges[0] : null) ??
    'primary';

  const { answers, answer, open, openCount } = useLookAnswers(step);
  const { byHand: _byHand, resolutionPsi, ...needle } = useNeedle(pad, state, gauge, linked);
  const { needlePsi, caughtAtMs } = needle;
  const takes = takesIn !== null && takesIn === step?.id ? TAKES : 1;

  const keep = async (fact: NewRunFact): Promise<boolean> => {
    try {
      const problem = await record(fact);
      setTrouble(problem);
      return problem === null;
    } catch {
      setTrouble('This device could not keep that. Free some space on it, then press again.');
      return false;
    }
  };
  const tell = (fact: NewRunFact) => void keep(fact);

  const press = () => {
    if (!counts() || openCount > 0) return;
    if (!step) {
      tell({ kind: 'close', how: 'complete' });
    } else if (step.act.kind === 'ready') {
      if (itemsOf(step).length > 0) tell({ kind: 'look', stepId: step.id, answers });
      tell({ kind: 'ready', stepId: step.id, gauge: gaugeRole });
    } else if (isAnswered(step.act)) {
      void keep({ kind: 'look', stepId: step.id, answers }).then((kept) => {
        if (kept) setTimeout(signalMark, 60);
      });
    } else if (pad && needlePsi !== null) {
      const { spec, method } = markAt(pad, needlePsi, gauge);
      void keep({
        kind: 'mark',
        stepId: step.id,
        key: spec.key,
        readingPsi: needlePsi,
        resolutionPsi: Math.round(resolutionPsi * 1000) / 1000,
        method,
        // What is passed is told by the line; where the needle stands has to be set.
        ...(takes > 1 ? { takes } : {}),
        ...(spec.at === 'needle' && !needle.isSet ? { suggested: true as const } : {}),
        // Seen by the gauge when it happened; the press only confirms it.
        ...(caughtAtMs !== null ? { atMs: caughtAtMs } : {}),
      }).then((kept) => {
        // The first tone of a page is slow to make: the mark is drawn before it sounds.
        if (kept) setTimeout(signalMark, 60);
      });
    }
  };

  const isOver = hold?.over ?? false;
  const holdStepId = step?.id;
  useEffect(() => {
    if (isOver) signalHoldOver();
  }, [isOver]);
  useEffect(() => {
    if (!isEnding || !holdStepId) return;
    // A thumb that was on its way to a line must not mark in the step that comes next.
    counts();
    void record({ kind: 'hold-over', stepId: holdStepId });
  }, [counts, holdStepId, isEnding, record]);

  return {
    pad,
    hold,
    ...needle,
    readingNow,
    readNow: () => setReadingIn(readingNow ? null : (step?.id ?? null)),
    takes,
    takeSeveral: (several) => setTakesIn(several ? (step?.id ?? null) : null),
    answers,
    answer,
    openCount,
    answerUsual: () => {
      if (open) answer(open.key, open.options[0]?.value ?? '');
    },
    settling,
    footMoved: () => {
      const marks = state.marks.filter((mark) => mark.stepId === step?.id);
      for (const { factId } of [...marks].reverse()) tell({ kind: 'retract', target: factId });
    },
    longer: () => {
      if (step?.act.kind === 'hold' && state.hold) {
        tell({ kind: 'extend', stepId: step.id, seconds: step.act.extendSeconds });
        return;
      }
      const ended = state.undoable;
      if (ended?.kind !== 'hold-over') return;
      const act = state.procedure.steps.find((each) => each.id === ended.stepId)?.act;
      const more = act?.kind === 'hold' ? act.extendSeconds : 60;
      const sinceS = Math.ceil((clock() - ended.atMs) / 1000);
      tell({ kind: 'retract', target: ended.id });
      tell({ kind: 'extend', stepId: ended.stepId, seconds: Math.min(1_800, more + sinceS) });
    },
    gaugeRole,
    setGaugeRole: setChosen,
    trouble,
    press,
    undo: () => {
      if (state.undoable) tell({ kind: 'retract', target: state.undoable.id });
    },
    tell,
  };
}
