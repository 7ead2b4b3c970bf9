import type { AnyFact } from '@keen-bleed/contract';
import { anyLogKind, type FoldedLog, type NewFact } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { goOnFrom, measuredClock } from '../wire/serverClock';
import { toWrite } from './database';
import { folded, keptLog } from './logs';
import { oneAtATime, tellOtherTabs } from './tabs';

/** A log that is being written on this device, as far as this tab knows it. */
export interface Writing {
  log: FoldedLog;
  lane: string;
}

/** Another tab can be quicker this many times in a row; more is no race. */
const MOST_TRIES = 8;

/** Stamps a fact as the next of its lane. */
export function stamped(
  { log, lane }: Writing,
  fact: NewFact,
  pressedAtMs: number,
  aheadMs: number | null,
): AnyFact {
  return {
    atMs: pressedAtMs,
    ...fact,
    id: uuidv7(),
    lane,
    seq: log.nextSeq(lane),
    offsetMs: aheadMs,
    v: anyLogKind(log.header.kind).version,
  };
}

/**
 * Records a fact; never refused for a clock that was set back. It is done when it is on the disk, not when it is on its way to it: a mark must outlive a battery
 * that dies the next second. Its number, the fact and, where it closes the log, the log's closed state are one
 * transaction; where another tab has written meanwhile, this one catches up first and asks again whether it may.
 *
 * @returns the log with the fact in it, or what is wrong with it
 */
export async function recordFact(
  writing: Writing,
  fact: NewFact,
  pressedAtMs: number,
): Promise<Done> {
  const done = await writeNext(writing, fact, pressedAtMs);
  // Asking for a turn takes longer than writing: it is asked for once another tab turns out to write as well.
  return (
    done ??
    oneAtATime(`keen-bleed-write-${writing.log.header.id}`, () =>
      caughtUp(writing, fact, pressedAtMs),
    )
  );
}

type Done = { log: FoldedLog } | { problem: string };

/** Records a fact after what another tab has written. */
async function caughtUp(writing: Writing, fact: NewFact, pressedAtMs: number): Promise<Done> {
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const fresh = await keptLog(writing.log.header.id);
    if (!fresh) return { problem: 'This record is no longer on this device.' };
    const done = await writeNext({ ...writing, log: folded(fresh) }, fact, pressedAtMs);
    if (done) return done;
  }
  return { problem: 'Another page is writing in this record: close it, then press again.' };
}

/** Records a fact as the next of what this tab knows; null where another has written since. */
async function writeNext(
  writing: Writing,
  fact: NewFact,
  pressedAtMs: number,
): Promise<Done | null> {
  const { log, lane } = writing;
  const latest = log.latestOf(lane);
  const movedMs = latest ? goOnFrom(latest) : 0;
  const { aheadMs, epoch } = measuredClock();
  // Another tab may have been written in since the press: the entry comes with the last one then.
  const atMs = Math.max(pressedAtMs + movedMs, latest?.atMs ?? 0);
  const made = stamped(writing, fact, atMs, aheadMs);
  const problem = log.admit(made);
  if (problem) return { problem: problem.message };
  if (!(await kept(log, made, epoch))) return null;
  log.add(made);
  tellOtherTabs(log.header.id);
  return { log };
}

/** Writes a fact if the store still holds just what this tab knows. */
async function kept(log: FoldedLog, fact: AnyFact, epoch: string): Promise<boolean> {
  const logId = log.header.id;
  const tx = await toWrite(['logs', 'facts'], {
    durability: 'strict',
  });
  const facts = tx.objectStore('facts');
  const { id, lane, seq } = fact;
  const counting = facts.index('by-log').count(logId);
  // Asked for in one go: a second round would keep the thumb waiting. What must not stay is taken back.
  const adding = facts.add({ id, logId, lane, seq, fact, sent: 0, epoch });
  adding.catch(() => undefined);
  if ((await counting) !== log.facts.length) {
    await undone(tx);
    return false;
  }
  await adding;
  if (fact.kind === 'close') {
    const logs = tx.objectStore('logs');
    const row = await logs.get(logId);
    if (row) await logs.put({ ...row, closed: 1, verdict: verdictWith(log, fact) });
  }
  await tx.done;
  return true;
}

/** Takes all of a transaction back; it may have done so by itself, where two took one place. */
async function undone(tx: { abort(): void; readonly done: Promise<void> }): Promise<void> {
  try {
    tx.abort();
  } catch {
    // It has.
  }
  await tx.done.catch(() => undefined);
}

function verdictWith(log: FoldedLog, close: AnyFact): string | null {
  const kind = anyLogKind(log.header.kind);
  const { state } = kind.fold(log.header, [...log.facts, close]);
  return kind.summary(log.header, state).verdict;
}
