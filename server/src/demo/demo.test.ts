import { check } from '@keen-bleed/contract';
import { checkUnit } from '@keen-bleed/core';
import { asc } from 'drizzle-orm';
import request from 'supertest';
import { runEvents, runs } from '../db/schema';
import { openTestShop, type TestShop } from '../test/testShop';
import { demoFleet } from './demoFleet';
import { demoPassword, demoPeople } from './demoPeople';
import { seedDemo } from './seedDemo';

const today = Date.parse('2026-11-24T12:00:00Z');
let shop: TestShop;
beforeAll(async () => {
  shop = await openTestShop();
});
afterAll(() => shop.close());

const facts = async (of: TestShop) =>
  (
    await of.database.db
      .select({ event: runEvents.event })
      .from(runEvents)
      .orderBy(asc(runEvents.id))
  ).map((row) => row.event);

describe('the demo world', () => {
  it('holds about a dozen sound units and two years of runs', async () => {
    const made = await seedDemo(shop.database.db, { todayMs: today });
    expect(made?.units).toBeGreaterThanOrEqual(12);
    expect(made?.runs).toBeGreaterThan(150);
    for (const { draft } of demoFleet) expect(checkUnit(draft)).toEqual([]);
  });

  it('is made of facts that could have been sent', async () => {
    for (const event of await facts(shop))
      expect(check('runEvent', event)).toMatchObject({ ok: true });
  });

  it('tells stories: units that pass, that fail, and that cannot be told', async () => {
    const rows = await shop.database.db.select({ verdict: runs.verdict }).from(runs);
    const seen = new Set(rows.map((row) => row.verdict));
    expect([...seen].sort()).toEqual(['cant-tell', 'fail', 'incomplete', 'pass']);
  });

  it('comes out the same for the same day, and is made only once', async () => {
    expect(await seedDemo(shop.database.db, { todayMs: today })).toBeNull();
    const twin = await openTestShop();
    await seedDemo(twin.database.db, { todayMs: today });
    expect(await facts(twin)).toEqual(await facts(shop));
    await twin.close();
  });

  it('lets each of its people in', async () => {
    for (const { signInName, role } of demoPeople) {
      const answer = await request(shop.app)
        .post('/api/sign-in')
        .send({ signInName, password: demoPassword })
        .expect(200);
      expect((answer.body as { role: string }).role).toBe(role);
    }
  });
});
