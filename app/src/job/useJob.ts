import type { LogRecord } from '@keen-bleed/contract';
import { jobKind, type JobState } from '@keen-bleed/core';
import { useCallback, useEffect, useState } from 'react';
import { useMe } from '../account/session';
import { useFollowed } from '../data/useFollowed';
import { useLogRecord } from '../data/useRecords';
import { takeIn } from '../store/logs';
import { useLog, type LiveLog } from '../store/useLog';

export type LiveJob = LiveLog<'job', JobState>;

/** A job, kept on this device as well, so that it can be written in without network. */
export function useJob(id: string): {
  job: LiveJob | 'loading' | 'elsewhere';
  record: LogRecord<'job'> | undefined;
  problem: string | null;
  again: () => void;
} {
  const me = useMe();
  const job = useLog<'job', JobState>(jobKind, id, me);
  const { data, error, mutate } = useLogRecord<'job'>(id);
  const again = useCallback(() => mutate(), [mutate]);
  // Followed to its end and beyond: what a late phone brings can open it again.
  useFollowed(id, again);
  const [failed, setFailed] = useState(false);
  const { shopId, personId } = me;
  useEffect(() => {
    if (!data) return;
    takeIn({ shopId, personId }, data, data.byPersonId).then(
      () => setFailed(false),
      () => setFailed(true),
    );
  }, [data, personId, shopId]);
  return {
    job,
    record: data,
    problem: failed
      ? 'This device has no room for it. Free some space on it.'
      : (error?.message ?? null),
    again: () => void mutate(),
  };
}
