/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { Unit } from '@keen-bleed/contract';
import { roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { me } from '../test/aPhone';
import { madeUpUnit } from '../test/madeUpUnit';
import type { DeviceLog } from './database';
import { laneOf, type Writer } from './kept';
import {
  changeLog,
  closedRunOf,
  correctFact,
  dropFact,
  folded,
  gone,
  isMine,
  isWritable,
  keptLog,
  moveToLane,
  openLogs,
  openRunOf,
  refuse,
} from './logs';
import { recordFact } from './recordFact';
import { startRun } from './startRun';
import { startVisit } from './startVisit';

Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
globalThis.fetch = () => Promise.reject(new TypeError('network'));

const elsewhere: Writer = { shopId: uuidv7(), personId: me.personId };
const colleague: Writer = { ...me, personId: uuidv7() };

let n = 0;
const aUnit = (): Unit => madeUpUnit('truck', { id: uuidv7(), number: String((n += 1)) });
const aRunOn = (unit: Unit, who = me) =>
  startRun(who, {
    ...{ unit, towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] },
  });
const aVisitOn = (unit: Unit, who = me) =>
  startVisit(who, { units: [unit], rigId: null, reason: null });
async function noteIn(id: string, text = 'a'): Promise<string> {
  const writing = { log: folded((await keptLog(id))!), lane: await laneOf(me) };
  const done = await recordFact(writing, { kind: 'note', stepId: 'prepare', text }, Date.now());
  if ('problem' in done) throw new Error(done.problem);
  return done.log.facts.at(-1)!.id;
}
const idsOf = (logs: readonly DeviceLog[]) => logs.map(({ id }) => id);

describe('a log on a device that several use', () => {
  const log = (change: Partial<DeviceLog> = {}) =>
    ({ shopId: me.shopId, personId: me.personId, kind: 'run', ...change }) as DeviceLog;

  it('is of whoever opened it or took it over, in their shop alone', () => {
    expect(isMine(log(), me)).toBe(true);
    expect(isMine(log(), colleague)).toBe(false);
    expect(isMine(log({ takenBy: colleague.personId }), colleague)).toBe(true);
    expect(isMine(log(), elsewhere)).toBe(false);
    expect(isMine(log({ takenBy: me.personId }), elsewhere)).toBe(false);
  });

  it('is written in by the whole shop where it is a visit or a job, and by nobody of another', () => {
    for (const kind of ['visit', 'job'] as const) {
      expect(isWritable(log({ kind }), colleague)).toBe(true);
      expect(isWritable(log({ kind }), elsewhere)).toBe(false);
    }
    expect(isWritable(log(), colleague)).toBe(false);
    expect(isWritable(log(), me)).toBe(true);
  });

  it('is listed, and gone on with, by those who may write in it', async () => {
    const unit = aUnit();
    const [run, visit] = [await aRunOn(unit), await aVisitOn(unit)];
    expect(idsOf(await openLogs(me))).toEqual(expect.arrayContaining([run, visit]));
    expect(idsOf(await openLogs(colleague))).toContain(visit);
    expect(idsOf(await openLogs(colleague))).not.toContain(run);
    expect(await openLogs(elsewhere)).toEqual([]);
    expect((await openRunOf(me, unit.id))?.id).toBe(run);
    expect(await openRunOf(colleague, unit.id)).toBeNull();
    expect(await openRunOf(elsewhere, unit.id)).toBeNull();
    // A colleague's run of the same unit is one of its own.
    expect(await aRunOn(unit, colleague)).not.toBe(run);
    expect(await aRunOn(unit)).toBe(run);
    await changeLog(run, { closed: 1 });
    expect(await openRunOf(me, unit.id)).toBeNull();
    expect(await aRunOn(unit)).not.toBe(run);
  });
});

describe('the newest closed run of a unit', () => {
  it('is of the own shop, and neither open nor a visit', async () => {
    const unit = aUnit();
    const [first, second] = [await aRunOn(unit), await aRunOn(unit, colleague)];
    const visit = await aVisitOn(unit);
    for (const [id, startedAtMs] of [
      [first, 2_000],
      [second, 1_000],
      [visit, 3_000],
    ] as const) {
      const { header } = (await keptLog(id))!.log;
      await changeLog(id, { closed: 1, header: { ...header, startedAtMs } });
    }
    await noteIn(first);
    await aRunOn(unit);
    const found = await closedRunOf(me, unit.id);
    expect(found?.log.id).toBe(first);
    expect(found?.rows).toHaveLength(1);
    expect((await closedRunOf(colleague, unit.id))?.log.id).toBe(first);
    expect(await closedRunOf(elsewhere, unit.id)).toBeNull();
    expect(await closedRunOf(me, uuidv7())).toBeNull();
  });
});

describe('why the server would not take something', () => {
  const refusal = {
    ...{ code: 'x', message: 'm', field: null, factId: null, atMs: 1, build: 'b' },
  };
  const standing = async (id: string) => (await keptLog(id))!.log.refused;

  it('is kept as long as something waits: a fact, or the record itself', async () => {
    const id = await aRunOn(aUnit());
    await refuse(id, refusal);
    expect(await standing(id)).toEqual(refusal);
    await gone(id);
    expect(await standing(id)).toEqual(refusal);
    await changeLog(id, { opened: 1 });
    await gone(id);
    expect(await standing(id)).toBeNull();
    await refuse(id, refusal);
    expect(await standing(id)).toBeNull();
    await noteIn(id);
    await refuse(id, refusal);
    expect(await standing(id)).toEqual(refusal);
    await gone(id);
    expect(await standing(id)).toEqual(refusal);
  });

  it('is nothing to a record that has left the device', async () => {
    const id = uuidv7();
    await refuse(id, refusal);
    await gone(id);
    await changeLog(id, { closed: 1 });
    expect(await keptLog(id)).toBeNull();
  });
});

describe('what a person has said', () => {
  /** How surely each write of entries is asked for while something is done. */
  async function asked(does: () => Promise<unknown>): Promise<(string | undefined)[]> {
    const begun = jest.spyOn(IDBDatabase.prototype, 'transaction');
    try {
      await does();
      return begun.mock.calls.flatMap(([names, mode, options]) =>
        mode === 'readwrite' && [...names].includes('facts') ? [options?.durability] : [],
      );
    } finally {
      begun.mockRestore();
    }
  }

  it('is on the disk before it counts as kept, wherever it is written', async () => {
    const unit = aUnit();
    let id = '';
    let factId = '';
    expect(await asked(async () => (id = await aRunOn(unit)))).toEqual(['strict']);
    expect(await asked(async () => (factId = await noteIn(id)))).toEqual(['strict']);
    const { fact } = (await keptLog(id))!.rows[0]!;
    const put = { ...fact, id: uuidv7() };
    expect(await asked(() => correctFact(factId, put, 'why'))).toEqual(['strict']);
    const [lane, other] = [await laneOf(me), uuidv7()];
    expect(await asked(() => moveToLane(id, lane, other))).toEqual(['strict']);
    expect(await asked(() => dropFact(put.id, 'why'))).toEqual(['strict']);
    expect((await keptLog(id))!.rows).toEqual([]);
  });
});
