import type { AnyHeader } from '@keen-bleed/contract';
import { anyLogKind } from '@keen-bleed/core';
import { useEffect, useMemo, useState } from 'react';
import { useDrains } from '../data/useRecords';
import { folded, keptLog, logsSince } from '../store/logs';
import { onOutbox } from '../store/outbox';

/** When the tanks of a unit were drained last, and what came, in words; null where that is not said. */
export interface LastDrained {
  atMs: number;
  said: string | null;
}

/** What this device's own records add to the server's word, ms: older ones have long been sent. */
const LOOKED_BACK_MS = 2 * 86_400_000;

const unitIdsOf = ({ made }: AnyHeader): string[] =>
  'units' in made
    ? made.units.map(({ id }) => id)
    : 'unit' in made
      ? [made.unit, ...made.towed].map(({ id }) => id)
      : [];

/** When units were drained last by the runs and visits that this device keeps, by unit. */
export async function drainedHere(
  shopId: string,
  nowMs: number,
): Promise<ReadonlyMap<string, LastDrained>> {
  const found = new Map<string, LastDrained>();
  for (const { id, kind, header } of await logsSince(shopId, nowMs - LOOKED_BACK_MS)) {
    if (kind !== 'run' && kind !== 'visit') continue;
    const kept = await keptLog(id);
    if (!kept) continue;
    const log = folded(kept);
    const { drained, headline } = anyLogKind(kind).summary(header, log.state);
    const { lastMs: atMs } = log.times;
    if (!drained) continue;
    for (const unitId of unitIdsOf(header)) {
      if ((found.get(unitId)?.atMs ?? 0) < atMs) {
        found.set(unitId, { atMs, said: kind === 'visit' ? headline : null });
      }
    }
  }
  return found;
}

/**
 * When the tanks of each unit were drained last, in a visit or before a run, sent or not: the one answer that the round,
 * the sheet of water and the start of a run go by.
 */
export function useLastDrained(shopId: string): {
  of: (unitId: string) => LastDrained | null;
  ready: boolean;
} {
  const drains = useDrains();
  const [here, setHere] = useState<ReadonlyMap<string, LastDrained> | null>(null);
  useEffect(() => {
    let stale = false;
    const look = () =>
      void drainedHere(shopId, Date.now()).then(
        (found) => {
          if (!stale) setHere(found);
        },
        () => undefined,
      );
    look();
    const stop = onOutbox(look);
    return () => {
      stale = true;
      stop();
    };
  }, [shopId]);
  const there = useMemo(
    () =>
      new Map(
        (drains.data ?? []).flatMap(({ unitId, drainedAtMs, said }) =>
          drainedAtMs === null ? [] : [[unitId, { atMs: drainedAtMs, said }] as const],
        ),
      ),
    [drains.data],
  );
  return useMemo(
    () => ({
      of: (unitId: string) => {
        const [a, b] = [here?.get(unitId), there.get(unitId)];
        return (a && (!b || a.atMs >= b.atMs) ? a : b) ?? null;
      },
      ready: here !== null && (drains.data !== undefined || drains.error !== undefined),
    }),
    [drains.data, drains.error, here, there],
  );
}
