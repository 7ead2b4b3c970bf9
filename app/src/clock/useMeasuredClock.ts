import { useSyncExternalStore } from 'react';
import { measuredClock, onClock } from '../wire/serverClock';

/** How far this device's clock is ahead of the server's, ms, rounded to what is worth saying; null where unknown. */
export function useClockAhead(): number | null {
  return useSyncExternalStore(
    (listener) => onClock(listener),
    () => rounded(measuredClock().shownAheadMs),
    () => null,
  );
}

/** To the half minute: a screen need not be drawn anew for less. */
const rounded = (ms: number | null) => (ms === null ? null : Math.round(ms / 30_000) * 30_000);
