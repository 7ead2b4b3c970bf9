import type { Unit } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';
import { inDrawing } from '../air/useDrawn';
import type { Writer } from '../store/kept';
import { openLogs } from '../store/logs';
import { recordAllIn, recordIn } from '../store/recordIn';
import { startVisit } from '../store/startVisit';

/** What was written down of a unit whose tanks were dry, so that it can be taken back. */
export interface DrainKept {
  visitId: string;
  ids: readonly string[];
}

/**
 * Writes down that every tank of a unit was drained and dry: into the visit that is open on it here, or into one of its
 * own that is closed at once.
 *
 * @returns where it was written, or what is wrong with it
 */
export async function drainedDry(who: Writer, unit: Unit): Promise<DrainKept | string> {
  const checks = await inDrawing((drawing) => drawing.checks({ unit, towed: [] }));
  const drains = checks.filter(({ doing }) => doing.does === 'drain');
  if (drains.length === 0) return 'This unit has no tank that is drained.';
  const before = await openLogs(who);
  const isOpen = before.some(
    ({ kind, header }) =>
      kind === 'visit' && header.subject.unitId === unit.id && header.subject.rigId === null,
  );
  const visitId = await startVisit(who, { units: [unit], rigId: null, reason: 'Drain round' });
  const dry = drains.map(({ id: checkId, part, title }): NewFact => ({
    kind: 'check',
    at: { unitId: unit.id, partId: part },
    checkId,
    title,
    answer: { kind: 'grade', grade: 'none' },
    said: 'dry',
  }));
  const { ids, problem } = await recordAllIn(who, visitId, dry);
  const wrong = problem ?? (isOpen ? null : await recordIn(who, visitId, { kind: 'close' }));
  return wrong ?? { visitId, ids };
}

/** Takes back that a unit's tanks were dry; the record keeps both. */
export const notDrained = async (
  who: Writer,
  { visitId, ids }: DrainKept,
): Promise<string | null> =>
  (
    await recordAllIn(
      who,
      visitId,
      ids.map((target): NewFact => ({ kind: 'retract', target })),
    )
  ).problem;
