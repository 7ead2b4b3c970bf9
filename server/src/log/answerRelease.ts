import type { AnyFact, JobHeader, Me, ReleasedFact } from '@keen-bleed/contract';
import { JOB_VERSION, releaseBlocks, type FoldedLog, type JobState } from '@keen-bleed/core';
import { and, asc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '../db/database';
import { facts, logs, units } from '../db/schema';
import { failuresOn } from '../failures/refreshFailures';
import { noteStored, type LogInHand } from './logInHand';
import { unprovenRetests } from './retestProof';
import { linked } from './chain';
import { digestOf } from './digest';

/**
 * Answers a lead's asking for release, in the transaction that takes it in: every failure, retest and temporary measure
 * of the vehicle is looked at again, whatever the phone that asked knew of. Where nothing stands against it the release
 * is added to the log by the server; otherwise it stays asked for, and the hold stands.
 *
 * @param inHand the log with what was taken; the release is added to it
 */
export async function answerRelease(
  tx: Db,
  me: Me,
  inHand: LogInHand,
  taken: readonly AnyFact[],
): Promise<void> {
  const { log } = inHand;
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
  const rows = linked(inHand.head, [row]);
  await tx.insert(facts).values(rows);
  log.add(released);
  noteStored(inHand, me.personId, rows);
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
    ...(await unprovenRetests(tx, shopId, state, new Set(unitIds))),
  ];
}

const unitsHeld = ({ header, proven, fitted, measures }: JobState): string[] => [
  ...new Set([
    ...(proven ? [proven.at.unitId] : header.made.foundOn),
    ...fitted.map(({ at }) => at.unitId),
    ...measures.flatMap(({ measure }) => (measure.at ? [measure.at.unitId] : [])),
  ]),
];
