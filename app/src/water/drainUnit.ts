import type { Unit } from '@keen-bleed/contract';
import { inDrawing } from '../air/useDrawn';
import type { Writer } from '../store/kept';
import { openLogs } from '../store/logs';
import { recordIn } from '../store/recordIn';
import { startVisit } from '../store/startVisit';

/**
 * Writes down that every tank of a unit was drained and dry: into the visit that is open on it here, or into one of its
 * own that is closed at once.
 *
 * @returns what is wrong with it, or null
 */
export async function drainedDry(who: Writer, unit: Unit): Promise<string | null> {
  const checks = await inDrawing((drawing) => drawing.checks({ unit, towed: [] }));
  const drains = checks.filter(({ doing }) => doing.does === 'drain');
  if (drains.length === 0) return 'This unit has no tank that is drained.';
  const before = await openLogs(who);
  const isOpen = before.some(
    ({ kind, header }) =>
      kind === 'visit' && header.subject.unitId === unit.id && header.subject.rigId === null,
  );
  const id = await startVisit(who, { units: [unit], rigId: null, reason: 'Drain round' });
  for (const { id: checkId, part, title } of drains) {
    const problem = await recordIn(who, id, {
      kind: 'check',
      at: { unitId: unit.id, partId: part },
      checkId,
      title,
      answer: { kind: 'grade', grade: 'none' },
      said: 'dry',
    });
    if (problem) return problem;
  }
  return isOpen ? null : recordIn(who, id, { kind: 'close' });
}
