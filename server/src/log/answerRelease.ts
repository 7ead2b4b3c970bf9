import type { AnyFact, JobFact, JobHeader, Me, Outcome, ReleasedFact } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  JOB_VERSION,
  releaseBlocks,
  retestOutcome,
  type FoldedLog,
  type JobState,
} from '@keen-bleed/core';
import { and, asc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '../db/database';
import { facts, logs, logUnits, units } from '../db/schema';
import { failuresOn } from '../failures/refreshFailures';
import { linked } from './chain';
import { digestOf } from './digest';

/**
 * Answers a lead's asking for release, in the transaction that takes it in: every failure, retest and temporary measure
 * of the vehicle is looked at again, whatever the phone that asked knew of. Where nothing stands against it the release
 * is added to the log by the server; otherwise it stays asked for, and the hold stands.
 *
 * @param head where the log's chain ends with what was taken
 */
export async function answerRelease(
  tx: Db,
  me: Me,
  log: FoldedLog,
  taken: readonly AnyFact[],
  head: { place: number; link: string },
): Promise<void> {
  const ask = taken.findLast((fact) => fact.kind === 'ask-release');
  if (!ask || me.role !== 'lead') return;
  const state = log.state as unknown as JobState;
  // Something that weighs came after it: it is for another moment.
  if (state.asked?.id !== ask.id) return;
  if ((await blocksOf(tx, me.shopId, log)).length > 0) return;
  const nowMs = Date.now();
  const knew = log.lanes;
  const released: ReleasedFact = {
    id: uuidv7(),
    lane: uuidv7(),
    seq: 1,
    kind: 'released',
    atMs: nowMs,
    offsetMs: 0,
    receivedAtMs: nowMs,
    v: JOB_VERSION,
    askId: ask.id,
    knew,
    digest: digestOf(log.header, log.facts, knew),
    atServerMs: nowMs,
  };
  const { receivedAtMs, ...fact } = released;
  const row = {
    shopId: me.shopId,
    logId: log.header.id,
    lane: fact.lane,
    seq: fact.seq,
    id: fact.id,
    personId: me.personId,
    fact: { ...fact },
    receivedAtMs: receivedAtMs ?? nowMs,
  };
  await tx.insert(facts).values(linked(head, [row]));
  log.add(released);
}

/** Why the vehicle of a job may not be released, as the server sees it now; its units are held while it looks. */
export async function blocksOf(tx: Db, shopId: string, log: FoldedLog): Promise<string[]> {
  const header = log.header as JobHeader;
  const state = log.state as unknown as JobState;
  const unitIds = unitsHeld(state);
  // Runs that close and jobs that change wait for this, in the same order of units.
  await tx
    .select({ id: units.id })
    .from(units)
    .where(and(eq(units.shopId, shopId), inArray(units.id, unitIds)))
    .orderBy(asc(units.id))
    .for('no key update');
  const failures = (await failuresOn(tx, shopId, unitIds)).map((failure) => ({
    ...failure,
    critical: failure.critical ?? false,
  }));
  const others = await tx
    .select({ board: logs.board })
    .from(logs)
    .where(
      and(
        eq(logs.shopId, shopId),
        eq(logs.kind, 'job'),
        isNull(logs.closedAtMs),
        ne(logs.id, header.id),
        sql`${logs.board}->'unitIds' ?| array[${sql.join(
          unitIds.map((id) => sql`${id}`),
          sql`, `,
        )}]::text[]`,
      ),
    );
  return [
    ...releaseBlocks(state, {
      failures,
      others: others.flatMap(({ board }) =>
        // Another job whose retest has passed waits for release as well: the two do not wait for each other.
        board && board.station !== 'release' ? board.holds : [],
      ),
    }),
    ...(await unprovenRetests(tx, shopId, log)),
  ];
}

const unitsHeld = ({ header, proven, fitted, measures }: JobState): string[] => [
  ...new Set([
    ...(proven ? [proven.at.unitId] : header.made.foundOn),
    ...fitted.map(({ at }) => at.unitId),
    ...measures.flatMap(({ measure }) => (measure.at ? [measure.at.unitId] : [])),
  ]),
];

/** Retests that are said to have passed and that the shop's own records do not bear out. */
async function unprovenRetests(tx: Db, shopId: string, log: FoldedLog): Promise<string[]> {
  const state = log.state as unknown as JobState;
  const answers = clockAnswers(log.facts);
  const byServer = (fact: JobFact) => correctedMs(fact, answers.get(fact.lane));
  const undone = state.measures.flatMap((each) => each.undone ?? []);
  const fittedMs = Math.max(0, ...[...state.fitted, ...undone].map(byServer));
  const held = new Set(unitsHeld(state));
  const blocks: string[] = [];
  for (const { done, passed, title, stepId } of state.owed) {
    if (!done || !passed) continue;
    const [record] = await tx
      .select()
      .from(logs)
      .where(and(eq(logs.shopId, shopId), eq(logs.id, done.logId)));
    if (!record) {
      blocks.push(`${title}: its record has not come yet. Send it from the device it was made on.`);
    } else if (!(await isOn(tx, shopId, record.id, held))) {
      blocks.push(`${title}: that record is of another vehicle.`);
    } else if (stepId !== null) {
      const outcome = record.result as Outcome | null;
      const now = outcome ? retestOutcome(outcome, stepId) : null;
      if (record.closedAtMs === null || !now) {
        blocks.push(`${title}: the run it was tested in is not finished.`);
      } else if (record.startedAtMs < fittedMs) {
        blocks.push(`${title}: that run was started before the repair. Test it again.`);
      } else if (
        now.verdict === 'fail' ||
        (now.verdict === 'cant-tell' && done.accepted === undefined)
      ) {
        blocks.push(`${title}: the record says otherwise: ${now.said}.`);
      }
    } else if (done.factId === undefined) {
      blocks.push(`${title}: it does not say which check it was tested by. Test it again.`);
    } else {
      const [entry] = await tx
        .select({ fact: facts.fact })
        .from(facts)
        .where(
          and(eq(facts.shopId, shopId), eq(facts.logId, record.id), eq(facts.id, done.factId)),
        );
      const fact = entry?.fact as
        { kind?: string; atMs?: number; offsetMs?: number | null } | undefined;
      if (fact?.kind !== 'check') {
        blocks.push(`${title}: the check it was tested by has not come yet.`);
      } else if ((fact.atMs ?? 0) - (fact.offsetMs ?? 0) < fittedMs) {
        blocks.push(`${title}: that check was made before the repair. Test it again.`);
      }
    }
  }
  return blocks;
}

/** Whether a record is on one of some units. */
async function isOn(
  tx: Db,
  shopId: string,
  logId: string,
  unitIds: ReadonlySet<string>,
): Promise<boolean> {
  const rows = await tx
    .select({ unitId: logUnits.unitId })
    .from(logUnits)
    .where(and(eq(logUnits.shopId, shopId), eq(logUnits.logId, logId)));
  return rows.some(({ unitId }) => unitIds.has(unitId));
}
