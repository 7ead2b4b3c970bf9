import { useLayoutEffect, useMemo, useRef } from 'react';
import type { LiveRun } from '../../store/useRun';
import type { RunDesk } from './useRunDesk';

/** What a hand does at the pad or the keys. */
export type RunActs = Pick<RunDesk, 'press' | 'nudge' | 'undo' | 'answerUsual'>;

/** The desk's acts, the same from drawing to drawing: each acts on what the pad says, drawn everywhere or not yet. */
export function useRunActs(
  { ahead, state }: Pick<LiveRun, 'ahead' | 'state'>,
  desk: RunActs,
): RunActs {
  const latest = useRef({ state, desk });
  useLayoutEffect(() => {
    latest.current = { state, desk };
  });
  return useMemo(() => {
    const now = () => {
      // A second press comes sooner than a slow phone draws all that the first one changed.
      ahead?.catchUp(latest.current.state);
      return latest.current.desk;
    };
    return {
      press: () => now().press(),
      nudge: (moves) => now().nudge(moves),
      undo: () => now().undo(),
      answerUsual: () => now().answerUsual(),
    };
  }, [ahead]);
}
