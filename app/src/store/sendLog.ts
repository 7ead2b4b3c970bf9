import type { AnyFact, Held } from '@keen-bleed/contract';
import { MOST_FACTS_AT_ONCE } from '@keen-bleed/contract/forms';
import { ask, RequestProblem } from '../wire/api';
import { measuredClock } from '../wire/serverClock';
import { database, type DeviceFact } from './database';
import { anotherLane, lanesOf, type Writer } from './kept';
import { changeLog, gone, moveToLane, setHeld, unsentFacts } from './logs';
import { askHeld, isHeld } from './held';
import { tellTabs } from './tabs';

/** A clock is taken for the same as when a fact was recorded within this, ms. */
const SAME_CLOCK_MS = 60_000;

/**
 * Sends what waits of one log: its header, the pictures its facts name, and the facts, lane by lane. Nothing counts as
 * sent but what the server itself says it holds.
 *
 * @param factIds the facts that waited when the pass began; of a job no later ones are sent, since what they name may
 * not have been
 * @throws RequestProblem with the fact it is about, where the server named one
 */
export async function sendLog(
  logId: string,
  who: Writer,
  factIds: ReadonlySet<string>,
): Promise<void> {
  const db = await database();
  const log = await db.get('logs', logId);
  if (!log) return;
  const goes = ({ id }: DeviceFact) => log.kind !== 'job' || factIds.has(id);
  if (log.opened === 0) {
    requireHeld(await ask('POST', '/api/v1/logs', log.header), logId);
    await changeLog(logId, { opened: 1 });
  }
  const own = await lanesOf(who);
  // Old runs were written in a lane of their own name; a person's newer facts are in the lane of this device.
  const lanes = [...new Set((await unsentFacts(logId)).map((row) => row.lane))].filter(
    (each) => own.includes(each) || (each === logId && log.personId === who.personId),
  );
  for (const each of lanes) await sendLane({ logId, lane: each, who, goes, mayTryAgain: true });
  // Another page may have been turned away meanwhile, and have said so.
  if ((await db.get('logs', logId))?.refused) await gone(logId);
  if (log.closed === 1 && (await unsentFacts(logId)).length === 0) {
    await changeLog(logId, { confirmedAtMs: Date.now() });
  }
}

/** A lane that is sent. */
interface Sending {
  logId: string;
  lane: string;
  who: Writer;
  /** Whether a fact goes with this pass. */
  goes: (row: DeviceFact) => boolean;
  mayTryAgain: boolean;
}

async function sendLane(sending: Sending): Promise<void> {
  const { logId, lane, goes } = sending;
  const rows = (await unsentFacts(logId)).filter((row) => row.lane === lane && goes(row));
  if (rows.length === 0) return;
  for (let from = 0; from < rows.length; from += MOST_FACTS_AT_ONCE) {
    const lot = rows.slice(from, from + MOST_FACTS_AT_ONCE);
    try {
      const { ready, problem } = await sendPhotos(logId, lot);
      if (ready.length > 0) await sendFacts(logId, lane, ready);
      if (problem) throw problem;
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error;
      await afterRefusal(error, { ...sending, lot });
      return;
    }
  }
}

async function sendFacts(logId: string, lane: string, lot: readonly DeviceFact[]): Promise<void> {
  const facts = await withTimeKnown(lot);
  const held = requireHeld(await ask('POST', `/api/v1/logs/${logId}/facts`, { facts }), logId);
  await setHeld(logId, [lane], held.lanes);
  if ((held.lanes[lane] ?? 0) < (lot.at(-1)?.seq ?? 0)) throw gap();
}

const gap = () =>
  new RequestProblem('facts-missing', 'The server lacks earlier marks of this record.');

interface Refused extends Sending {
  lot: readonly DeviceFact[];
}

/** Mends what can be mended at once, once; what is left is thrown, with the fact it is about. */
async function afterRefusal(problem: RequestProblem, refused: Refused): Promise<void> {
  const { logId, lane, who, lot, mayTryAgain } = refused;
  if (problem.code === 'place-taken') {
    // Another device writes under our name: its store may be a copy of this one. We go on in a lane of our own.
    if (!mayTryAgain) throw problem;
    const held = await askHeld(logId);
    if (held) await setHeld(logId, [lane], await ownPart(held, lot));
    const next = await anotherLane(who);
    await moveToLane(logId, lane, next);
    await sendLane({ ...refused, lane: next, mayTryAgain: false });
    return;
  }
  if (problem.code === 'not-found' && (await bringBack(logId, who))) throw gap();
  if (problem.code === 'facts-missing' || problem.code === 'photo-missing') {
    const held = await askHeld(logId);
    if (!held) {
      await changeLog(logId, { opened: 0 });
      throw problem;
    }
    const lacksPhoto = problem.code === 'photo-missing';
    if (lacksPhoto) await photosAgain(lot);
    const changed = await setHeld(logId, [lane], held.lanes);
    if ((!changed && !lacksPhoto) || !mayTryAgain) throw problem;
    // What the server turns out to lack goes with it: it comes before what was sent.
    const last = lot.at(-1)?.seq ?? 0;
    await sendLane({ ...refused, goes: ({ seq }) => seq <= last, mayTryAgain: false });
    return;
  }
  // What came before the fact that was refused has been taken.
  const held = await askHeld(logId).catch(() => null);
  if (held) await setHeld(logId, [lane], held.lanes);
  const at = /^facts\.(\d+)/.exec(problem.fields[0]?.field ?? '')?.[1];
  throw problem.about(at === undefined ? problem.factId : (lot[Number(at)]?.id ?? null));
}

/**
 * A record that the server no longer has, since it was restored from a backup: it is opened anew, and all of ours in it is
 * sent again with the next pass.
 *
 * @returns false where it is another person's, who has to bring it back, or where the server has it after all
 */
async function bringBack(logId: string, who: Writer): Promise<boolean> {
  const log = await (await database()).get('logs', logId);
  if (log?.personId !== who.personId || (await askHeld(logId))) return false;
  await changeLog(logId, { opened: 0, confirmedAtMs: null });
  await setHeld(logId, [...(await lanesOf(who)), logId], {});
  return true;
}

/** In a lane that two devices write in, only what the server holds of ours counts as held. */
async function ownPart(held: Held, lot: readonly DeviceFact[]): Promise<Record<string, number>> {
  const first = lot[0];
  if (!first) return {};
  const theirs = await ask('GET', `/api/v1/logs/${held.logId}`);
  const ids = new Set(theirs.facts.map(({ id }) => id));
  const known = lot.filter((row) => ids.has(row.id));
  return { [first.lane]: known.at(-1)?.seq ?? first.seq - 1 };
}

function requireHeld(answer: unknown, logId: string): Held {
  if (isHeld(answer, logId)) return answer;
  throw inTheWay();
}

/** A guest network's page, or a proxy's empty answer, is no receipt. */
const inTheWay = () =>
  new RequestProblem('offline', 'Something between here and the shop’s server is in the way.');

/**
 * Pictures go before the facts that name them.
 *
 * @returns the facts up to the first with a picture that was not taken, and what was wrong with that, about its fact
 */
async function sendPhotos(
  logId: string,
  lot: readonly DeviceFact[],
): Promise<{ ready: readonly DeviceFact[]; problem: RequestProblem | null }> {
  for (const [place, { id: factId, fact }] of lot.entries()) {
    try {
      for (const id of 'photos' in fact ? (fact.photos ?? []) : []) await sendPhoto(logId, id);
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error;
      return { ready: lot.slice(0, place), problem: error.about(factId) };
    }
  }
  return { ready: lot, problem: null };
}

async function sendPhoto(logId: string, id: string): Promise<void> {
  const db = await database();
  const photo = await db.get('blobs', id);
  if (!photo || photo.sent === 1) return;
  const kept = await ask('PUT', `/api/v1/photos/${id}?logId=${logId}`, photo.blob);
  if (kept?.id !== id) throw inTheWay();
  await db.put('blobs', { ...photo, sent: 1 });
}

/** Lets pictures be sent again: a restored server may lack what it once had. */
async function photosAgain(lot: readonly DeviceFact[]): Promise<void> {
  const db = await database();
  for (const { fact } of lot) {
    for (const id of 'photos' in fact ? (fact.photos ?? []) : []) {
      const photo = await db.get('blobs', id);
      if (photo) await db.put('blobs', { ...photo, sent: 0 });
    }
  }
}

/**
 * Facts as they are sent. How far the clock was ahead is only known if it is still the same clock: one that was set
 * between the recording and now leaves it open, and the record asks for it.
 */
async function withTimeKnown(lot: readonly DeviceFact[]): Promise<AnyFact[]> {
  const [first] = lot;
  // What is only remembered was measured before this page was loaded, or before its clock was set.
  if (first && measuredClock().measuredAtMs === null) await askHeld(first.logId);
  const { aheadMs, epoch } = measuredClock();
  const db = await database();
  const facts: AnyFact[] = [];
  for (const row of lot) {
    const { offsetMs } = row.fact;
    const same =
      aheadMs !== null && offsetMs !== null && Math.abs(aheadMs - offsetMs) <= SAME_CLOCK_MS;
    // Within one epoch the clock was not set: what it is now, it was then.
    const known = same ? offsetMs : row.epoch === epoch ? (aheadMs ?? offsetMs) : null;
    if (known === offsetMs) {
      facts.push(row.fact);
      continue;
    }
    const fact = { ...row.fact, offsetMs: known };
    await db.put('facts', { ...row, fact });
    facts.push(fact);
    tellTabs(row.logId);
  }
  return facts;
}
