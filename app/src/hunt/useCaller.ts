import type { PedalCall, PedalStanding } from '@keen-bleed/contract';
import { useEffect, useRef, useState } from 'react';
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
  const [call, setCall] = useState<PedalCall | null>(null);
  const [standing, setStanding] = useState<PedalStanding | null>(null);
  const [reached, setReached] = useState(false);
  const seq = useRef(0);
  useEffect(() => {
    if (call === null) return undefined;
    let isOn = true;
    const tell = () => {
      ask<PedalStanding>('POST', `/api/units/${unitId}/pedal`, { call, seq: seq.current }).then(
        (told) => {
          if (!isOn) return;
          // Somebody called before this page was opened: what is called here comes after that.
          if (told.seq > seq.current) seq.current = told.seq + 1;
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
  }, [call, unitId]);
  return {
    call,
    heard: heardOf(standing, reached, seq),
    say: (next) => {
      seq.current += 1;
      setCall(next);
    },
  };
}

function heardOf(
  standing: PedalStanding | null,
  reached: boolean,
  seq: { readonly current: number },
): Heard {
  if (!standing?.heard) return 'alone';
  if (!reached || standing.heard.agoMs > LOST_AFTER_MS) return 'lost';
  return standing.heard.seq >= seq.current ? 'shown' : 'on its way';
}
