import type { JobFact, JobHeader, Unit } from '@keen-bleed/contract';
import { CORE_VERSION, JOB_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import type { Database } from '../src/db/database';
import { facts, logs, logUnits } from '../src/db/schema';
import { storedLog } from '../src/log/storedLog';

export const JOBS = 500;
const OPENED_MS = 1_760_000_000_000;

/** Puts open jobs into a shop, one a unit, at every station that a technician can bring them to. */
export async function fillJobs(
  { db }: Database,
  { shopId, personId }: { shopId: string; personId: string },
  units: readonly Unit[],
): Promise<void> {
  for (let n = 0; n < JOBS; n += 1) {
    const unit = units[n % units.length]!;
    const at = { unitId: unit.id, partId: 'rear-relay' };
    const header: JobHeader = {
      id: uuidv7(),
      kind: 'job',
      v: JOB_VERSION,
      subject: { unitId: unit.id, rigId: null, partId: null },
      startedAtMs: OPENED_MS + n * 60_000,
      offsetMs: 0,
      coreVersion: CORE_VERSION,
      made: {
        units: [unit],
        foundOn: [unit.id],
        bornOf: { kind: 'hand' },
        found: 'Rear axle comes on late',
        failures: [],
        suspected: null,
      },
    };
    const said: object[] = [
      { kind: 'proven', at, text: 'cracks late', by: 'Curve at two ports' },
      { kind: 'chosen', at, repair: 'replaced', offered: { setPsi: 4 } },
      { kind: 'fitted', at, repair: 'replaced', was: { setPsi: 4 }, now: { setPsi: 4 } },
    ].slice(0, n % 4);
    const lane = uuidv7();
    const made = said.map((fact, i) => ({
      ...fact,
      id: uuidv7(),
      lane,
      seq: i + 1,
      atMs: header.startedAtMs + i * 1000,
      offsetMs: 0,
      v: JOB_VERSION,
    })) as JobFact[];
    const rows = storedLog(shopId, () => personId, header, made, header.startedAtMs + 60_000);
    await db.insert(logs).values(rows.log);
    await db.insert(logUnits).values(rows.units);
    if (rows.facts.length > 0) await db.insert(facts).values(rows.facts);
  }
}
