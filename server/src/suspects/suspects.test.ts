import type { SuspectTable, Unit } from '@keen-bleed/contract';
import { CORE_VERSION, newUnitDraft, rigKey, type RigUnderTest } from '@keen-bleed/core';
import { RigModel, type KeptTable } from '@keen-bleed/core/diagnosis';
import { v7 as uuidv7 } from 'uuid';
import {
  addUnit,
  makeStaff,
  openTestShop,
  testApp,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { SuspectTables } from './suspectTables';
import { workOutApart, type WorkOut } from './workOut';

const EMPTY: KeptTable = { runs: {}, answers: {}, soundRuns: [], soundAnswers: [] };

/** Work that is done when the test says so. */
function byHand() {
  const begun: {
    rig: RigUnderTest;
    done: (table: KeptTable) => void;
    fail: () => void;
    share: (share: number) => void;
    stopped: boolean;
  }[] = [];
  const workOut: WorkOut = (rig, share) => {
    let done: (table: KeptTable) => void = () => undefined;
    let fail: () => void = () => undefined;
    const table = new Promise<KeptTable>((yes, no) => {
      done = yes;
      fail = () => no(new Error('broke'));
    });
    const work = { rig, done, fail, share, stopped: false };
    begun.push(work);
    return { table, stop: () => void (work.stopped = true) };
  };
  return { begun, workOut };
}

const unitOf = (number: string): Unit => ({
  id: uuidv7(),
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft('trailer', 2015),
  number,
  name: 'Trailer',
});
const rigOf = (number: string): RigUnderTest => ({ unit: unitOf(number), towed: [] });
const settled = () => new Promise<void>((done) => setImmediate(done));

describe('tables worked out for phones', () => {
  it('are worked out once, however many ask, and are handed over from then on', async () => {
    const { begun, workOut } = byHand();
    const tables = new SuspectTables(workOut);
    const rig = rigOf('1');
    expect(tables.ask('a', rig)).toEqual({ standing: 'working', share: 0 });
    begun[0]!.share(0.4);
    expect(tables.ask('a', rig)).toEqual({ standing: 'working', share: 0.4 });
    begun[0]!.done(EMPTY);
    await settled();
    expect(tables.ask('a', rig)).toEqual({
      standing: 'ready',
      rigKey: rigKey(rig),
      coreVersion: CORE_VERSION,
      table: EMPTY,
    });
    expect(begun).toHaveLength(1);
    // Another shop's are its own, and a rig that was edited is another.
    expect(tables.ask('b', rig).standing).toBe('working');
    begun[1]!.done(EMPTY);
    await settled();
    expect(tables.ask('a', { ...rig, unit: { ...rig.unit, revision: 2 } }).standing).toBe(
      'working',
    );
  });

  it('are worked out one at a time; a rig that nobody asks for any more makes room', () => {
    const { begun, workOut } = byHand();
    let nowMs = 0;
    const tables = new SuspectTables(workOut, () => nowMs);
    const [one, two] = [rigOf('1'), rigOf('2')];
    tables.ask('a', one);
    nowMs = 30_000;
    expect(tables.ask('a', two)).toEqual({ standing: 'waiting' });
    tables.ask('a', one);
    nowMs = 80_000;
    expect(tables.ask('a', two)).toEqual({ standing: 'waiting' });
    nowMs = 91_000;
    expect(tables.ask('a', two)).toEqual({ standing: 'working', share: 0 });
    expect(begun.map(({ stopped }) => stopped)).toEqual([true, false]);
  });

  it('are left to the phone where they came to nothing, and asked for again where they were only stopped', async () => {
    const { begun, workOut } = byHand();
    const tables = new SuspectTables(workOut);
    const rig = rigOf('1');
    tables.ask('a', rig);
    begun[0]!.fail();
    await settled();
    expect(tables.ask('a', rig)).toEqual({ standing: 'failed' });
    const other = rigOf('2');
    tables.ask('a', other);
    tables.stop();
    begun[1]!.fail();
    await settled();
    expect(tables.ask('a', other)).toEqual({ standing: 'working', share: 0 });
  });

  it('keep the eight asked for last', async () => {
    const { begun, workOut } = byHand();
    const tables = new SuspectTables(workOut);
    const rigs = Array.from({ length: 9 }, (_, n) => rigOf(String(n)));
    for (const [n, rig] of rigs.entries()) {
      tables.ask('a', rig);
      begun[n]!.done(EMPTY);
      await settled();
      // The first is asked for again and again.
      expect(tables.ask('a', rigs[0]!).standing).toBe('ready');
    }
    expect(tables.ask('a', rigs[8]!).standing).toBe('ready');
    expect(tables.ask('a', rigs[1]!).standing).toBe('working');
  });

  // Our code on both sides: that the process hands over what the phone would have worked out itself.
  it('come out of a process of their own as the phone works them out', async () => {
    const rig = rigOf('7');
    const shares: number[] = [];
    const table = await workOutApart(rig, (share) => shares.push(share)).table;
    const model = new RigModel(rig);
    model.learn(table);
    const [fault] = model.faults;
    const [check] = model.checks.filter(({ bearsOn }) => bearsOn.includes(fault!.id));
    const own = new RigModel(rig);
    expect(model.knownAnswer(check!.id, fault!.id, 0.6)).toEqual(
      own.answersTo([check!.id], fault!.id, 0.6).get(check!.id),
    );
    expect(shares.every((share) => share > 0 && share <= 1)).toBe(true);
    // Nothing is left to work out.
    expect([...model.prepare('everything')]).toEqual([]);
  });

  it('end with their process where nobody waits any more', async () => {
    const working = workOutApart(rigOf('8'), () => undefined);
    working.stop();
    await expect(working.table).rejects.toThrow(/ended/);
  });
});

describe('the table of a rig', () => {
  let shop: TestShop;
  let staff: Staff;
  let others: Staff;
  const { begun, workOut } = byHand();
  beforeAll(async () => {
    shop = await openTestShop();
    shop.app = testApp(shop.database, shop.logged, 1000, new SuspectTables(workOut));
    staff = await makeStaff(shop, 't');
    others = await makeStaff(shop, 'u');
  });
  afterAll(() => shop.close());
  const ask = (unitIds: unknown, who = staff.viewer) =>
    who.post('/api/suspects/table').send({ unitIds });

  it('is asked for by anybody of the shop, by its units, and carries the key that says which rig it is of', async () => {
    const unit = await addUnit(staff.lead, {
      ...newUnitDraft('trailer', 2015),
      number: 'T1',
      name: 'Trailer',
    });
    expect((await ask([unit.id]).expect(200)).body).toEqual({ standing: 'working', share: 0 });
    expect(begun[0]!.rig).toMatchObject({ unit: { id: unit.id }, towed: [] });
    begun[0]!.done(EMPTY);
    const ready = (await ask([unit.id]).expect(200)).body as SuspectTable;
    expect(ready).toMatchObject({
      standing: 'ready',
      rigKey: rigKey({ unit, towed: [] }),
      coreVersion: CORE_VERSION,
    });
    await ask([unit.id], others.lead).expect(404);
  });

  it('is not asked for by nobody, of no unit, or of what cannot be coupled so', async () => {
    await ask([uuidv7()]).expect(404);
    const none = (await ask([]).expect(422)).body as Refusal;
    expect(none.fields?.[0]?.field).toBe('unitIds');
    await ask(['x']).expect(422);
    const [one, two] = [
      await addUnit(staff.lead, {
        ...newUnitDraft('trailer', 2015),
        number: 'T2',
        name: 'Trailer',
      }),
      await addUnit(staff.lead, {
        ...newUnitDraft('tractor', 2015),
        number: 'T3',
        name: 'Tractor',
      }),
    ];
    const wrong = (await ask([one.id, two.id]).expect(422)).body as Refusal;
    expect(wrong.message).not.toBe('');
    expect(wrong.fields).toEqual([
      { field: expect.stringMatching(/^unitIds/) as string, message: wrong.message },
    ]);
  });
});
