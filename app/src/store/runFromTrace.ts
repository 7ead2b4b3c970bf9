import type { Me, OpenRun } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import type { TraceFact } from '@keen-bleed/core/trace';
import { keepEvents } from './deviceStore';
import { sendNow } from './outbox';
import { keepNewRun, openRunOf, type NewRun } from './startRun';

/**
 * Keeps a run on this device with the facts that a recorded trace tells, each at its own time; it stays open until
 * somebody has looked it through.
 */
export async function runFromTrace(
  me: Me,
  started: NewRun,
  startedAtMs: number,
  facts: readonly TraceFact[],
): Promise<{ id: string } | { problem: string }> {
  if (await openRunOf(me, started.unit.id)) {
    return { problem: 'A run of this unit is open here: finish or stop that one first.' };
  }
  const id = uuidv7();
  const header: OpenRun = { id, unitId: started.unit.id, startedAtMs, ...started };
  const events = facts.map((fact, i) => ({ ...fact, id: uuidv7(), seq: i + 1 }));
  await keepNewRun(me, header);
  await keepEvents(id, events, false);
  void sendNow();
  return { id };
}
