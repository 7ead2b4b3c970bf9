import type { OpenFailure, YardRow } from '@keen-bleed/contract';
import type { JobBoard } from '@keen-bleed/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Db } from '../db/database';
import { logs } from '../db/schema';

/** A job that is open, as the yard needs it. */
export interface OpenJob {
  id: string;
  board: JobBoard;
}

/** The open jobs of a shop, the oldest first. */
export async function openJobs(db: Db, shopId: string): Promise<OpenJob[]> {
  const rows = await db
    .select({ id: logs.id, board: logs.board })
    .from(logs)
    .where(and(eq(logs.shopId, shopId), eq(logs.kind, 'job'), isNull(logs.closedAtMs)))
    .orderBy(asc(logs.startedAtMs));
  return rows.flatMap(({ id, board }) => (board ? [{ id, board }] : []));
}

/** Open jobs by the units they are about. */
export function byUnit(jobs: readonly OpenJob[]): ReadonlyMap<string, readonly OpenJob[]> {
  const units = new Map<string, OpenJob[]>();
  for (const job of jobs) {
    for (const id of job.board.unitIds) units.set(id, [...(units.get(id) ?? []), job]);
  }
  return units;
}

/**
 * Why a unit may not leave: what failed on it that its rule set takes it out of service for, and what its open jobs
 * hold it by. A failure that a job is about is told once.
 */
export function standingOf(
  failures: readonly OpenFailure[],
  own: readonly OpenJob[],
): Pick<YardRow, 'holds' | 'jobs'> {
  const ofJobs = own.flatMap(({ board }) => board.holds);
  const critical = failures.filter((failure) => failure.critical).map(({ title }) => title);
  const ofFailures = critical.length > 0 ? [`Out of service: ${critical.join(', ')}`] : [];
  return {
    holds: [...new Set([...ofFailures, ...ofJobs])],
    jobs: own.map(({ id, board: { line, station, owed, covers } }) => ({
      id,
      line,
      station,
      owed: owed.map(({ id: owedId }) => owedId),
      covers,
    })),
  };
}
