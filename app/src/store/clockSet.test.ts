/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { RunFact, Unit } from '@keen-bleed/contract';
import { correctedMs, roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { me } from '../test/aPhone';
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
  jest.spyOn(performance, 'now').mockImplementation(() => trueMs - startedMs);
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

describe('a phone that was fast and is set right in the middle of a record', () => {
  it('goes on, keeps what lies between two marks, and closes', async () => {
    hears();
    const { add, note } = await aRun();
    const before = await note('before');
    trueMs += 20_000;
    aheadMs = 0;
    // Without network the page knows by its own steady clock.
    const after = await note('after');
    expect(after.atMs - before.atMs).toBe(20_000);
    trueMs += 5_000;
    hears();
    expect(measuredClock()).toMatchObject({ aheadMs: 598_000, shownAheadMs: 0 });
    const last = await add({ kind: 'close', how: 'incomplete', reason: 'Called away' });
    expect(last.atMs - after.atMs).toBe(5_000);
    expect([before, after, last].map((fact) => correctedMs(fact))).toEqual([
      trueMs - 25_000,
      trueMs - 5_000,
      trueMs,
    ]);
  });

  it('and is slow again, or has not heard of the server yet: nothing is refused', async () => {
    const { note } = await aRun();
    const times: number[] = [];
    for (const setMs of [-5_000, 0, -90_000, -3_600_000]) {
      aheadMs += setMs;
      trueMs += 1_000;
      times.push((await note('n')).atMs);
    }
    expect(times.slice(1).map((atMs, n) => atMs - times[n]!)).toEqual([1_000, 1_000, 1_000]);
  });
});

describe('what a page stamps that was opened after the clock was set', () => {
  const nextOf = async (
    endAheadMs: number | null,
    pressedAfterMs: number,
    nowAhead: number | null,
  ) => {
    const { note, now } = await aRun();
    await note('last');
    const writing = await now();
    const end = writing.log.endOf(writing.lane)!;
    const own = { ...end, offsetMs: endAheadMs };
    writing.log.endOf = () => own;
    const fact = { kind: 'note', stepId: 'prepare', text: 'n' } as const;
    const { atMs, offsetMs } = stamped(writing, fact, end.atMs + pressedAfterMs, nowAhead);
    return [atMs - end.atMs, offsetMs];
  };

  it.each([
    // Set right by ten minutes, 40 s after the last mark: the lane's own clock goes on.
    ['set back', 600_000, 40_000 - 600_000, 0, [40_000, 600_000]],
    ['set on', 0, 40_000 + 600_000, 600_000, [40_000, 0]],
    // A second of drift, and an answer that came slowly, are no setting.
    ['drifted', 0, -1_000, -1_000, [0, 0]],
    ['measured slowly', 0, 40_000, 4_000, [40_000, 4_000]],
    // Nobody knows by how much: it comes with the last, and says that its time is not sure.
    ['never measured', null, -600_000, null, [0, null]],
    ['measured only then', 600_000, -560_000, null, [0, null]],
  ])('%s', async (_, endAhead, pressedAfter, nowAhead, expected) => {
    expect(await nextOf(endAhead, pressedAfter, nowAhead)).toEqual(expected);
  });

  it('a correction keeps the time of what it corrects', async () => {
    const { note, now } = await aRun();
    const first = await note('first');
    const writing = await now();
    const fact = { kind: 'note', stepId: 'prepare', text: 'n', atMs: first.atMs - 7 } as never;
    expect(stamped(writing, fact, deviceMs(), 0).atMs).toBe(first.atMs - 7);
  });
});
