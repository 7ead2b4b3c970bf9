/** @jest-environment node */
import 'fake-indexeddb/auto';
import { v7 as uuidv7 } from 'uuid';
import { heardServerTime, measuredClock } from '../wire/serverClock';
import {
  anotherLane,
  askToPersist,
  keepByName,
  keepMe,
  keptByName,
  keptMe,
  laneOf,
  lanesOf,
  recallClock,
} from './kept';

const browser = (value: object) =>
  Object.defineProperty(globalThis, 'navigator', { value, configurable: true });
const anybody = () => ({ shopId: uuidv7(), personId: uuidv7() });

describe('a person’s lane on a device', () => {
  it('is one from the first asking on, and another’s is another', async () => {
    const [one, other] = [anybody(), anybody()];
    const lane = await laneOf(one);
    expect(await laneOf(one)).toBe(lane);
    expect(await laneOf(other)).not.toBe(lane);
    expect(await laneOf({ ...one, shopId: other.shopId })).not.toBe(lane);
    expect(await lanesOf(one)).toEqual([lane]);
    expect(await lanesOf(anybody())).toEqual([]);
  });

  it('is the newest of several, and none of them is forgotten: what waits in an old one is still theirs', async () => {
    const who = anybody();
    const first = await laneOf(who);
    const second = await anotherLane(who);
    expect(await laneOf(who)).toBe(second);
    const third = await anotherLane(who);
    expect(await laneOf(who)).toBe(third);
    expect(await lanesOf(who)).toEqual([first, second, third]);
  });

  it('is one where two pages ask at the same moment', async () => {
    const who = anybody();
    const lanes = await Promise.all([laneOf(who), laneOf(who), laneOf(who)]);
    expect(new Set(lanes).size).toBe(1);
  });
});

describe('what a device keeps by name', () => {
  it('is who was last here, until they leave', async () => {
    expect(await keptMe()).toBeNull();
    const me = { personId: 'p', shopId: 's', name: 'N', role: 'lead' } as never;
    await keepMe(me);
    expect(await keptMe()).toEqual(me);
    await keepMe(null);
    expect(await keptMe()).toBeNull();
  });

  it('is forgotten by saying nothing, and nothing else is', async () => {
    await keepByName('a', 1);
    await keepByName('b', 2);
    await keepByName('a', undefined);
    expect([await keptByName('a'), await keptByName('b')]).toEqual([undefined, 2]);
  });
});

describe('how far the clock was off', () => {
  it('is remembered until it is measured, and written down again once it has moved by a second', async () => {
    await recallClock();
    expect(measuredClock().aheadMs).toBeNull();
    await keepByName('clock ahead by', 'not a number');
    await recallClock();
    expect(measuredClock().aheadMs).toBeNull();
    await keepByName('clock ahead by', 5_000);
    await recallClock();
    expect(measuredClock()).toMatchObject({ aheadMs: 5_000, measuredAtMs: null });
    const at = Date.now();
    const measured = async (aheadMs: number) => {
      heardServerTime(at - aheadMs, at, at);
      // Reads wait for what was asked to be written before them.
      return keptByName('clock ahead by');
    };
    expect(await measured(7_000)).toBe(7_000);
    expect(measuredClock().aheadMs).toBe(7_000);
    expect(await measured(7_999)).toBe(7_000);
    expect(measuredClock().aheadMs).toBe(7_999);
    expect(await measured(8_000)).toBe(8_000);
    expect(await measured(7_001)).toBe(8_000);
    expect(await measured(-60_000)).toBe(-60_000);
    // What was measured is not overruled by what was remembered.
    await recallClock();
    expect(measuredClock().aheadMs).toBe(-60_000);
  });
});

describe('asking a browser to keep this device’s store', () => {
  it('is no trouble where it has no word for it, or refuses', async () => {
    const persist = jest.fn(() => Promise.reject(new Error('no')));
    for (const storage of [undefined, {}, { persist }]) {
      browser(storage ? { storage } : {});
      await expect(askToPersist()).resolves.toBeUndefined();
    }
    expect(persist).toHaveBeenCalledTimes(1);
  });
});
