import type { AnyFact, AnyHeader } from '@keen-bleed/contract';
import { FoldedLog, anyLogKind } from '@keen-bleed/core';
import {
  database,
  toWrite,
  type DeviceFact,
  type DeviceLog,
  type DroppedFact,
  type Refusal,
} from './database';
import type { Writer } from './kept';
import { tellTabs } from './tabs';

/** A log with its facts as they are kept here. */
export interface KeptLog {
  log: DeviceLog;
  rows: DeviceFact[];
}

/** A log kept here, or null. */
export async function keptLog(id: string): Promise<KeptLog | null> {
  const tx = (await database()).transaction(['logs', 'facts']);
  const log = await tx.objectStore('logs').get(id);
  const rows = log ? await tx.objectStore('facts').index('by-log').getAll(id) : [];
  return log ? { log, rows } : null;
}

/** Folds a log kept here. */
export const folded = ({ log, rows }: KeptLog): FoldedLog =>
  new FoldedLog(
    anyLogKind(log.kind),
    log.header,
    rows.map(({ fact }) => fact),
  );

/** How a log stands that is new on this device. */
const newLog = (who: Writer, header: AnyHeader): DeviceLog => ({
  id: header.id,
  kind: header.kind,
  shopId: who.shopId,
  personId: who.personId,
  unitId: header.subject.unitId,
  header,
  opened: 0,
  closed: 0,
  refused: null,
  confirmedAtMs: null,
  writers: {},
  verdict: null,
});

/**
 * Puts a new log on this device with its first facts, unless one that would be in its way is open here. All in one
 * transaction: two tabs cannot both start one.
 *
 * @param isInTheWay which open log on the same unit is gone on with instead
 * @returns the log that is open now
 */
export async function openOnDevice(
  who: Writer,
  header: AnyHeader,
  isInTheWay: (log: DeviceLog) => boolean,
  facts: readonly AnyFact[] = [],
  epoch = '',
): Promise<{ log: DeviceLog; isNew: boolean }> {
  const tx = await toWrite(['logs', 'facts'], {
    durability: 'strict',
  });
  const sameUnit = await tx.objectStore('logs').index('by-unit').getAll(header.subject.unitId);
  const open = sameUnit.find(
    (log) => log.closed === 0 && log.kind === header.kind && isMine(log, who) && isInTheWay(log),
  );
  if (open) {
    await tx.done;
    return { log: open, isNew: false };
  }
  const log = newLog(who, header);
  await tx.objectStore('logs').add(log);
  for (const fact of facts) {
    const { id, lane, seq } = fact;
    await tx.objectStore('facts').add({ id, logId: log.id, lane, seq, fact, sent: 0, epoch });
  }
  await tx.done;
  tellTabs(log.id);
  return { log, isNew: true };
}

/** Takes in a log of the shop as the server has it, so that it can be written in here without network. */
export async function takeIn(
  who: Writer,
  {
    header,
    facts,
    writers,
  }: { header: AnyHeader; facts: readonly AnyFact[]; writers: Readonly<Record<string, string>> },
  openedBy: string,
): Promise<void> {
  const tx = await toWrite(['logs', 'facts']);
  const logs = tx.objectStore('logs');
  const kept = await logs.get(header.id);
  // Not every closing counts: the run may have been taken over by then.
  const isClosed = new FoldedLog(anyLogKind(header.kind), header, facts).state.closed !== null;
  await logs.put({
    ...(kept ?? newLog({ ...who, personId: openedBy }, header)),
    opened: 1,
    // A job may be open again: something came in that its release did not know.
    closed: isClosed || (kept?.closed === 1 && header.kind !== 'job') ? 1 : 0,
    // The server has just told of all that is closed here; what waits beside it holds the log back by itself.
    confirmedAtMs: kept?.confirmedAtMs ?? (isClosed ? Date.now() : null),
    writers,
  });
  for (const fact of facts) {
    const { id, lane, seq } = fact;
    const row = await tx.objectStore('facts').get(id);
    await tx
      .objectStore('facts')
      .put({ id, logId: header.id, lane, seq, fact, sent: 1, epoch: row?.epoch ?? '' });
  }
  await tx.done;
  tellTabs(header.id);
}

export const isMine = (
  log: Pick<DeviceLog, 'shopId' | 'personId' | 'takenBy'>,
  who: Writer,
): boolean =>
  log.shopId === who.shopId && (log.personId === who.personId || log.takenBy === who.personId);

/** Whether a person of this device may write in a log that is kept here. */
export const isWritable = (log: DeviceLog, who: Writer): boolean =>
  isMine(log, who) || (log.shopId === who.shopId && anyLogKind(log.kind).writers === 'shop');

/** Logs that are open on this device and a person may go on with, newest first. */
export async function openLogs(who: Writer): Promise<DeviceLog[]> {
  const open = await (await database()).getAllFromIndex('logs', 'by-closed', 0);
  return open
    .filter((log) => isWritable(log, who))
    .sort((a, b) => b.header.startedAtMs - a.header.startedAtMs);
}

/** Logs of a shop that this device keeps and that were begun since then, by its own clock. */
export async function logsSince(shopId: string, sinceMs: number): Promise<DeviceLog[]> {
  const all = await (await database()).getAll('logs');
  return all.filter((log) => log.shopId === shopId && log.header.startedAtMs >= sinceMs);
}

/** The run of a unit in front that is open on this device, or null. */
export async function openRunOf(who: Writer, unitId: string): Promise<DeviceLog | null> {
  const ofUnit = await (await database()).getAllFromIndex('logs', 'by-unit', unitId);
  return ofUnit.find((log) => log.kind === 'run' && log.closed === 0 && isMine(log, who)) ?? null;
}

/** The newest closed run of a unit in front that this device keeps, with its facts; null where it keeps none. */
export async function closedRunOf(who: Writer, unitId: string): Promise<KeptLog | null> {
  const ofUnit = await (await database()).getAllFromIndex('logs', 'by-unit', unitId);
  const [newest] = ofUnit
    .filter((log) => log.kind === 'run' && log.closed === 1 && log.shopId === who.shopId)
    .sort((a, b) => b.header.startedAtMs - a.header.startedAtMs);
  return newest ? keptLog(newest.id) : null;
}

/** Changes what is kept of a log, beside its facts. */
export async function changeLog(
  id: string,
  change: Partial<
    Pick<
      DeviceLog,
      'opened' | 'closed' | 'refused' | 'confirmedAtMs' | 'header' | 'writers' | 'takenBy'
    >
  >,
): Promise<void> {
  const tx = await toWrite(['logs']);
  const log = await tx.objectStore('logs').get(id);
  if (log) await tx.objectStore('logs').put({ ...log, ...change });
  await tx.done;
}

/** Logs that wait for the server: not opened there, or with facts it does not have. The work goes with what waits. */
export async function waitingLogs(): Promise<DeviceLog[]> {
  return (await waiting()).map(({ log }) => log);
}

/** A log that waits, with the facts that waited when it was looked at. */
export interface Waiting {
  log: DeviceLog;
  factIds: ReadonlySet<string>;
}

/**
 * What waits, in the order it is sent: jobs last, since the server weighs a job’s retests and its release by the runs
 * and checks that they name. All is read at one moment: what a job’s facts name is in it, whatever is written meanwhile.
 */
export async function waitingInOrder(): Promise<Waiting[]> {
  const all = await waiting();
  const isJob = ({ log }: Waiting) => log.kind === 'job';
  return [...all.filter((each) => !isJob(each)), ...all.filter(isJob)];
}

/** What waits, the oldest log first. */
async function waiting(): Promise<Waiting[]> {
  const tx = (await database()).transaction(['logs', 'facts']);
  const unopened = await tx.objectStore('logs').index('by-opened').getAllKeys(0);
  const byLog = new Map(unopened.map((id) => [String(id), new Set<string>()]));
  let cursor = await tx.objectStore('facts').index('by-sent').openCursor(0);
  while (cursor) {
    const { logId, id } = cursor.value;
    byLog.set(logId, (byLog.get(logId) ?? new Set<string>()).add(id));
    cursor = await cursor.continue();
  }
  const found = await Promise.all(
    [...byLog].map(async ([id, factIds]) => ({
      log: await tx.objectStore('logs').get(id),
      factIds,
    })),
  );
  return found
    .flatMap(({ log, factIds }) => (log ? [{ log, factIds }] : []))
    .sort((a, b) => (a.log.id < b.log.id ? -1 : 1));
}

/** Logs the server refused something of. */
export async function refusedLogs(): Promise<DeviceLog[]> {
  return (await waitingLogs()).filter((log) => log.refused !== null);
}

/** Facts of a log the server does not have, lane by lane in their order. */
export async function unsentFacts(logId: string): Promise<DeviceFact[]> {
  const rows = await (await database()).getAllFromIndex('facts', 'by-log', logId);
  return rows
    .filter((row) => row.sent === 0)
    .sort((a, b) => (a.lane < b.lane ? -1 : a.lane > b.lane ? 1 : a.seq - b.seq));
}

/** How many facts the server does not have. */
export async function countUnsent(): Promise<number> {
  return (await database()).countFromIndex('facts', 'by-sent', 0);
}

/**
 * Sets each fact of some lanes as sent or not by the last place the server says it holds of the lane. Only the
 * server's own word counts.
 *
 * @returns whether anything changed
 */
export async function setHeld(
  logId: string,
  lanes: readonly string[],
  held: Readonly<Record<string, number>>,
): Promise<boolean> {
  const tx = await toWrite(['facts']);
  let changed = false;
  for (const row of await tx.objectStore('facts').index('by-log').getAll(logId)) {
    if (!lanes.includes(row.lane)) continue;
    const sent = row.seq <= (held[row.lane] ?? 0) ? 1 : 0;
    if (row.sent === sent) continue;
    changed = true;
    await tx.objectStore('facts').put({ ...row, sent });
  }
  await tx.done;
  return changed;
}

/** Moves what is not sent of a log into another lane: its place is taken on the server by other facts. */
export async function moveToLane(logId: string, from: string, to: string): Promise<void> {
  const tx = await toWrite(['facts'], { durability: 'strict' });
  const rows = (await tx.objectStore('facts').index('by-log').getAll(logId))
    .filter((row) => row.lane === from && row.sent === 0)
    .sort((a, b) => a.seq - b.seq);
  for (const [i, row] of rows.entries()) {
    const seq = i + 1;
    await tx
      .objectStore('facts')
      .put({ ...row, lane: to, seq, fact: { ...row.fact, lane: to, seq } });
  }
  await tx.done;
  tellTabs(logId);
}

/** Replaces a fact that was never taken by the server: the old words stay among what was dropped. */
export async function correctFact(factId: string, fact: AnyFact, why: string): Promise<void> {
  const tx = await toWrite(['logs', 'facts', 'dropped'], {
    durability: 'strict',
  });
  const row = await tx.objectStore('facts').get(factId);
  if (row?.sent === 0) {
    await tx.objectStore('dropped').put(asDropped(row, why));
    await tx.objectStore('facts').delete(factId);
    await tx.objectStore('facts').put({ ...row, id: fact.id, fact });
    await settle(tx.objectStore('logs'), row.logId);
  }
  await tx.done;
  if (row) tellTabs(row.logId);
}

/** Takes a fact out that the server would not have; it stays on the device until its log leaves. */
export async function dropFact(factId: string, why: string): Promise<void> {
  const tx = await toWrite(['logs', 'facts', 'dropped'], {
    durability: 'strict',
  });
  const facts = tx.objectStore('facts');
  const row = await facts.get(factId);
  if (row?.sent === 0) {
    await tx.objectStore('dropped').put(asDropped(row, why));
    await facts.delete(factId);
    const after = (await facts.index('by-log').getAll(row.logId))
      .filter((each) => each.lane === row.lane && each.seq > row.seq)
      .sort((a, b) => a.seq - b.seq);
    for (const each of after) {
      const seq = each.seq - 1;
      await facts.put({ ...each, seq, fact: { ...each.fact, seq } });
    }
    const logs = tx.objectStore('logs');
    await settle(logs, row.logId);
    const log = await logs.get(row.logId);
    if (log && row.fact.kind === 'close') await logs.put({ ...log, closed: 0, verdict: null });
  }
  await tx.done;
  if (row) tellTabs(row.logId);
}

const asDropped = ({ id, logId, fact }: DeviceFact, why: string): DroppedFact => ({
  id,
  logId,
  fact,
  why,
  atMs: Date.now(),
});

interface LogPutter {
  get: (id: string) => Promise<DeviceLog | undefined>;
  put: (log: DeviceLog) => Promise<unknown>;
}

async function settle(logs: LogPutter, logId: string): Promise<void> {
  const log = await logs.get(logId);
  if (log) await logs.put({ ...log, refused: null });
}

/** What was dropped of a log. */
export async function droppedFacts(logId: string): Promise<DroppedFact[]> {
  return (await database()).getAllFromIndex('dropped', 'by-log', logId);
}

/** Forgets, or changes, why the server would not take a log or one of its facts. */
export const setRefused = (id: string, refused: Refusal | null): Promise<void> =>
  changeLog(id, { refused });

/**
 * Notes why the server would not take a log or one of its facts, but where nothing of it waits any more: another page
 * may have sent it while this one was turned away.
 */
export const refuse = (id: string, refused: Refusal): Promise<void> =>
  changeWhile(id, (waits) => (waits ? refused : null));

/** Forgets a refusal of a log that has gone out after all: it would hold up what is recorded next. */
export const gone = (id: string): Promise<void> =>
  changeWhile(id, (waits, before) => (waits ? before : null));

async function changeWhile(
  id: string,
  refusal: (waits: boolean, before: Refusal | null) => Refusal | null,
): Promise<void> {
  const tx = await toWrite(['logs', 'facts']);
  const log = await tx.objectStore('logs').get(id);
  if (log) {
    const rows = await tx.objectStore('facts').index('by-log').getAll(id);
    const refused = refusal(log.opened === 0 || rows.some(({ sent }) => sent === 0), log.refused);
    if (refused !== log.refused) await tx.objectStore('logs').put({ ...log, refused });
  }
  await tx.done;
}
