import { rigTitle, unitsOfHeader } from '@keen-bleed/core';
import type { DeviceFact, DeviceLog } from '../store/database';
import type { Writer } from '../store/kept';
import { isWritable, unsentFacts, waitingLogs } from '../store/logs';

/** A log that waits, with what of it waits. */
export interface WaitingLog {
  log: DeviceLog;
  facts: readonly DeviceFact[];
}

/** What waits for the server of what a person may write in, what was refused first. */
export async function waitingFor(who: Writer): Promise<WaitingLog[]> {
  const logs = (await waitingLogs()).filter((log) => isWritable(log, who));
  const found = await Promise.all(
    logs.map(async (log) => ({ log, facts: await unsentFacts(log.id) })),
  );
  return found.sort((a, b) => Number(a.log.refused === null) - Number(b.log.refused === null));
}

/** A log as it is called in a list. */
export function logTitle(log: DeviceLog): string {
  const [unit, ...towed] = unitsOfHeader(log.header);
  const on = unit ? rigTitle({ unit, towed }) : '';
  return `${log.kind === 'run' ? 'Run' : 'Visit'} of ${on}`;
}
