import type { Held } from '@keen-bleed/contract';
import { useEffect } from 'react';

/**
 * Calls `onGrown` whenever a log that is made on another device has grown, with what the server holds of it where it
 * told; pass null to follow none.
 */
export function useFollowed(logId: string | null, onGrown: (held: Held | null) => unknown): void {
  useEffect(() => {
    if (logId === null) return undefined;
    const source = new EventSource(`/api/v1/logs/${logId}/live`);
    source.addEventListener('grew', ({ data }: MessageEvent<string>) => {
      void onGrown(JSON.parse(data) as Held | null);
    });
    return () => source.close();
  }, [onGrown, logId]);
}
