import type { Me, OpenRun, RunEvent } from '@keen-bleed/contract';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A run as this device keeps it. */
export interface DeviceRun {
  id: string;
  shopId: string;
  personId: string;
  header: OpenRun;
  /** The server has the header. */
  opened: boolean;
  /** Its closing fact has been recorded here. */
  closed: boolean;
  /** Why the server will not take it, where it will not. */
  refused: string | null;
}

interface DeviceEvent {
  id: string;
  runId: string;
  event: RunEvent;
  /** 0 until the server has it; a number, since the index takes no truth values. */
  sent: 0 | 1;
}

interface Schema extends DBSchema {
  runs: { key: string; value: DeviceRun; indexes: { 'by-unit': string } };
  events: {
    key: string;
    value: DeviceEvent;
    indexes: { 'by-run': string; 'by-sent': number };
  };
  kept: { key: string; value: unknown };
}

const NAME = 'keen-bleed';
const VERSION = 1;

let opening: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opening ??= openDB<Schema>(NAME, VERSION, {
    upgrade(db) {
      const runs = db.createObjectStore('runs', { keyPath: 'id' });
      runs.createIndex('by-unit', 'header.unitId');
      const events = db.createObjectStore('events', { keyPath: 'id' });
      events.createIndex('by-run', 'runId');
      events.createIndex('by-sent', 'sent');
      db.createObjectStore('kept');
    },
    terminated() {
      opening = null;
    },
  });
  return opening;
}

/** Keeps a run's header, once. */
export async function keepRun(run: DeviceRun): Promise<void> {
  await (await database()).put('runs', run);
}

/** Changes what is kept of a run. */
export async function changeRun(id: string, change: Partial<DeviceRun>): Promise<void> {
  const tx = (await database()).transaction('runs', 'readwrite');
  const run = await tx.store.get(id);
  if (run) await tx.store.put({ ...run, ...change });
  await tx.done;
}

/** A run kept here, or null. */
export async function keptRun(id: string): Promise<DeviceRun | null> {
  return (await (await database()).get('runs', id)) ?? null;
}

/** Every run kept here. */
export async function keptRuns(): Promise<DeviceRun[]> {
  return (await database()).getAll('runs');
}

/** The facts of a run kept here, in their order. */
export async function keptEvents(runId: string): Promise<RunEvent[]> {
  const rows = await (await database()).getAllFromIndex('events', 'by-run', runId);
  return rows.map((row) => row.event).sort((a, b) => a.seq - b.seq);
}

/**
 * Keeps facts. It is done when they are on the disk, not when they are on their way to it: a mark must
 * outlive a battery that dies the next second.
 */
export async function keepEvents(
  runId: string,
  events: readonly RunEvent[],
  sent: boolean,
): Promise<void> {
  const tx = (await database()).transaction('events', 'readwrite', {
    durability: 'strict',
  });
  for (const event of events) {
    void tx.store.put({ id: event.id, runId, event, sent: sent ? 1 : 0 });
  }
  await tx.done;
}

/** Facts of a run the server does not have, in their order. */
export async function unsentEvents(runId: string): Promise<RunEvent[]> {
  const rows = await (await database()).getAllFromIndex('events', 'by-run', runId);
  return rows
    .filter((row) => row.sent === 0)
    .map((row) => row.event)
    .sort((a, b) => a.seq - b.seq);
}

/** Marks facts as sent, or all of a run as not sent. */
export async function setSent(
  runId: string,
  sent: boolean,
  ids?: ReadonlySet<string>,
): Promise<void> {
  const tx = (await database()).transaction('events', 'readwrite');
  for (const row of await tx.store.index('by-run').getAll(runId)) {
    if (!ids || ids.has(row.id)) void tx.store.put({ ...row, sent: sent ? 1 : 0 });
  }
  await tx.done;
}

/** How many facts the server does not have. */
export async function countUnsent(): Promise<number> {
  return (await database()).countFromIndex('events', 'by-sent', 0);
}

/** Who was last signed in on this device, so that it opens without network. */
export async function keptMe(): Promise<Me | null> {
  return ((await (await database()).get('kept', 'me')) as Me | undefined) ?? null;
}

/** Remembers, or forgets, who is signed in. */
export async function keepMe(me: Me | null): Promise<void> {
  const db = await database();
  if (me) await db.put('kept', me, 'me');
  else await db.delete('kept', 'me');
}

/** Something small kept by name, for the cache of what was last read. */
export async function keptByName(name: string): Promise<unknown> {
  return (await database()).get('kept', name);
}

/** Keeps something small by name, or forgets it where it is undefined. */
export async function keepByName(name: string, value: unknown): Promise<void> {
  const db = await database();
  if (value === undefined) await db.delete('kept', name);
  else await db.put('kept', value, name);
}
