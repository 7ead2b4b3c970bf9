import {
  holdNow,
  padNow,
  settlingNow,
  type HoldNow,
  type PadNow,
  type RunState,
  type SettlingNow,
} from '@keen-bleed/core';

/** What the pad waits for at a moment of a run. */
export interface PadAt {
  pad: PadNow | null;
  hold: HoldNow | null;
  /** The wait before a hold, where one runs. */
  settling: SettlingNow | null;
  /** In a hold: the pad ends it with a reading instead of waiting for a line. */
  readingNow: boolean;
  /** The time of a hold is up: the fact that ends it is on its way. */
  isEnding: boolean;
}

/** @param wantsReading a hold is to be ended by a reading before its time is up */
export function padAt(state: RunState, nowMs: number, wantsReading: boolean): PadAt {
  const hold = holdNow(state, nowMs);
  const readingNow = hold !== null && !hold.over && wantsReading;
  // A press now would fall into the next step.
  const isEnding = (hold?.endsByItself ?? false) && !wantsReading;
  return {
    hold,
    settling: settlingNow(state, nowMs),
    readingNow,
    isEnding,
    // Reading now is as if the time were up: the pad takes the reading that ends the hold.
    pad: isEnding ? null : padNow(state, readingNow && state.hold ? state.hold.endsAtMs : nowMs),
  };
}
