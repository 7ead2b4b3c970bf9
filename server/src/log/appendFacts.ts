import { check, type AnyFact, type AppendFacts, type Held, type Me } from '@keen-bleed/contract';
import { anyLogKind, type FoldedLog } from '@keen-bleed/core';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { blobs, facts, logs, logUnits } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { takenIndex } from '../http/errorHandler';
import { isUuid, wrongShape } from '../http/route';
import { refreshFailures, unitsOfLog } from '../failures/refreshFailures';
import { answerRelease } from './answerRelease';
import { hashOf, linked } from './chain';
import { judged } from './judged';
import { applyParts } from '../units/applyParts';
import { keepInHand, noteStored, takeInHand, type LogInHand } from './logInHand';
import type { StoredLog } from './logRow';

type Sent = AppendFacts['facts'];

/** The link of a log's last entry. Written out: a column alone would be taken for one of the inner table. */
const endLink = sql<string | null>`(
  select last.link from facts last
  where last.shop_id = logs.shop_id and last.log_id = logs.id and last.place is not null
  order by last.place desc limit 1)`;

/**
 * Appends facts to a log, once each and each lane in its order. Sending the same facts again, in whole or in part,
 * changes nothing. What comes before a fact that is refused is kept: one bad fact holds up none that was good.
 *
 * @throws ApiError naming the first fact that was not taken, after those before it are stored
 */
export async function appendFacts(db: Db, me: Me, logId: string, sent: Sent): Promise<Held> {
  const { stored, inHand, held, refusal } = await db.transaction(async (tx) => {
    const [row] = await tx
      .select({ stored: logs, endLink })
      .from(logs)
      .where(and(eq(logs.shopId, me.shopId), eq(logs.id, logId)))
      // Two deliveries of one outbox must not both see the same last place.
      .for('update');
    if (!row) throw notFound('record');
    const { stored } = row;
    const inHand = await takeInHand(db, tx, stored, row.endLink);
    const { log } = inHand;
    requireOwnLanes(inHand, me, sent);
    const writes = rightsOf(stored, me, sent, log.facts);
    if (writes === 'others-alone') requireNothingButNotes(stored, me, sent);
    if (writes !== 'all') requireOwnEntries(inHand, me, sent);
    const { taken, refusal } = take(log, me, sent, await photosHeld(tx, me, sent));
    if (taken.length > 0) await store(tx, me, stored, inHand, taken);
    return { stored, inHand, held: heldOf(log, logId), refusal };
  });
  keepInHand(db, stored, inHand);
  if (refusal) throw refusal;
  return held;
}

/** What is held of a log, as the sender is told. */
function heldOf(log: FoldedLog, logId: string): Held {
  return {
    logId,
    held: log.facts.length,
    lanes: log.lanes,
    closedAtMs: log.state.closed?.atMs ?? null,
  };
}

/**
 * What a person may do in a log: `all` where they opened it alone or have taken it over, `own` entries where everybody
 * writes, and otherwise what others may add to a log that is not theirs.
 */
function rightsOf(
  stored: StoredLog,
  me: Me,
  sent: Sent,
  known: readonly AnyFact[],
): 'all' | 'own' | 'others-alone' {
  if (anyLogKind(stored.kind).writers === 'shop') return 'own';
  if (stored.personId === me.personId) return 'all';
  const lanes = new Set(sent.map(({ lane }) => lane.toLowerCase()));
  const first = [...sent].sort((a, b) => a.seq - b.seq).find(({ kind }) => !isAnybodys(kind));
  // It is said before anything is added, and in the lane that goes on.
  const hasTaken =
    known.some((fact) => fact.kind === 'take-over' && lanes.has(fact.lane.toLowerCase())) ||
    (lanes.size === 1 && first?.kind === 'take-over');
  return me.role === 'lead' && hasTaken ? 'all' : 'others-alone';
}

const isAnybodys = (kind: string) => kind === 'note' || kind === 'clock';

/** A lead may say what a wrong clock was worth where the one who opened it no longer can; a note is anybody's. */
function requireNothingButNotes(stored: StoredLog, me: Me, sent: Sent): void {
  const may = (kind: string) => kind === 'note' || (kind === 'clock' && me.role === 'lead');
  if (sent.every((fact) => may(fact.kind))) return;
  throw new ApiError(
    'not-allowed',
    me.role === 'lead'
      ? `This ${stored.kind} is another person’s: take it over to go on with it.`
      : `This ${stored.kind} is another person’s: only they or a lead can go on with it. A note can be added.`,
  );
}

/** A lane is one person's on one device: nobody writes under another's name. A device that is told so takes a new one. */
function requireOwnLanes({ writers }: LogInHand, me: Me, sent: Sent): void {
  const at = sent.findIndex(
    ({ lane }) => (writers.get(lane.toLowerCase()) ?? me.personId) !== me.personId,
  );
  if (at < 0) return;
  const message = 'Another person writes in this lane of the record: go on in one of your own.';
  throw new ApiError('place-taken', message, [{ field: `facts.${at}.lane`, message }]);
}

/** What somebody wrote is theirs to correct and to take back. */
function requireOwnEntries({ authors }: LogInHand, me: Me, sent: Sent): void {
  const touched = sent.flatMap((fact, at) => {
    // A conclusion is anybody's to put right, as long as the reason is written.
    if (fact.kind === 'proven' && 'because' in fact) return [];
    const { target, supersedes } = fact as { target?: unknown; supersedes?: unknown };
    return [
      ['target', target],
      ['supersedes', supersedes],
    ].flatMap(([field, id]) =>
      typeof id === 'string' && isUuid(id)
        ? [{ field: `facts.${at}.${field as string}`, id: id.toLowerCase() }]
        : [],
    );
  });
  const first = touched.find(({ id }) => (authors.get(id) ?? me.personId) !== me.personId);
  if (!first) return;
  const message = 'Another person wrote this entry: only they can correct it or take it back.';
  throw new ApiError('not-allowed', message, [{ field: first.field, message }]);
}

/** Adds to the folded log what may be added, up to the first fact that may not. */
function take(
  log: FoldedLog,
  { role, demo }: Pick<Me, 'role' | 'demo'>,
  sent: Sent,
  photos: ReadonlySet<string>,
): { taken: AnyFact[]; refusal: ApiError | null } {
  const taken: AnyFact[] = [];
  const kind = log.kind.name;
  const inPlace = [...sent.entries()].sort(([, a], [, b]) =>
    a.lane < b.lane ? -1 : a.lane > b.lane ? 1 : a.seq - b.seq,
  );
  const receivedAtMs = Date.now();
  for (const [index, each] of inPlace) {
    const refused = (code: ApiError['code'], message: string, field: string) => ({
      taken,
      refusal: new ApiError(code, message, [{ field: `facts.${index}.${field}`, message }]),
    });
    const known = log.factOf(each.id.toLowerCase());
    if (known) {
      // Sent again it says the same; whatever else it says was never recorded here.
      if (saysTheSame(known, each)) continue;
      return refused('id-taken', 'Another entry of this record has this id.', 'id');
    }
    const shape = check(`${kind}Fact`, each);
    if (!shape.ok) {
      const fields = shape.fields.map(({ field, message }) => ({
        field: `facts.${index}.${field}`,
        message,
      }));
      return { taken, refusal: wrongShape(fields) };
    }
    const fact = {
      ...shape.value,
      id: each.id.toLowerCase(),
      lane: each.lane.toLowerCase(),
      receivedAtMs,
    } as AnyFact;
    if (fact.kind === 'stop' && 'simulated' in fact.measured && !demo) {
      return refused(
        'not-right',
        'A simulated stop proves nothing: it is for practice.',
        'measured',
      );
    }
    if (fact.v !== log.kind.version) {
      return refused('not-right', 'The app on this device is out of date: reload it once.', 'v');
    }
    if ('photos' in fact && fact.photos?.some((id) => !photos.has(id.toLowerCase()))) {
      return refused('photo-missing', 'A photo of this entry has not come yet.', 'photos');
    }
    const forbidden = log.kind.mayNot?.(role, fact) ?? null;
    if (forbidden !== null) return refused('not-allowed', forbidden, 'kind');
    const problem = log.admit(fact);
    if (problem) return refused(problem.code, problem.message, problem.field);
    log.add(fact);
    taken.push(fact);
  }
  return { taken, refusal: null };
}

/** Whether a fact that is here already is sent again as it was; one of an older version is not read so closely. */
function saysTheSame(known: AnyFact, sent: Sent[number]): boolean {
  if (known.v !== sent.v) return true;
  const { receivedAtMs: _receivedAtMs, offsetMs: _offsetMs, ...kept } = known;
  // How far its clock was ahead is the device's to say as it sends: it may know better, or no longer, the second time.
  const { offsetMs: _sentOffsetMs, ...plain } = sent;
  const again = { ...plain, id: sent.id.toLowerCase(), lane: sent.lane.toLowerCase() };
  return hashOf(kept) === hashOf(again);
}

async function store(
  tx: Db,
  me: Me,
  stored: StoredLog,
  inHand: LogInHand,
  taken: readonly AnyFact[],
): Promise<void> {
  const { log } = inHand;
  const rows = linked(
    inHand.head,
    taken.map(({ receivedAtMs, ...fact }) => ({
      shopId: me.shopId,
      logId: stored.id,
      lane: fact.lane,
      seq: fact.seq,
      id: fact.id,
      personId: me.personId,
      fact,
      receivedAtMs: receivedAtMs ?? Date.now(),
    })),
  );
  try {
    await tx.insert(facts).values(rows);
  } catch (error) {
    if (takenIndex(error) === null) throw error;
    throw new ApiError('id-taken', 'An entry with this id belongs to another record.');
  }
  noteStored(inHand, me.personId, rows);
  await applyParts(tx, me, taken, log);
  if (stored.kind === 'job') {
    await answerRelease(tx, me, inHand, taken);
  }
  const columns = judged(log, stored.receivedAt.getTime());
  await tx
    .update(logs)
    .set(columns.log)
    .where(and(eq(logs.shopId, me.shopId), eq(logs.id, stored.id)));
  const wasOpen = stored.closedAtMs === null;
  if (wasOpen && columns.log.closedAtMs === null && stored.kind === 'run') return;
  await tx
    .update(logUnits)
    .set(columns.units)
    .where(and(eq(logUnits.shopId, me.shopId), eq(logUnits.logId, stored.id)));
  if (stored.kind === 'run') {
    await refreshFailures(tx, me.shopId, await unitsOfLog(tx, me.shopId, stored.id));
  }
}

async function photosHeld(tx: Db, { shopId }: Me, sent: Sent): Promise<Set<string>> {
  const named = sent.flatMap((fact) => {
    const { photos } = fact as { photos?: unknown };
    return Array.isArray(photos) ? photos.filter((id): id is string => typeof id === 'string') : [];
  });
  const ids = named.map((id) => id.toLowerCase()).filter(isUuid);
  if (ids.length === 0) return new Set();
  const rows = await tx
    .select({ id: blobs.id })
    .from(blobs)
    .where(and(eq(blobs.shopId, shopId), inArray(blobs.id, ids)));
  return new Set(rows.map(({ id }) => id));
}
