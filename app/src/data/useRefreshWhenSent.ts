import { useEffect } from 'react';
import { useSWRConfig } from 'swr';
import { onOutbox, outboxNow } from '../store/outbox';

/** What the server works out of the runs and visits it is sent. */
const followsFromLogs = (key: unknown): boolean =>
  typeof key === 'string' && /^\/api\/v1\/(yard|units|jobs|lessons|drains|grades)/.test(key);

/**
 * Once all is sent, what is shown of it is read anew: a sheet opened before its run arrived would go on saying what
 * stood before.
 */
export function useRefreshWhenSent(): void {
  const { mutate } = useSWRConfig();
  useEffect(() => {
    let before = outboxNow().unsent;
    return onOutbox(() => {
      const wasWaiting = before > 0;
      before = outboxNow().unsent;
      if (wasWaiting && before === 0) void mutate(followsFromLogs);
    });
  }, [mutate]);
}
