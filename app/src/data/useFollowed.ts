import { useEffect } from 'react';

/** Calls `onGrown` whenever a log that is made on another device has grown; pass null to follow none. */
export function useFollowed(logId: string | null, onGrown: () => unknown): void {
  useEffect(() => {
    if (logId === null) return undefined;
    const source = new EventSource(`/api/logs/${logId}/live`);
    source.addEventListener('grew', () => void onGrown());
    return () => source.close();
  }, [onGrown, logId]);
}
