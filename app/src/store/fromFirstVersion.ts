import type { AnyHeader, RunFact } from '@keen-bleed/contract';
import { FoldedLog, runKind, upToDate } from '@keen-bleed/core';
import type { IDBPTransaction, StoreNames } from 'idb';
import type { DeviceFact, DeviceLog, Schema } from './database';

/** How the first version kept a run. */
interface OldRun {
  id: string;
  shopId: string;
  personId: string;
  header: Record<string, unknown>;
  opened: boolean;
  closed: boolean;
  refused: string | null;
}

interface OldEvent {
  id: string;
  runId: string;
  event: Record<string, unknown> & { id: string; seq: number; atMs: number };
  sent: 0 | 1;
}

type Upgrade = IDBPTransaction<Schema, StoreNames<Schema>[], 'versionchange'>;

/**
 * Takes over what the first version kept: runs become logs, their events facts. Two tabs could give one place twice
 * then; what has not been sent is numbered anew behind what has.
 */
export async function fromFirstVersion(tx: Upgrade): Promise<void> {
  const { db } = tx;
  const native = tx as unknown as IDBPTransaction<
    {
      runs: { key: string; value: OldRun };
      events: { key: string; value: OldEvent };
    },
    ('runs' | 'events')[],
    'versionchange'
  >;
  const runs = await native.objectStore('runs').getAll();
  const events = await native.objectStore('events').getAll();
  for (const run of runs) {
    const { log, facts } = logOf(
      run,
      events.filter((each) => each.runId === run.id),
    );
    await tx.objectStore('logs').put(log);
    for (const fact of facts) await tx.objectStore('facts').put(fact);
  }
  for (const name of ['runs', 'events']) db.deleteObjectStore(name as StoreNames<Schema>);
}

/** A run of the first version as a log of today. */
export function logOf(
  run: OldRun,
  events: readonly OldEvent[],
): { log: DeviceLog; facts: DeviceFact[] } {
  const inPlace = [...events].sort(
    (a, b) =>
      b.sent - a.sent ||
      a.event.seq - b.event.seq ||
      a.event.atMs - b.event.atMs ||
      (a.id < b.id ? -1 : 1),
  );
  const old = inPlace.map(({ event }, i) => ({ ...event, seq: i + 1 }));
  const now = upToDate(runKind, { header: run.header, facts: old });
  const header = now.header as unknown as AnyHeader;
  const facts = now.facts as unknown as readonly RunFact[];
  const closed = facts.some((fact) => fact.kind === 'close');
  return {
    log: {
      id: run.id,
      kind: 'run',
      shopId: run.shopId,
      personId: run.personId,
      unitId: header.subject.unitId,
      header,
      opened: run.opened ? 1 : 0,
      closed: closed ? 1 : 0,
      // Whatever stood in its way then is tried again: much of it passes, and this version may be taken.
      refused: null,
      confirmedAtMs: null,
      writers: {},
      verdict: closed ? verdictOf(header, facts) : null,
    },
    facts: facts.map((fact, i) => ({
      id: fact.id,
      logId: run.id,
      lane: fact.lane,
      seq: fact.seq,
      fact: fact,
      sent: inPlace[i]?.sent ?? 0,
      epoch: '',
    })),
  };
}

function verdictOf(header: AnyHeader, facts: readonly RunFact[]): string | null {
  if (header.kind !== 'run') return null;
  const log = new FoldedLog(runKind, header, facts);
  return runKind.summary(header, log.state).verdict;
}
