import type { AnyHeader } from '@keen-bleed/contract';
import { anyLogKind, FoldedLog } from '@keen-bleed/core';
import { LRUCache } from 'lru-cache';
import type { Db } from '../db/database';
import { headOf } from './chain';
import { readLog, storedFacts, type StoredLog } from './logRow';

/** A log as it is stored, folded, with what an append asks of it. */
export interface LogInHand {
  header: AnyHeader;
  log: FoldedLog;
  /** Where its chain ends. */
  head: { place: number; link: string };
  /** Who writes in each lane. */
  writers: Map<string, string>;
  /** Who wrote each entry. */
  authors: Map<string, string>;
}

/** Entries that are kept folded at most, over all logs, and logs with their headers: some tens of megabytes. */
const MOST_ENTRIES = 40_000;
const MOST_LOGS = 300;

type Kept = LRUCache<string, LogInHand>;
const keptOf = new WeakMap<Db, Kept>();
function keptFor(db: Db): Kept {
  const kept =
    keptOf.get(db) ??
    new LRUCache<string, LogInHand>({
      max: MOST_LOGS,
      maxSize: MOST_ENTRIES,
      sizeCalculation: ({ log }) => log.facts.length + 1,
    });
  keptOf.set(db, kept);
  return kept;
}

const keyOf = (shopId: string, logId: string) => `${shopId} ${logId}`;

/**
 * Takes a log in hand to add to it: as it was left last where nothing has come in since by another server or a restore,
 * read anew otherwise. It is put back by {@link keepInHand} once what was added is stored for good; whatever goes wrong
 * before leaves nothing behind.
 *
 * @param db what it is kept for
 * @param tx the transaction that holds the log's row
 * @param endLink the link of its last entry as stored; null where it has none
 */
export async function takeInHand(
  db: Db,
  tx: Db,
  stored: StoredLog,
  endLink: string | null,
): Promise<LogInHand> {
  const key = keyOf(stored.shopId, stored.id);
  const kept = keptFor(db).get(key);
  keptFor(db).delete(key);
  // The count stands in the row that is held; a link alone may be of a moment before it was.
  if (kept?.log.facts.length === stored.factCount && endLinkOf(kept) === endLink) return kept;
  const rows = await storedFacts(tx, stored.shopId, stored.id);
  const { header, facts } = readLog(stored, rows);
  return {
    header,
    log: new FoldedLog(anyLogKind(stored.kind), header, facts),
    head: headOf(stored.header, rows),
    writers: new Map(rows.map(({ lane, personId }) => [lane, personId])),
    authors: new Map(rows.map(({ fact, personId }) => [String(fact.id), personId])),
  };
}

const endLinkOf = ({ head }: LogInHand) => (head.place === 0 ? null : head.link);

/** Notes whose the entries are that were stored now, and where the chain ends with them. */
export function noteStored(
  inHand: LogInHand,
  personId: string,
  stored: readonly { id: string; lane: string; place: number; link: string }[],
): void {
  for (const { id, lane, place, link } of stored) {
    inHand.authors.set(id, personId);
    inHand.writers.set(lane, personId);
    inHand.head = { place, link };
  }
}

/** Keeps a log for its next append. */
export function keepInHand(db: Db, { shopId, id }: StoredLog, inHand: LogInHand): void {
  keptFor(db).set(keyOf(shopId, id), inHand);
}
