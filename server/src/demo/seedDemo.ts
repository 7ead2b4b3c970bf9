import type { RunHeader, Unit, UnitDraft } from '@keen-bleed/contract';
import {
  CORE_VERSION,
  defaultRuleSetId,
  fittedRecordOf,
  RUN_VERSION,
  ruleSetFor,
  ruleSets,
  runMade,
  withPart,
} from '@keen-bleed/core';
import { hashPassword } from '../accounts/password';
import type { Db } from '../db/database';
import { anyShop, mayMakeFirstShop } from '../db/firstShop';
import {
  audit,
  facts,
  logs,
  logUnits,
  people,
  rigs,
  rigUnits,
  shops,
  unitRevisions,
  units,
} from '../db/schema';
import { fillFailures } from '../failures/refreshFailures';
import { storedLog } from '../log/storedLog';
import { demoAudit } from './demoAudit';
import { demoFleet, demoRigs } from './demoFleet';
import { demoJobFacts } from './demoJobFacts';
import { demoJobs } from './demoJobs';
import { demoVisits } from './demoVisits';
import { demoVisitFacts } from './demoVisitFacts';
import { demoPeople, demoPassword, demoShopName } from './demoPeople';
import { demoRunFacts, type DemoRunPlan } from './demoRun';
import { seededRandom, type SeededRandom } from '../random/seededRandom';

const DAY_MS = 86_400_000;
const STORY_DAYS = 730;
/** The rigs have stood coupled, and been tested as rigs, for this long. */
const RIG_DAYS = 420;
const SEED = 20_240_907;
/** Rows to a statement: under PostgreSQL's limit on parameters with room to spare. */
const ROWS_AT_ONCE = 500;

/** What was made. */
export interface Seeded {
  units: number;
  runs: number;
}

/**
 * Makes the demo world in an empty database, the same every time for the same day.
 *
 * @param todayMs the day the two years of history end on
 * @returns what was made, or null where there is a shop already
 */
export async function seedDemo(db: Db, { todayMs }: { todayMs: number }): Promise<Seeded | null> {
  if (await anyShop(db)) return null;
  const random = seededRandom(SEED);
  const firstDayMs = Math.floor(todayMs / DAY_MS) * DAY_MS - STORY_DAYS * DAY_MS;
  const shopId = random.uuid(firstDayMs);
  const passwordHash = await hashPassword(demoPassword);
  const staff = demoPeople.map((person) => ({
    ...person,
    shopId,
    id: random.uuid(firstDayMs),
    passwordHash,
  }));
  const testers = staff.filter((person) => person.role !== 'viewer');
  const unitRows: (typeof units.$inferInsert)[] = [];
  const logRows: (typeof logs.$inferInsert)[] = [];
  const factRows: (typeof facts.$inferInsert)[] = [];
  const memberRows: (typeof logUnits.$inferInsert)[] = [];
  const keep = (made: ReturnType<typeof storedLog>) => {
    logRows.push(made.log);
    memberRows.push(...made.units);
    factRows.push(...made.facts);
  };
  const kept = new Map<string, Unit>();
  const storyAt = (atMs: number) => Math.max(0, (atMs - firstDayMs) / (STORY_DAYS * DAY_MS));

  /** One run as it would have come in, with everything the server keeps of it. */
  const addRun = (units: readonly [Unit, ...Unit[]], rigId: string | null, plan: DemoRunPlan) => {
    const [unit, ...towed] = units;
    const tester = testers[Math.floor(random.next() * testers.length)] ?? testers[0];
    if (!tester) throw new Error('the demo shop has nobody who may test');
    const header: RunHeader = {
      id: random.uuid(plan.startedAtMs),
      kind: 'run',
      v: RUN_VERSION,
      subject: { unitId: unit.id, rigId, partId: null },
      startedAtMs: plan.startedAtMs,
      offsetMs: 0,
      coreVersion: CORE_VERSION,
      made: runMade({
        unit,
        towed,
        ruleSet: ruleSetFor(unit, ruleSets, defaultRuleSetId),
        // The tanks are drained every morning, whoever has the truck; the test itself asks where water was found.
        leftOut: plan.found?.water ? [] : ['drain'],
      }),
    };
    const made = demoRunFacts(header, plan, random);
    keep(storedLog(shopId, () => tester.id, header, made, made.at(-1)?.atMs ?? plan.startedAtMs));
  };

  for (const demo of demoFleet) {
    const id = random.uuid(firstDayMs);
    const unit: Unit = { id, revision: 1, retiredAtMs: null, ...demo.draft };
    kept.set(unit.number, unit);
    unitRows.push({
      shopId,
      id,
      number: unit.number,
      draft: demo.draft,
      retiredAt: demo.retired ? new Date(todayMs - 100 * DAY_MS) : null,
    });
    for (const { startedAtMs, isLast } of testDays(demo, todayMs, random)) {
      addRun([unit], null, {
        truth: demo.story(storyAt(startedAtMs)),
        startedAtMs,
        note: isLast ? demo.lastNote : undefined,
        about: isLast ? demo.lastAbout : undefined,
        noteAfter: isLast ? demo.lastNoteAfter : undefined,
        cutShort: isLast ? demo.cutShort : undefined,
        found: isLast ? demo.lastFound : undefined,
      });
    }
  }
  const rigRows: (typeof rigs.$inferInsert)[] = [];
  const rigUnitRows: (typeof rigUnits.$inferInsert)[] = [];
  for (const demo of demoRigs) {
    const [front, ...towed] = demo.numbers.flatMap((number) => kept.get(number) ?? []);
    if (!front) throw new Error('a demo rig names a unit that is not there');
    const id = random.uuid(firstDayMs);
    const coupledAt = new Date(todayMs - RIG_DAYS * DAY_MS);
    rigRows.push({ shopId, id, coupledAt });
    rigUnitRows.push(
      ...[front, ...towed].map((unit, place) => ({ shopId, rigId: id, place, unitId: unit.id })),
    );
    for (const { startedAtMs, isLast } of testDays(demo, todayMs, random, RIG_DAYS)) {
      addRun([front, ...towed], id, {
        truth: demo.truth(storyAt(startedAtMs)),
        startedAtMs,
        found: isLast ? demo.lastFound : undefined,
      });
    }
  }

  for (const demo of demoVisits) {
    const { header, made, people: by } = demoVisitFacts(demo, { kept, staff, random, todayMs });
    const last = made.at(-1);
    const receivedMs = (last?.atMs ?? header.startedAtMs) - (last?.offsetMs ?? 0);
    keep(storedLog(shopId, (fact) => by(fact), header, made, receivedMs));
  }

  const runs = logRows.filter(({ kind }) => kind === 'run');
  const revisions = unitRows.map(({ id, draft }) => ({ unitId: id, revision: 1, draft }));
  const mended = new Map(unitRows.map((row) => [row.id, row]));
  for (const demo of demoJobs) {
    const { header, made, people: by } = demoJobFacts(demo, { kept, staff, random, todayMs, runs });
    const receivedMs = made.at(-1)?.atMs ?? header.startedAtMs;
    keep(storedLog(shopId, (fact) => by(fact), header, made, receivedMs));
    for (const fact of made) {
      const row = mended.get(header.subject.unitId);
      if (fact.kind !== 'fitted' || !row) continue;
      row.draft = withPart(row.draft, fittedRecordOf(row.draft, fact, fact.atMs));
      row.revision = (row.revision ?? 1) + 1;
      revisions.push({ unitId: row.id, revision: row.revision, draft: row.draft });
    }
  }

  const isMade = await insertAll(db, shopId, {
    people: staff,
    units: unitRows,
    revisions,
    rigs: rigRows,
    rigUnits: rigUnitRows,
    logs: logRows,
    members: memberRows,
    facts: factRows,
    audit: demoAudit(
      shopId,
      (name) => staff.find((person) => person.name === name)?.id ?? null,
      random,
      todayMs,
    ),
  });
  if (!isMade) return null;
  await fillFailures(db);
  return { units: unitRows.length, runs: runs.length };
}

/** Rows of the demo world, by table. */
interface DemoRows {
  people: (typeof people.$inferInsert)[];
  units: (typeof units.$inferInsert)[];
  /** Every unit as it was, revision by revision. */
  revisions: { unitId: string; revision: number; draft: UnitDraft }[];
  rigs: (typeof rigs.$inferInsert)[];
  rigUnits: (typeof rigUnits.$inferInsert)[];
  logs: (typeof logs.$inferInsert)[];
  members: (typeof logUnits.$inferInsert)[];
  facts: (typeof facts.$inferInsert)[];
  audit: (typeof audit.$inferInsert)[];
}

/**
 * Puts the whole world in at once: all of it, or, where anything fails, nothing.
 *
 * @returns false where another server that was started at the same moment has been quicker
 */
const insertAll = (db: Db, shopId: string, rows: DemoRows): Promise<boolean> =>
  db.transaction(async (tx) => {
    if (!(await mayMakeFirstShop(tx))) return false;
    await tx.insert(shops).values({
      id: shopId,
      name: demoShopName,
      timeZone: 'Europe/London',
      demo: true,
    });
    await tx.insert(people).values(rows.people);
    await tx.insert(units).values(rows.units);
    await tx
      .insert(unitRevisions)
      .values(
        rows.revisions.map(({ unitId, revision, draft }) => ({ shopId, unitId, revision, draft })),
      );
    await tx.insert(rigs).values(rows.rigs);
    await tx.insert(rigUnits).values(rows.rigUnits);
    for (const some of inLots(rows.logs)) await tx.insert(logs).values(some);
    for (const some of inLots(rows.members)) await tx.insert(logUnits).values(some);
    for (const some of inLots(rows.facts)) await tx.insert(facts).values(some);
    await tx.insert(audit).values(rows.audit);
    return true;
  });

/** Mornings of a unit's tests, oldest first. */
function testDays(
  demo: { everyDays: number; lastTestDaysAgo: number },
  todayMs: number,
  random: SeededRandom,
  backDays = STORY_DAYS,
): { startedAtMs: number; isLast: boolean }[] {
  const midnightMs = Math.floor(todayMs / DAY_MS) * DAY_MS;
  const days: { startedAtMs: number; isLast: boolean }[] = [];
  for (
    let ago = demo.lastTestDaysAgo;
    ago < backDays;
    ago += demo.everyDays + random.between(-4, 4)
  ) {
    const morningMs = random.between(6.5, 10.5) * 3_600_000;
    days.push({
      startedAtMs: Math.round(midnightMs - Math.round(ago) * DAY_MS + morningMs),
      isLast: days.length === 0,
    });
  }
  return days.reverse();
}

function* inLots<T>(rows: readonly T[]): Generator<T[]> {
  for (let from = 0; from < rows.length; from += ROWS_AT_ONCE) {
    yield rows.slice(from, from + ROWS_AT_ONCE);
  }
}
