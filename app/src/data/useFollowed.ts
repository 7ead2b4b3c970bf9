import { useEffect } from 'react';

/** Calls `onGrown` whenever a run that is made on another device has grown; pass null to follow none. */
export function useFollowed(runId: string | null, onGrown: () => unknown): void {
  useEffect(() => {
    if (runId === null) return undefined;
    const source = new EventSource(`/api/runs/${runId}/live`);
    source.addEventListener('grew', () => void onGrown());
    return () => source.close();
  }, [onGrown, runId]);
}
