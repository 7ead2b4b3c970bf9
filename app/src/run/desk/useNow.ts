import { useEffect, useState } from 'react';
import { useRunClock } from './runClock';

const TICK_MS = 200;

/**
 * The run's clock, drawn anew while `running`. It is read from the device each time and never counted up, so a
 * phone that slept shows the right time when it wakes.
 */
export function useNow(running: boolean): number {
  const clock = useRunClock();
  const [nowMs, setNowMs] = useState(clock);
  useEffect(() => {
    if (!running) return undefined;
    const tick = () => setNowMs(clock());
    tick();
    const timer = setInterval(tick, TICK_MS);
    document.addEventListener('visibilitychange', tick);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', tick);
    };
  }, [clock, running]);
  return nowMs;
}
