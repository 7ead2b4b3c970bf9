import { useEffect, useState } from 'react';

const TICK_MS = 200;

/**
 * The clock, drawn anew while `running`. It is read from the device each time and never counted up, so a
 * phone that slept shows the right time when it wakes.
 */
export function useNow(running: boolean): number {
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return undefined;
    const tick = () => setNowMs(Date.now());
    tick();
    const timer = setInterval(tick, TICK_MS);
    document.addEventListener('visibilitychange', tick);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', tick);
    };
  }, [running]);
  return nowMs;
}
