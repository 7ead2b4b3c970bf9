import type { Outcome, RunHeader, Unit, VisitHeader } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  FoldedLog,
  hasWorkedOn,
  isAfterWork,
  provesItsSteps,
  retestOutcome,
  unsureLanes,
  visitKind,
  type JobState,
  type Owed,
  type RigUnderTest,
} from '@keen-bleed/core';
import { checksOf, checksOfRetest, retestByChecks, type Check } from '@keen-bleed/core/checks';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { logs, logUnits } from '../db/schema';
import { readLog, storedFacts, type StoredLog } from './logRow';
import { expectedAnswers } from '../retests/expectedAnswers';

/**
 * Retests that are said to have passed and that the shop's own records do not bear out, each in words with what to do.
 * Runs are judged by their own outcome, checks by their own answers and a good rig's: never by what a phone says of them.
 */
export async function unprovenRetests(
  db: Db,
  shopId: string,
  state: JobState,
  unitIds: ReadonlySet<string>,
): Promise<string[]> {
  const blocks: string[] = [];
  for (const owed of state.owed) {
    if (!owed.done || !owed.passed) continue;
    const block = await blockOf(db, shopId, state, owed, unitIds);
    if (block !== null) blocks.push(`${owed.title}: ${block}`);
  }
  return blocks;
}

async function blockOf(
  db: Db,
  shopId: string,
  state: JobState,
  owed: Owed,
  unitIds: ReadonlySet<string>,
): Promise<string | null> {
  const { done } = owed;
  if (!done) return null;
  const [record] = await db
    .select()
    .from(logs)
    .where(and(eq(logs.shopId, shopId), eq(logs.id, done.logId)));
  if (!record) return 'its record has not come yet. Send it from the device it was made on.';
  const tested = await unitsIn(db, shopId, record.id);
  if (!tested.some((unitId) => unitIds.has(unitId))) return 'that record is of another vehicle.';
  if (owed.stepId !== null && !hasWorkedOn(owed.workedOn, tested))
    return 'that run was made without a unit that was worked on. Couple it and test it again.';
  return owed.stepId === null
    ? checkBlock(db, shopId, state, owed, record)
    : runBlock(owed, owed.stepId, record);
}

function runBlock({ done, workMs }: Owed, stepId: string, record: StoredLog): string | null {
  const outcome = record.result as Outcome | null;
  const header = record.header as unknown as Partial<RunHeader>;
  const now = outcome ? retestOutcome(outcome, stepId) : null;
  if (record.closedAtMs === null || !outcome || !now)
    return 'the run it was tested in is not finished.';
  if (record.timeUnsure)
    return 'nobody knows when that run was made: its device’s clock was never compared. Test it again.';
  if (!isAfterWork(workMs, record.startedAtMs))
    return 'that run was started before the repair. Test it again.';
  if (!provesItsSteps(header.made ?? {}, outcome)) return 'that run was cut short. Test it again.';
  return verdictBlock(now, done?.accepted);
}

const verdictBlock = (
  { verdict, said }: { verdict: 'pass' | 'fail' | 'cant-tell'; said: string },
  accepted: string | undefined,
): string | null =>
  verdict === 'fail' || (verdict === 'cant-tell' && accepted === undefined)
    ? `the record says otherwise: ${said}.`
    : null;

async function checkBlock(
  db: Db,
  shopId: string,
  state: JobState,
  owed: Owed,
  record: StoredLog,
): Promise<string | null> {
  const { done, workMs } = owed;
  if (done?.factId === undefined)
    return 'it does not say which check it was tested by. Test it again.';
  if (record.kind !== 'visit') return 'the check it was tested by has not come yet.';
  const visit = await openedVisit(db, shopId, record);
  const entry = visit.made.find(({ fact }) => fact.id === done.factId);
  if (!entry) return 'the check it was tested by has not come yet.';
  if (visit.unsure.has(entry.fact.lane))
    return 'nobody knows when that check was made: its device’s clock was never compared. Test it again.';
  if (!isAfterWork(workMs, entry.atMs))
    return 'that check was made before the repair. Test it again.';
  const { rig, asked } = askedOn(state, owed, visit.header);
  if (asked.length === 0) return 'this rig has no such check. Test it again.';
  if (!asked.some(({ id }) => id === entry.fact.checkId))
    return 'that check is of something else. Test it again.';
  const expected = await expectedAnswers(
    rig,
    asked.map(({ id }) => id),
  );
  const made = visit.made.filter(({ fact }) => !visit.unsure.has(fact.lane));
  const came = retestByChecks(rig, asked, made, workMs, expected);
  if (!came) return 'not all of its checks were made since the repair. Test it again.';
  return verdictBlock(came, done.accepted);
}

/** A visit with its checks that stand, the oldest first, each with when by the server’s clock. */
async function openedVisit(db: Db, shopId: string, record: StoredLog) {
  const read = readLog(record, await storedFacts(db, shopId, record.id));
  const header = read.header as VisitHeader;
  const log = new FoldedLog(visitKind, header, read.facts as never);
  const answers = clockAnswers(log.facts);
  const { entries } = log.state;
  return {
    header,
    /** Lanes of which nobody knows how far their clock was ahead. */
    unsure: new Set(unsureLanes(log.facts)),
    made: entries.flatMap((entry) =>
      entry.kind === 'check'
        ? [{ fact: entry, atMs: correctedMs(entry, answers.get(entry.lane)) }]
        : [],
    ),
  };
}

/** The checks that a retest consists of, on the rig as it stood in the visit. */
function askedOn(
  { header }: JobState,
  owed: Owed,
  visit: VisitHeader,
): { rig: RigUnderTest; asked: readonly Check[] } {
  const [unit, ...towed] = visit.made.units as [Unit, ...Unit[]];
  const rig = { unit, towed };
  const owner = owed.check && header.made.units[owed.check.unit];
  const at = visit.made.units.findIndex(({ id }) => id === owner?.id);
  if (!owed.check || at < 0) return { rig, asked: [] };
  const there = { ...owed, check: { ...owed.check, unit: at } };
  return { rig, asked: checksOfRetest(checksOf(rig, []), there) };
}

/** Ids of the units a record is on. */
async function unitsIn(db: Db, shopId: string, logId: string): Promise<string[]> {
  const rows = await db
    .select({ unitId: logUnits.unitId })
    .from(logUnits)
    .where(and(eq(logUnits.shopId, shopId), eq(logUnits.logId, logId)));
  return rows.map(({ unitId }) => unitId);
}
