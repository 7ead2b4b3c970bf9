import { check } from '@keen-bleed/contract';
import { checkUnit, FoldedLog, jobKind, plumbingOf } from '@keen-bleed/core';
import { checksOf } from '@keen-bleed/core/checks';
import { GOOD_PLAN, measured, planOf } from '@keen-bleed/core/drawing';
import { asc, eq, sql } from 'drizzle-orm';
import request from 'supertest';
import { facts as factRows, logs, units as unitsTable } from '../db/schema';
import { storedJob } from '../jobs/storedJob';
import { blocksOf } from '../log/answerRelease';
import { openTestShop, type TestShop } from '../test/testShop';
import { demoFleet, demoRigs } from './demoFleet';
import { demoPassword, demoPeople } from './demoPeople';
import { demoVisits } from './demoVisits';
import { seedDemo } from './seedDemo';

const today = Date.parse('2026-11-24T12:00:00Z');
let shop: TestShop;
beforeAll(async () => {
  shop = await openTestShop();
});
afterAll(() => shop.close());

const facts = (of: TestShop) =>
  of.database.db
    .select({ kind: logs.kind, fact: factRows.fact })
    .from(factRows)
    .innerJoin(logs, eq(logs.id, factRows.logId))
    .orderBy(asc(factRows.id));

describe('the demo world', () => {
  it('holds about a dozen sound units and two years of runs', async () => {
    const made = await seedDemo(shop.database.db, { todayMs: today });
    expect(made?.units).toBeGreaterThanOrEqual(12);
    expect(made?.runs).toBeGreaterThan(150);
    for (const { draft } of demoFleet) expect(checkUnit(draft)).toEqual([]);
  });

  it('leaves no job with nothing owed and no release possible', async () => {
    const jobs = await shop.database.db
      .select({ id: logs.id, shopId: logs.shopId, board: logs.board, closedAtMs: logs.closedAtMs })
      .from(logs)
      .where(eq(logs.kind, 'job'));
    const waiting = jobs.filter(
      ({ board, closedAtMs }) => closedAtMs === null && board?.station === 'release',
    );
    expect(waiting.length).toBeGreaterThan(0);
    for (const { id, shopId } of waiting) {
      const { header, facts: told } = await storedJob(shop.database.db, shopId, id);
      const log = new FoldedLog(jobKind, header, told) as unknown as FoldedLog;
      const blocks = await shop.database.db.transaction((tx) => blocksOf(tx, shopId, log));
      expect([header.made.found, blocks]).toEqual([header.made.found, []]);
    }
  });

  it('holds a truck for its service stop', async () => {
    const [gritter] = await shop.database.db
      .select({ failures: unitsTable.failures })
      .from(unitsTable)
      .where(sql`${unitsTable.draft}->>'number' = '03'`);
    expect(gritter?.failures).toMatchObject([
      { key: 'look:service-stop/stop', said: 'pulls right', critical: true },
    ]);
  });

  it('is made of facts that could have been sent', async () => {
    for (const { kind, fact } of await facts(shop)) {
      expect(check(`${kind}Fact`, fact)).toMatchObject({ ok: true });
    }
  });

  it('tells stories: units that pass, that fail, and that cannot be told', async () => {
    const rows = await shop.database.db
      .select({ verdict: logs.verdict })
      .from(logs)
      .where(eq(logs.kind, 'run'));
    const seen = new Set(rows.map((row) => row.verdict));
    expect([...seen].sort()).toEqual(['cant-tell', 'fail', 'incomplete', 'pass']);
  });

  it('has checks of the catalogue in its visits, and lines as they were found', async () => {
    const units = await shop.database.db.select().from(unitsTable);
    const byNumber = (number: string) => {
      const { draft } = units.find((unit) => unit.draft.number === number)!;
      return { id: number, revision: 1, retiredAtMs: null, ...draft };
    };
    const made = demoVisits.flatMap(({ numbers, entries }) => {
      const [unit, ...towed] = numbers.map(byNumber);
      const known = new Set(checksOf({ unit: unit!, towed }, []).map(({ id }) => id));
      return entries.flatMap(({ check }) =>
        check ? [{ id: check.checkId, isKnown: known.has(check.checkId) }] : [],
      );
    });
    expect(made.length).toBeGreaterThan(1);
    expect(made.filter(({ isKnown }) => !isKnown)).toEqual([]);
    const other = units.find((unit) => unit.draft.number === '15')!.draft;
    const { lines, problems } = plumbingOf(other);
    expect(lines.find(({ id }) => id === 'accessories.in')?.from.part).toBe('supply-tank');
    expect(problems).toEqual([]);
  });

  it('is drawn well, every rig and every unit of it', () => {
    const units = demoFleet.map(({ draft }, n) => ({
      id: String(n),
      revision: 1,
      retiredAtMs: null,
      ...draft,
    }));
    const byNumber = (number: string) => units.find((unit) => unit.number === number)!;
    const rigs = [
      ...demoRigs.map(({ numbers }) => {
        const [unit, ...towed] = numbers.map(byNumber);
        return { unit: unit!, towed };
      }),
      ...units.map((unit) => ({ unit, towed: [] })),
    ];
    for (const rig of rigs) {
      const levels = [{ show: 'rig' as const }, { show: 'unit' as const, unit: 0 }];
      for (const level of levels) {
        const { crossingsALine, ...rest } = measured(planOf(rig, 'up', level));
        const which = `${rig.unit.number} ${level.show}`;
        expect({ which, ...rest }).toEqual({ which, ...GOOD_PLAN });
        expect({ which, seldom: crossingsALine < 1 }).toEqual({ which, seldom: true });
      }
    }
  });

  it('has visits: one that goes on with two people in it, and one by a phone whose clock was off', async () => {
    const visits = await shop.database.db.select().from(logs).where(eq(logs.kind, 'visit'));
    expect(visits.filter((visit) => visit.closedAtMs === null)).toHaveLength(1);
    const open = visits.find((visit) => visit.closedAtMs === null);
    const rows = await shop.database.db
      .selectDistinct({ personId: factRows.personId })
      .from(factRows)
      .where(eq(factRows.logId, open?.id ?? ''));
    expect(rows).toHaveLength(2);
    const off = visits.find((visit) => (visit.header as { offsetMs: number }).offsetMs !== 0);
    expect(off?.startedAtMs).toBe(
      (off?.header as { startedAtMs: number }).startedAtMs - 47 * 60_000,
    );
  });

  it('comes out the same for the same day, and is made only once', async () => {
    expect(await seedDemo(shop.database.db, { todayMs: today })).toBeNull();
    const twin = await openTestShop();
    await seedDemo(twin.database.db, { todayMs: today });
    expect(await facts(twin)).toEqual(await facts(shop));
    await twin.close();
  });

  it('is told by each list as it was told before', async () => {
    /*
     * What the routes made of the very same entries yesterday: no proof that it is right, but no query, sum or sentence
     * changes unseen. Read the difference as a mechanic before you keep it.
     */
    const lead = request.agent(shop.app);
    await lead
      .post('/api/sign-in')
      .send({ signInName: 'maren', password: demoPassword })
      .expect(200);
    const read = async (path: string) => {
      const answer = await lead.get(`/api${path}`).buffer().expect(200);
      // Photos and devices have ids of their own at each making.
      return answer.type === 'application/json' ? (answer.body as unknown) : answer.text;
    };
    const units = (await read('/units')) as { id: string; number: string }[];
    const lists = ['/jobs', '/jobs/parts.csv', '/lessons', '/lessons.csv', '/grades', '/drains'];
    for (const path of [...lists, '/logs/open', '/yard', '/rigs']) {
      expect(await read(path)).toMatchSnapshot(path);
    }
    for (const { id, number } of units) {
      expect(await read(`/units/${id}/found`)).toMatchSnapshot(`found at ${number}`);
      expect(await read(`/units/${id}/visits`)).toMatchSnapshot(`visits of ${number}`);
    }
    const runs = (await read(`/units/${units[0]!.id}/runs`)) as { id: string }[];
    expect(runs.slice(0, 3)).toMatchSnapshot('runs');
    expect(await read(`/runs/${runs[0]!.id}/export.csv`)).toMatchSnapshot('marks of a run');
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
