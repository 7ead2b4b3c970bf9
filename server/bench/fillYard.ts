import { v7 as uuidv7 } from 'uuid';
import { hashPassword } from '../src/accounts/password';
import type { Database } from '../src/db/database';
import { logs, logUnits, people, ruleSets, shops, units } from '../src/db/schema';
import { storedLog } from '../src/log/storedLog';
import { keepRevision } from '../src/ruleSets/ruleSetAsKept';
import { keepRevisions } from '../src/units/unitRevisions';
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
  const passwordHash = await hashPassword(PASSWORD);
  await db
    .insert(people)
    .values({ shopId, id: personId, name: 'B', signInName: 'bench', role: 'lead', passwordHash });
  for (const row of await db.insert(ruleSets).values(shortRuleSetRow(shopId)).returning()) {
    await keepRevision(db, personId, row);
  }
  const unitRows = Array.from({ length: UNITS }, (_, index) => ({
    shopId,
    id: uuidv7(),
    number: String(index),
    draft: truckDraft(String(index)),
  }));
  await keepRevisions(db, personId, await db.insert(units).values(unitRows).returning());
  for (const row of unitRows) {
    const unit = {
      ...unitRecord({
        ...row,
        revision: 1,
        retiredAt: null,
        failures: null,
        createdAt: new Date(),
        updatedAt: new Date(),
      }),
    };
    const header = runHeader(unit);
    const whole = wholeRun(1);
    const made = Array.from({ length: RUNS_PER_UNIT }, (_, index) => {
      const laterMs = index * 3_000_000_000;
      const facts = whole.map((fact) => ({ ...fact, atMs: fact.atMs + laterMs }));
      const startedAtMs = header.startedAtMs + laterMs;
      return storedLog(
        shopId,
        () => personId,
        { ...header, id: uuidv7(), startedAtMs },
        facts,
        startedAtMs + 600_000,
      );
    });
    await db.insert(logs).values(made.map(({ log }) => log));
    await db.insert(logUnits).values(made.flatMap(({ units: each }) => each));
  }
  await db.execute('vacuum analyze');
  return { shopId, personId, unitIds: unitRows.map((row) => row.id) };
}
