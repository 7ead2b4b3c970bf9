import { useEffect, useRef, useState } from 'react';
import type { Clock } from '../run/desk/runClock';
import type { Bay } from './useBay';

/** The time of a rig in the Bay as a clock: it goes as fast as the rig's time does. */
export function useBayClock(bay: Bay | null): Clock {
  const nowMs = bay ? bay.startedAtMs + Math.round(bay.frame.timeS * 1000) : 0;
  // Asked for between two drawings, too: the newest moment the rig has told.
  const newest = useRef(nowMs);
  useEffect(() => {
    newest.current = nowMs;
  }, [nowMs]);
  const [clock] = useState<Clock>(() => () => newest.current);
  return clock;
}
