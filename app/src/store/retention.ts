import { database, toWrite, type DeviceLog } from './database';

/** How long a closed log stays on the device after the server has confirmed all of it, ms. */
const STAYS_MS = 30 * 86_400_000;
/** A unit's newest runs that stay for use without network. */
const NEWEST_RUNS = 3;

/**
 * Which closed logs may leave: confirmed by the server for thirty days, and neither among the last three runs of their
 * unit nor a failure that no later run of the unit has passed.
 */
export function mayLeave(logs: readonly DeviceLog[], nowMs: number): string[] {
  const byUnit = new Map<string, DeviceLog[]>();
  for (const log of logs) {
    if (log.kind !== 'run' || log.closed === 0) continue;
    const some = byUnit.get(log.unitId) ?? [];
    some.push(log);
    byUnit.set(log.unitId, some);
  }
  const stays = new Set<string>();
  for (const runs of byUnit.values()) {
    runs.sort((a, b) => b.header.startedAtMs - a.header.startedAtMs);
    for (const run of runs.slice(0, NEWEST_RUNS)) stays.add(run.id);
    const lastPass = runs.findIndex((run) => run.verdict === 'pass');
    for (const [at, run] of runs.entries()) {
      if (run.verdict === 'fail' && (lastPass < 0 || at < lastPass)) stays.add(run.id);
    }
  }
  return logs.flatMap(({ id, closed, confirmedAtMs }) =>
    closed === 1 && confirmedAtMs !== null && nowMs - confirmedAtMs > STAYS_MS && !stays.has(id)
      ? [id]
      : [],
  );
}

/** Lets the logs go that may, with all that belongs to them. */
export async function leaveOldLogs(nowMs = Date.now()): Promise<void> {
  const db = await database();
  for (const id of mayLeave(await db.getAll('logs'), nowMs)) {
    const tx = await toWrite(['logs', 'facts', 'blobs', 'dropped']);
    const facts = tx.objectStore('facts');
    const rows = await facts.index('by-log').getAll(id);
    // Something may have been added since it was looked at.
    if (rows.every((row) => row.sent === 1)) {
      for (const row of rows) await facts.delete(row.id);
      for (const name of ['blobs', 'dropped'] as const) {
        const store = tx.objectStore(name);
        for (const key of await store.index('by-log').getAllKeys(id)) await store.delete(key);
      }
      await tx.objectStore('logs').delete(id);
    }
    await tx.done;
  }
}
