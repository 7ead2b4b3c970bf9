import { v7 as uuidv7 } from 'uuid';
import { hashPassword } from '../src/accounts/password';
import type { Database } from '../src/db/database';
import { people, ruleSets, runs, runUnits, shops, units } from '../src/db/schema';
import { outcomeColumns } from '../src/runs/outcomeColumns';
import { readRun } from '../src/runs/runReading';
import { runHeader, shortRuleSetRow, truckDraft, wholeRun } from '../src/test/testShop';
import { unitRecord } from '../src/units/unitRecord';

export const UNITS = 500;
export const RUNS_PER_UNIT = 40;
export const PASSWORD = 'bench only password';

/** Makes a shop with a lead called `bench`, its units and their runs. */
export async function fillYard({
  db,
}: Database): Promise<{ shopId: string; personId: string; unitIds: string[] }> {
  const shopId = uuidv7();
  const personId = uuidv7();
  await db.insert(shops).values({ id: shopId, name: 'Bench' });
  await db.insert(ruleSets).values(shortRuleSetRow(shopId));
  const passwordHash = await hashPassword(PASSWORD);
  await db
    .insert(people)
    .values({ shopId, id: personId, name: 'B', signInName: 'bench', role: 'lead', passwordHash });
  const unitRows = Array.from({ length: UNITS }, (_, index) => ({
    shopId,
    id: uuidv7(),
    number: String(index),
    draft: truckDraft(String(index)),
  }));
  await db.insert(units).values(unitRows);
  for (const row of unitRows) {
    const unit = {
      ...unitRecord({
        ...row,
        revision: 1,
        retiredAt: null,
        createdAt: new Date(),
        updatedAt: new Date(),
      }),
    };
    const header = runHeader(unit);
    const { outcome } = readRun(header, wholeRun(1));
    const rows = Array.from({ length: RUNS_PER_UNIT }, (_, index) => ({
      ...header,
      id: uuidv7(),
      shopId,
      personId,
      startedAtMs: 1_700_000_000_000 + index * 3_000_000_000,
      closedAtMs: 1_700_000_600_000 + index * 3_000_000_000,
      lastSeq: 8,
      ...outcomeColumns(outcome),
    }));
    await db.insert(runs).values(rows);
    await db.insert(runUnits).values(
      rows.map(({ id, startedAtMs, closedAtMs, verdict, staticLeak }) => ({
        shopId,
        unitId: unit.id,
        runId: id,
        startedAtMs,
        closedAtMs,
        verdict,
        staticLeak,
      })),
    );
  }
  await db.execute('vacuum analyze');
  return { shopId, personId, unitIds: unitRows.map((row) => row.id) };
}
