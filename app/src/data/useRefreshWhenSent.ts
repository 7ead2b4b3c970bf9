import { useEffect, useRef } from 'react';
import { useSWRConfig } from 'swr';
import { useOutbox } from '../store/outbox';

/** What the server works out of the runs and visits it is sent. */
const followsFromLogs = (key: unknown): boolean =>
  typeof key === 'string' && /^\/api\/v1\/(yard|units|jobs|lessons|drains|grades)/.test(key);

/**
 * Once all is sent, what is shown of it is read anew: a sheet opened before its run arrived would go on saying what
 * stood before.
 */
export function useRefreshWhenSent(): void {
  const { unsent } = useOutbox();
  const { mutate } = useSWRConfig();
  const before = useRef(unsent);
  useEffect(() => {
    const wasWaiting = before.current > 0;
    before.current = unsent;
    if (wasWaiting && unsent === 0) void mutate(followsFromLogs);
  }, [mutate, unsent]);
}
