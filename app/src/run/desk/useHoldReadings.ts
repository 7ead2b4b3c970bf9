import { readOver, type HoldNow, type RunState } from '@keen-bleed/core';
import { useEffect } from 'react';
import type { LinkedGauge } from '../../linked/linkedGauge';
import type { NewRunFact } from '../../store/useRun';

/** A linked gauge is read this often within a hold, each time from all it has sent since, ms. */
const EVERY_MS = 15_000;

/** Lets a linked gauge read a hold by itself, so that every reading it sends counts and not the lines alone. */
export function useHoldReadings(
  { step, hold, lastAtMs }: Pick<RunState, 'step' | 'hold' | 'lastAtMs'>,
  clock: HoldNow | null,
  linked: LinkedGauge | null,
  nowMs: number,
  record: (fact: NewRunFact) => Promise<string | null>,
): void {
  const key = step?.act.kind === 'hold' ? step.act.reading.key : null;
  const turn = hold && clock && !clock.over ? Math.floor((nowMs - hold.startedAtMs) / EVERY_MS) : 0;
  const atMs = (hold?.startedAtMs ?? 0) + turn * EVERY_MS;
  const log = linked?.log;
  const stepId = step?.id;
  const isDue = turn > 0 && key !== null && stepId !== undefined && atMs > lastAtMs;
  // What was sent up to that moment may still be on its way.
  const hasCome = (log?.at(-1)?.atMs ?? 0) >= atMs;
  useEffect(() => {
    if (!isDue || !hasCome || !log) return;
    const read = readOver(log, atMs - EVERY_MS, atMs);
    if (!read) return;
    // What a full device cannot keep is said at the next mark; the hold goes on by its lines.
    record({
      kind: 'mark',
      stepId,
      key,
      readingPsi: Math.round(read.psi * 1000) / 1000,
      resolutionPsi: Math.round(read.resolutionPsi * 1000) / 1000,
      method: 'read',
      atMs,
    }).catch(() => undefined);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each turn of the clock, whatever comes in meanwhile
  }, [isDue, hasCome, atMs]);
}
