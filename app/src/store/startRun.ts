import type { RunFact, RunHeader, RunMade } from '@keen-bleed/contract';
import { CORE_VERSION, RUN_VERSION, runMade, type NewFact } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { deviceMs, measuredClock } from '../wire/serverClock';
import { askToPersist, laneOf, type Writer } from './kept';
import { openOnDevice } from './logs';
import { sendSoon } from './outbox';

/** What a run is started with. */
export type NewRun = Omit<RunMade, 'steps'> & { rigId: string | null };

/** The header of a run that is started at a moment. */
export function runHeaderOf({ rigId, ...on }: NewRun, startedAtMs: number): RunHeader {
  return {
    id: uuidv7(),
    kind: 'run',
    v: RUN_VERSION,
    subject: { unitId: on.unit.id, rigId, partId: null },
    startedAtMs,
    offsetMs: measuredClock().aheadMs,
    coreVersion: CORE_VERSION,
    made: runMade(on),
  };
}

/**
 * Starts a run on this device, or goes on with the one of the same unit that is open here.
 *
 * @param first facts a new run begins with
 * @returns the run's id
 */
export async function startRun(
  who: Writer,
  started: NewRun,
  first: readonly NewFact<RunFact>[] = [],
): Promise<string> {
  void askToPersist();
  const nowMs = deviceMs();
  const { aheadMs, epoch } = measuredClock();
  const facts = stampedInTurn(
    await laneOf(who),
    first.map((fact) => ({ ...fact, atMs: nowMs })),
    aheadMs,
  );
  const { log } = await openOnDevice(who, runHeaderOf(started, nowMs), () => true, facts, epoch);
  sendSoon();
  return log.id;
}

/** The first facts of a lane. */
const stampedInTurn = (
  lane: string,
  facts: readonly (NewFact<RunFact> & { atMs: number })[],
  aheadMs: number | null,
): RunFact[] =>
  facts.map((fact, i) => ({
    ...fact,
    id: uuidv7(),
    lane,
    seq: i + 1,
    offsetMs: aheadMs,
    v: RUN_VERSION,
  }));

/**
 * Keeps a run on this device with the facts that a recorded trace tells, each at its own time; it stays open until
 * somebody has looked it through.
 */
export async function runFromTrace(
  who: Writer,
  header: RunHeader,
  facts: readonly (NewFact<RunFact> & { atMs: number })[],
): Promise<{ id: string } | { problem: string }> {
  const lane = await laneOf(who);
  const { aheadMs, epoch } = measuredClock();
  const stamped = stampedInTurn(lane, facts, aheadMs);
  const { log, isNew } = await openOnDevice(who, header, () => true, stamped, epoch);
  if (!isNew) {
    return { problem: 'A run of this unit is open here: finish or stop that one first.' };
  }
  sendSoon();
  return { id: log.id };
}
