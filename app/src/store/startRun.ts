import type { Me, OpenRun } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import { keepRun, keptRuns, type DeviceRun } from './deviceStore';
import { sendNow } from './outbox';

/** What a run is started with. */
export type NewRun = Pick<OpenRun, 'unit' | 'towed' | 'rigId' | 'ruleSet' | 'leftOut'>;

/**
 * Starts a run on this device, or goes on with the one of the same unit that is open here.
 *
 * @returns the run's id
 */
export async function startRun(me: Me, started: NewRun): Promise<string> {
  const open = await openRunOf(me, started.unit.id);
  if (open) return open.id;
  const id = uuidv7();
  const header: OpenRun = {
    id,
    unitId: started.unit.id,
    startedAtMs: Date.now(),
    ...started,
  };
  await keepNewRun(me, header);
  void sendNow();
  return id;
}

/** Puts a run on this device that the server has not heard of yet. */
export const keepNewRun = (me: Me, header: OpenRun): Promise<void> =>
  keepRun({
    id: header.id,
    shopId: me.shopId,
    personId: me.personId,
    header,
    opened: false,
    closed: false,
    refused: null,
  });

/** The run of a unit in front that is open on this device, or null. */
export async function openRunOf(me: Me, unitId: string): Promise<DeviceRun | null> {
  return (await openRunsOf(me)).find((run) => run.header.unitId === unitId) ?? null;
}

/** Runs of a person that are open on this device, newest first. */
export async function openRunsOf(me: Me): Promise<DeviceRun[]> {
  const runs = await keptRuns();
  return runs
    .filter((run) => !run.closed && run.personId === me.personId && run.shopId === me.shopId)
    .sort((a, b) => b.header.startedAtMs - a.header.startedAtMs);
}
