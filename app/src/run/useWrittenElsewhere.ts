import type { Held } from '@keen-bleed/contract';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useFollowed } from '../data/useFollowed';
import type { Writer } from '../store/kept';
import { keptLog, takeIn } from '../store/logs';
import { useOutboxPart } from '../store/outbox';
import type { LiveRun } from '../store/useRun';
import { ask } from '../wire/api';
import { asLogRecord } from '../wire/logRecord';

/**
 * Brings in what another device adds to a run that is open here: it may have been taken over, or closed. Pass null
 * where none is open here.
 */
export function useWrittenElsewhere(run: LiveRun | null, who: Writer): void {
  const id = run?.header.id ?? null;
  // The server can only be asked after a run that it knows.
  const [known, setKnown] = useState<string | null>(null);
  const isAtRest = useOutboxPart(
    ({ unsent, standing }) => unsent === 0 && (standing === 'sent' || standing === 'refused'),
  );
  useEffect(() => {
    if (!isAtRest || id === null) return undefined;
    let stale = false;
    // A run that has just begun has nothing to send but itself.
    void keptLog(id).then((kept) => {
      if (!stale && kept?.log.opened === 1) setKnown(id);
    });
    return () => {
      stale = true;
    };
  }, [id, isAtRest]);
  const lanes = useRef<Readonly<Record<string, number>>>({});
  useEffect(() => {
    lanes.current = Object.fromEntries((run?.facts ?? []).map(({ lane, seq }) => [lane, seq]));
  }, [run?.facts]);
  const { shopId, personId } = who;
  const onGrown = useCallback(
    async (held: Held | null) => {
      const isNews = Object.entries(held?.lanes ?? {}).some(
        ([lane, seq]) => seq > (lanes.current[lane] ?? 0),
      );
      if (id === null || !isNews) return;
      // Without network it is heard of at the next contact: nothing marked here is lost meanwhile.
      const record = await ask('GET', `/api/v1/logs/${id}`).catch(() => null);
      if (record) await takeIn({ shopId, personId }, asLogRecord(record), record.byPersonId);
    },
    [id, personId, shopId],
  );
  useFollowed(id !== null && known === id ? id : null, onGrown);
}
