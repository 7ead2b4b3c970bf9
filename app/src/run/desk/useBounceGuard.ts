import { useCallback, useRef } from 'react';

/** A second press within this time is a glove that bounced, ms. */
const BOUNCE_MS = 350;

/** Gives a check to ask at each press: false where it comes too soon after the last one that counted. */
export function useBounceGuard(): () => boolean {
  const lastMs = useRef(0);
  return useCallback(() => {
    const pressedMs = Date.now();
    if (Math.abs(pressedMs - lastMs.current) < BOUNCE_MS) return false;
    lastMs.current = pressedMs;
    return true;
  }, []);
}
