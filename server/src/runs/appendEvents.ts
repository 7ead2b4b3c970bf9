import type { RunEvent } from '@keen-bleed/contract';
import { admit } from '@keen-bleed/core';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { runEvents, runs, runUnits } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { takenIndex } from '../http/errorHandler';
import { outcomeColumns } from './outcomeColumns';
import { readRun } from './runReading';

/** What became of the events that were sent. */
export interface Appended {
  /** Events now held, those sent before included. */
  held: number;
  lastSeq: number;
}

/**
 * Appends facts to a run, once each and in order. Sending the same facts again, in whole or in part, changes
 * nothing; a gap is refused and the sender told where to begin.
 */
export async function appendEvents(
  db: Db,
  who: { shopId: string; personId: string },
  runId: string,
  sent: readonly RunEvent[],
): Promise<Appended> {
  return db.transaction(async (tx) => {
    const [run] = await tx
      .select()
      .from(runs)
      .where(and(eq(runs.shopId, who.shopId), eq(runs.id, runId)))
      // Two deliveries of one outbox must not both see the same last place.
      .for('update');
    if (!run) throw notFound('run');
    if (run.personId !== who.personId) {
      throw new ApiError('not-allowed', 'This run is another person’s: only they can add to it.');
    }
    const held = (
      await tx
        .select({ event: runEvents.event })
        .from(runEvents)
        .where(and(eq(runEvents.shopId, who.shopId), eq(runEvents.runId, runId)))
        .orderBy(asc(runEvents.seq))
    ).map((row) => row.event);
    const known = new Set(held.map((event) => event.id));
    const fresh = sent.filter((event) => !known.has(event.id)).sort((a, b) => a.seq - b.seq);
    if (fresh.length === 0) return { held: held.length, lastSeq: run.lastSeq };

    const all = [...held];
    let { state } = readRun(run, all);
    for (const [index, event] of fresh.entries()) {
      if (event.seq > state.lastSeq + 1) {
        throw new ApiError(
          'events-missing',
          `Events are missing: send again from place ${state.lastSeq + 1}.`,
          [
            {
              field: `events.${index}.seq`,
              message: `The next place is ${state.lastSeq + 1}.`,
            },
          ],
        );
      }
      const problem = admit(state, known, event);
      if (problem) {
        throw new ApiError(state.closed ? 'run-closed' : 'not-right', problem.message, [
          { ...problem, field: `events.${index}.${problem.field}` },
        ]);
      }
      known.add(event.id);
      all.push(event);
      ({ state } = readRun(run, all));
    }
    try {
      await tx.insert(runEvents).values(
        fresh.map((event) => ({
          shopId: who.shopId,
          runId,
          seq: event.seq,
          id: event.id.toLowerCase(),
          event,
        })),
      );
    } catch (error) {
      if (takenIndex(error) === null) throw error;
      throw new ApiError('id-taken', 'An event with this id belongs to another run.');
    }
    const { outcome } = readRun(run, all);
    await tx
      .update(runs)
      .set({
        lastSeq: state.lastSeq,
        closedAtMs: state.closed?.atMs ?? null,
        ...(state.closed ? outcomeColumns(outcome) : {}),
      })
      .where(and(eq(runs.shopId, who.shopId), eq(runs.id, runId)));
    if (state.closed) {
      const { verdict, staticLeak } = outcomeColumns(outcome);
      await tx
        .update(runUnits)
        .set({
          closedAtMs: state.closed.atMs,
          verdict,
          // A rig's leak is no unit's own.
          staticLeak: run.towed.length === 0 ? staticLeak : null,
        })
        .where(and(eq(runUnits.shopId, who.shopId), eq(runUnits.runId, runId)));
    }
    return { held: all.length, lastSeq: state.lastSeq };
  });
}
