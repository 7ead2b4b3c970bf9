import { useEffect } from 'react';

/** Keeps the screen awake while it is shown, where the device can. */
export function useWakeLock(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return undefined;
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const take = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then((taken) => {
          if (left) void taken.release();
          else lock = taken;
        })
        // A low battery may refuse it; the run goes on all the same.
        .catch(() => undefined);
    };
    take();
    document.addEventListener('visibilitychange', take);
    return () => {
      left = true;
      document.removeEventListener('visibilitychange', take);
      void lock?.release();
    };
  }, []);
}
