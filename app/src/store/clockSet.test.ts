/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { RunFact, Unit } from '@keen-bleed/contract';
import { correctedMs, roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { me } from '../test/aPhone';
import type * as Clock from '../wire/serverClock';
import { madeUpUnit } from '../test/madeUpUnit';
import { laneOf } from './kept';
import { folded, keptLog } from './logs';
import { recordFact, stamped } from './recordFact';
import { startRun } from './startRun';
import { deviceMs, heardServerTime, measuredClock } from '../wire/serverClock';

Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
globalThis.fetch = () => Promise.reject(new TypeError('network'));

/** True time, by the server; the device's clock is `aheadMs` in front of it, and set now and then. */
let trueMs = Date.now() + 86_400_000;
let aheadMs = 598_000;
const startedMs = trueMs;
beforeEach(() => {
  jest.spyOn(Date, 'now').mockImplementation(() => trueMs + aheadMs);
  // It has parts of a millisecond, and never the same.
  let looks = 0;
  jest
    .spyOn(performance, 'now')
    .mockImplementation(() => trueMs - startedMs + ((looks += 1) % 8) / 10);
});
const hears = () => heardServerTime(trueMs, Date.now(), Date.now());

async function aRun() {
  const unit: Unit = madeUpUnit('truck', { id: uuidv7() });
  const id = await startRun(me, {
    ...{ unit, towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] },
  });
  const lane = await laneOf(me);
  const now = async () => ({ log: folded((await keptLog(id))!), lane });
  const add = async (fact: Parameters<typeof recordFact>[1]) => {
    const done = await recordFact(await now(), fact, deviceMs());
    if ('problem' in done) throw new Error(done.problem);
    return done.log.facts.at(-1) as RunFact;
  };
  const note = (text: string) => add({ kind: 'note', stepId: 'prepare', text });
  return { add, note, now };
}

/** How far two times are apart, ms; a clock that is set is known to the next millisecond. */
const off = (oneMs: number, otherMs: number) => Math.abs(oneMs - otherMs);

describe('a phone that was fast and is set right in the middle of a record', () => {
  it('goes on, keeps what lies between two marks, and closes', async () => {
    hears();
    const { add, note } = await aRun();
    const before = await note('before');
    trueMs += 20_000;
    aheadMs = 0;
    // Without network the page knows by its own steady clock.
    const after = await note('after');
    expect(Number.isInteger(after.atMs)).toBe(true);
    expect(off(after.atMs - before.atMs, 20_000)).toBeLessThanOrEqual(1);
    trueMs += 5_000;
    hears();
    expect(measuredClock().shownAheadMs).toBe(0);
    expect(off(measuredClock().aheadMs!, 598_000)).toBeLessThanOrEqual(1);
    const last = await add({ kind: 'close', how: 'incomplete', reason: 'Called away' });
    expect(last.atMs - after.atMs).toBe(5_000);
    const trueOnes = [trueMs - 25_000, trueMs - 5_000, trueMs];
    [before, after, last].forEach((fact, n) =>
      expect(off(correctedMs(fact), trueOnes[n]!)).toBeLessThanOrEqual(1),
    );
  });

  it('and is slow again, or has not heard of the server yet: nothing is refused', async () => {
    const { note } = await aRun();
    const times: number[] = [];
    for (const setMs of [-5_000, 0, -90_000, -3_600_000]) {
      aheadMs += setMs;
      trueMs += 1_000;
      times.push((await note('n')).atMs);
    }
    times
      .slice(1)
      .forEach((atMs, n) => expect(off(atMs - times[n]!, 1_000)).toBeLessThanOrEqual(1));
  });
});

describe('a page that was opened after the clock was set back', () => {
  /** The clock as a page finds it that was just opened, with what the device remembers or the server has said. */
  const opened = (remembered: number | null, heard: number | null) => {
    let clock!: typeof Clock;
    jest.isolateModules(() => {
      clock = jest.requireActual<typeof Clock>('../wire/serverClock');
    });
    if (remembered !== null) clock.rememberClock(remembered);
    if (heard !== null) clock.heardServerTime(Date.now() - heard, Date.now(), Date.now());
    return clock;
  };

  // The last entry, 600 s by the device's clock in front of what it shows now, 40 s before this moment by the server's.
  const latest = (offsetMs: number | null) => ({ atMs: Date.now() + 560_000, offsetMs });

  it.each([
    ['both were measured', null, 0, 600_000, { byMs: 600_000, aheadMs: 600_000 }],
    ['what is remembered agrees', 0, null, 600_000, { byMs: 600_000, aheadMs: 600_000 }],
    ['what is remembered is of before', 600_000, null, 600_000, { byMs: 560_000, aheadMs: null }],
    ['nothing is known', null, null, null, { byMs: 560_000, aheadMs: null }],
    ['measured only now', null, 0, null, { byMs: 560_000, aheadMs: 560_000 }],
  ])('%s', (_, remembered, heard, offsetMs, expected) => {
    const clock = opened(remembered, heard);
    const shownMs = Date.now();
    const byMs = clock.goOnFrom(latest(offsetMs));
    expect({ byMs, aheadMs: clock.measuredClock().aheadMs }).toEqual(expected);
    expect(clock.deviceMs()).toBe(shownMs + byMs);
    expect(clock.goOnFrom(latest(offsetMs))).toBe(0);
    // What it measures from now on is of the clock that the record goes by.
    clock.heardServerTime(Date.now(), Date.now(), Date.now());
    expect(clock.measuredClock()).toMatchObject({ aheadMs: byMs, shownAheadMs: 0 });
  });

  it('an entry pressed before another tab wrote comes with the last one', async () => {
    const { note, now } = await aRun();
    const first = await note('first');
    const text = { kind: 'note', stepId: 'prepare', text: 'n' } as const;
    const done = await recordFact(await now(), text, first.atMs - 300);
    expect('log' in done && done.log.facts.at(-1)?.atMs).toBe(first.atMs);
  });

  it('a correction keeps the time of what it corrects', async () => {
    const { note, now } = await aRun();
    const first = await note('first');
    const fact = { kind: 'note', stepId: 'prepare', text: 'n', atMs: first.atMs - 7 } as never;
    expect(stamped(await now(), fact, deviceMs(), 0).atMs).toBe(first.atMs - 7);
  });
});
