import type { Held } from '@keen-bleed/contract';
import { useEffect } from 'react';
import { followStream } from '../wire/followStream';

/**
 * Calls `onGrown` whenever a log that is made on another device has grown, with what the server holds of it where it
 * told; pass null to follow none.
 */
export function useFollowed(logId: string | null, onGrown: (held: Held | null) => unknown): void {
  useEffect(() => {
    if (logId === null) return undefined;
    return followStream(`/api/v1/logs/${logId}/live`, {
      grew: (data) => void onGrown(JSON.parse(data) as Held | null),
    });
  }, [onGrown, logId]);
}
