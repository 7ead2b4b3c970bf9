import type { JobHeader, JobRow } from '@keen-bleed/contract';
import { boardOf, rigTitle, type JobState } from '@keen-bleed/core';
import { useEffect, useState } from 'react';
import { useMe } from '../account/session';
import { useJobs } from '../data/useRecords';
import { folded, keptLog, openLogs } from '../store/logs';
import { useOutbox } from '../store/outbox';

/** Jobs of the shop as the server has them, with what this device has written and not sent yet. */
export function useBoard(): {
  rows: readonly JobRow[] | null;
  error: Error | undefined;
  again: () => void;
} {
  const me = useMe();
  const { data, error, mutate } = useJobs();
  const { unsent } = useOutbox();
  const [here, setHere] = useState<readonly JobRow[]>([]);
  useEffect(() => {
    let isMine = true;
    void unsentJobs(me).then((rows) => {
      if (isMine) setHere(rows);
    });
    return () => {
      isMine = false;
    };
  }, [me, unsent, data]);
  if (!data) return { rows: here.length > 0 ? here : null, error, again: () => void mutate() };
  const own = new Map(here.map((row) => [row.id, row]));
  const known = new Set(data.map(({ id }) => id));
  return {
    rows: [
      ...here.filter(({ id }) => !known.has(id)),
      ...data.map((row) => {
        const mine = own.get(row.id);
        return mine ? { ...mine, by: row.by, title: row.title } : row;
      }),
    ],
    error,
    again: () => void mutate(),
  };
}

/** Jobs of this device with something in them that the server has not got. */
async function unsentJobs(me: ReturnType<typeof useMe>): Promise<JobRow[]> {
  const rows: JobRow[] = [];
  for (const log of await openLogs(me)) {
    if (log.kind !== 'job') continue;
    const kept = await keptLog(log.id);
    if (!kept || (log.opened === 1 && kept.rows.every(({ sent }) => sent === 1))) continue;
    const header = log.header as JobHeader;
    const {
      learns: _learns,
      offered: _offered,
      ...board
    } = boardOf(header, folded(kept).state as unknown as JobState);
    const [unit, ...towed] = header.made.units;
    if (!unit) continue;
    rows.push({
      ...board,
      id: log.id,
      unitId: header.subject.unitId,
      title: rigTitle({ unit, towed }),
      openedMs: header.startedAtMs,
      closedAtMs: null,
      by: log.personId === me.personId ? me.name : '',
    });
  }
  return rows;
}
