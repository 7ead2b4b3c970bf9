import type { CallPedal, PedalCall, PedalStanding } from '@keen-bleed/contract';
import { useEffect, useState } from 'react';
import { ask } from '../wire/api';

/** While a helper's phone is called, it is told this often that the caller is still there, ms. */
const AGAIN_MS = 2_000;
/** A helper's phone that has said nothing for so long has lost touch, ms. */
export const LOST_AFTER_MS = 6_000;

/** Whether a helper's phone shows what is called. */
export type Heard = 'alone' | 'shown' | 'on its way' | 'lost';

/** Calls to the pedal of a unit: by voice always, and to a helper's phone where there is a network. */
export function useCaller(unitId: string): {
  call: PedalCall | null;
  heard: Heard;
  say: (call: PedalCall) => void;
} {
  const [said, setSaid] = useState<CallPedal | null>(null);
  const [standing, setStanding] = useState<PedalStanding | null>(null);
  const [reached, setReached] = useState(false);
  useEffect(() => {
    if (said === null) return undefined;
    let isOn = true;
    const tell = () => {
      ask('POST', `/api/v1/units/${unitId}/pedal`, said).then(
        (told) => {
          if (!isOn) return;
          // Somebody called before this page was opened: what is called here comes after that.
          if (told.seq > said.seq) setSaid({ ...said, seq: told.seq + 1 });
          setStanding(told);
          setReached(true);
        },
        () => isOn && setReached(false),
      );
    };
    tell();
    const timer = setInterval(tell, AGAIN_MS);
    return () => {
      isOn = false;
      clearInterval(timer);
    };
  }, [said, unitId]);
  return {
    call: said?.call ?? null,
    heard: heardOf(standing, reached, said?.seq ?? 0),
    say: (call) => setSaid((before) => ({ call, seq: (before?.seq ?? 0) + 1 })),
  };
}

function heardOf(standing: PedalStanding | null, reached: boolean, seq: number): Heard {
  if (!standing?.heard) return 'alone';
  if (!reached || standing.heard.agoMs > LOST_AFTER_MS) return 'lost';
  return standing.heard.seq >= seq ? 'shown' : 'on its way';
}
