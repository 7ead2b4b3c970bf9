import type { RigUnderTest } from '@keen-bleed/core';
import { madeUpUnit } from '../test/madeUpUnit';
import { makeDrawing } from '../air/drawing';
import { PERFECT_SENSES } from '@keen-bleed/core/checks';
import type { BayFrame, BaySetup } from './bayProtocol';
import { makeBay } from './bayWorker';

const rig: RigUnderTest = {
  unit: madeUpUnit(),
  towed: [],
};
const setup = (change: Partial<BaySetup> = {}): BaySetup => ({
  rig,
  outsideC: 20,
  heightM: 0,
  load: 1,
  hidden: 0,
  seed: 7,
  ...change,
});

/** A Bay with a clock that only goes when it is told to. */
function bayAt(given: BaySetup) {
  let nowMs = 0;
  let frame: BayFrame | null = null;
  const bay = makeBay(() => nowMs);
  const opened = bay.open(given, (next) => (frame = next));
  // The drawing is made elsewhere, of the same network: its places are those of a frame.
  const drawn = makeDrawing().draw(given.rig, { shopAir: true, load: given.load });
  return {
    bay,
    opened,
    placeAt: (id: string) => drawn.places.findIndex((each) => each.id === id),
    frame: () => frame as unknown as BayFrame,
    pass: (seconds: number) => {
      for (let n = 0; n < seconds * 10; n += 1) {
        nowMs += 100;
        bay.tick();
      }
    },
  };
}

describe('the Bay', () => {
  it('runs with the clock, or faster', () => {
    const { bay, frame, pass } = bayAt(setup());
    pass(3);
    expect(frame().timeS).toBeCloseTo(3, 6);
    bay.move({ kind: 'speed', times: 16 });
    pass(2);
    expect(frame().timeS).toBeCloseTo(35, 6);
  });

  it('shows what the cab shows: the needles climb to cut-out, the warning goes off, the dryer blows', () => {
    const { bay, frame, pass } = bayAt(setup());
    pass(1);
    expect(frame().warning).toBe(true);
    bay.move({ kind: 'engine', rpm: 2100 });
    bay.move({ kind: 'speed', times: 16 });
    let blew = false;
    for (let n = 0; n < 40; n += 1) {
      pass(0.2);
      blew ||= frame().purging;
    }
    expect(frame().warning).toBe(false);
    expect(blew).toBe(true);
    // Half divisions of two psi, a rig that differs from its paper, and a dial that may be 7 % off.
    expect(frame().needles[0]?.psi).toBeGreaterThanOrEqual(95);
    expect((frame().needles[0]?.psi ?? 0.5) % 1).toBe(0);
  });

  it('hides the same fault for the same seed, and tells it at the end with what the hunt cost', () => {
    const one = bayAt(setup({ hidden: 1, seed: 42 }));
    const other = bayAt(setup({ hidden: 1, seed: 42 }));
    one.bay.check('0/wet/primary tank');
    one.bay.check('0/listen/purge valve/loading');
    one.pass(30);
    const [fault] = one.opened.faults;
    const ended = one.bay.end([]);
    expect(ended.was).toHaveLength(1);
    expect(ended.was).toEqual(other.bay.end([]).was);
    expect(ended).toMatchObject({ right: false, checks: 2, wrongParts: 0 });
    expect(ended.minutes).toBeCloseTo(2, 6);
    expect(ended.rigMinutes).toBeCloseTo(0.5, 6);
    expect(ended.best).toHaveLength(1);
    const was = one.opened.faults.find(
      ({ title, part }) => title === ended.was[0]?.title && part === ended.was[0].part,
    );
    expect(one.bay.end([was?.id ?? '']).right).toBe(true);
    expect(
      one.bay.end([was?.id ?? '', fault?.id === was?.id ? 'another' : (fault?.id ?? '')]),
    ).toMatchObject({ right: false, wrongParts: 1 });
  });

  it('has dials that are off by their seed, each its own, within the 7 % of cut-out that they may be', () => {
    const off = (seed: number) => {
      const { placeAt, frame, pass } = bayAt(setup({ seed }));
      pass(20);
      const { needles, psi } = frame();
      const true1 = psi[placeAt('primary tank')] ?? NaN;
      const true2 = psi[placeAt('secondary tank')] ?? NaN;
      return [(needles[0]?.psi ?? NaN) - true1, (needles[1]?.psi ?? NaN) - true2];
    };
    expect(off(3)).toEqual(off(3));
    const all = [1, 2, 3, 4, 5, 6].flatMap(off);
    // The half division of reading it comes on top.
    for (const error of all) expect(Math.abs(error)).toBeLessThanOrEqual(0.07 * 125 + 0.5);
    expect(Math.max(...all) - Math.min(...all)).toBeGreaterThan(2);
  });

  it('works a trailer alone from the shop: its tank and its service hose have a gauge each', () => {
    const trailer = madeUpUnit('trailer', { number: '22', name: 'trailer' });
    const { bay, opened, placeAt, frame, pass } = bayAt(
      setup({ rig: { unit: trailer, towed: [] } }),
    );
    const ids = opened.checks.map(({ id }) => id);
    expect(ids.filter((id) => id.includes('shop'))).toEqual([]);
    expect(ids).toContain('0/wet/#0 tank');
    bay.move({ kind: 'speed', times: 16 });
    bay.move({ kind: 'open', way: 'shop valve', share: 1 });
    pass(15);
    const shown = () => Object.fromEntries(frame().needles.map(({ title, psi }) => [title, psi]));
    expect(shown().tank).toBeGreaterThan(105);
    // Held at its stop, less what the dial is off by.
    expect(shown().service).toBeLessThan(5);
    bay.move({ kind: 'hand', psi: 60 });
    pass(1);
    expect(Math.abs((shown().service ?? NaN) - 60)).toBeLessThan(6);
    expect(frame().psi[placeAt('#0 left')]).toBeCloseTo(60, 0);
  });

  it('lets soap find an open leak, and only there', () => {
    const { bay, frame, pass } = bayAt(setup({ hidden: null }));
    pass(1);
    // An eye errs now and then: of several looks most are right.
    const soap = (place: string) => {
      const grades = [1, 2, 3, 4, 5].map(() => {
        const answer = bay.check(`0/wet/${place}`);
        return answer?.kind === 'grade' ? answer.grade : '';
      });
      return grades.sort()[2];
    };
    expect(soap('primary tank')).toBe('dry');
    bay.move({ kind: 'fault', id: 'leak: primary tank', howBad: 'plain' });
    bay.move({ kind: 'fault', id: 'leak: primary tank', howBad: 'bad' });
    pass(1);
    expect(frame().faults).toEqual(['primary tank: leaks at a joint']);
    expect(['froth', 'stream', 'blown-off']).toContain(soap('primary tank'));
    expect(soap('secondary tank')).toBe('dry');
  });

  it('does a check that takes time as a person does, and leaves the rig as it found it', () => {
    const { bay, frame, pass } = bayAt(setup());
    pass(1);
    expect(bay.check('0/read/governor/out')).toMatchObject({ kind: 'number' });
    expect(frame().rpm).toBe(0);
    expect(frame().pedalPsi).toBe(0);
    expect(frame().timeS).toBeGreaterThan(60);
    expect(bay.check('no such check')).toBeNull();
  });

  it('tells nothing of a hidden fault before it is asked to', () => {
    const { frame, pass } = bayAt(setup({ hidden: 2 }));
    pass(1);
    expect(frame().faults).toEqual([]);
  });

  it('keeps what hands hold: pedal, drains, couplers, and a hand brake with its test position', () => {
    const ports = 'numbers' as const;
    const towed = [madeUpUnit('trailer', { id: '2', number: '22', name: 'box', ports })];
    const tractor = madeUpUnit('tractor', { ports });
    const { bay, opened, placeAt, frame, pass } = bayAt(setup({ rig: { unit: tractor, towed } }));
    expect(opened).toMatchObject({ hasHandBrake: true, hasPark: false, hasTrailer: false });
    const psi = (place: string) => frame().psi[placeAt(place)] ?? NaN;
    bay.move({ kind: 'engine', rpm: 2100 });
    bay.move({ kind: 'hand-brake', at: 'released' });
    bay.move({ kind: 'speed', times: 16 });
    // All cocks but the last stand open: here there is but one trailer, and its own are shut.
    expect(frame().opened).toEqual([]);
    pass(8);
    expect(psi('rear left spring')).toBeGreaterThan(60);
    bay.move({ kind: 'hand-brake', at: 'test' });
    pass(2);
    expect(psi('rear left spring')).toBeLessThan(5);
    expect(psi('#1 left')).toBeLessThan(3);
    bay.move({ kind: 'open', way: 'primary drain', share: 1 });
    bay.move({ kind: 'couple', how: 'crossed' });
    bay.move({ kind: 'pedal', psi: 20 });
    pass(1);
    expect(frame()).toMatchObject({
      handBrake: 'test',
      opened: ['primary drain'],
      coupling: 'crossed',
      pedalPsi: 20,
      speed: 16,
    });
  });

  it('tells a slow screen only as much as it can draw, and hands at once', async () => {
    let nowMs = 0;
    const drawn: (() => void)[] = [];
    const told: number[] = [];
    const bay = makeBay(() => nowMs);
    bay.open(setup(), (frame) => {
      told.push(frame.timeS);
      return new Promise<void>((resolve) => drawn.push(resolve));
    });
    const tick = (times: number) => {
      for (let n = 0; n < times; n += 1) {
        nowMs += 16;
        bay.tick();
      }
    };
    tick(10);
    expect(told).toHaveLength(1);
    drawn[0]?.();
    await Promise.resolve();
    tick(10);
    expect(told).toHaveLength(2);
    // Time has gone on meanwhile.
    expect(told[1]).toBeCloseTo(0.176, 6);
    bay.move({ kind: 'engine', rpm: 650 });
    expect(told).toHaveLength(3);
  });

  it('owes a rig nothing for the time its tab slept', () => {
    let nowMs = 0;
    let timeS = 0;
    const bay = makeBay(() => nowMs);
    bay.open(setup(), (frame) => (timeS = frame.timeS));
    nowMs = 3_600_000;
    bay.tick();
    expect(timeS).toBeLessThanOrEqual(0.25);
  });

  it('is mended by a new part where that was at fault, and not by another', () => {
    const { bay, opened } = bayAt(setup({ hidden: 1, seed: 42 }));
    const was = opened.faults.find(({ title, part }) => {
      const [only] = bay.end([]).was;
      return title === only?.title && part === only.part;
    })!;
    // Any part that is another one: it is changed for nothing, and the fault is still there.
    const other = opened.faults.find(({ partId }) => partId !== was.partId)!;
    bay.mend(other.unit, other.partId);
    expect(bay.end([])).toMatchObject({ right: false, wrongParts: 1 });
    bay.mend(was.unit, was.partId);
    // What was wrong is told still; nothing of it is left to be named.
    expect(bay.end([])).toMatchObject({ right: true, wrongParts: 1 });
    expect(bay.end([]).was).toHaveLength(1);
  });

  it('proves a mended leak by soap with the rig brought into its state, beside what a sound rig gives', () => {
    const never = { ...setup({ hidden: null }), senses: PERFECT_SENSES };
    const { bay, pass } = bayAt(never);
    pass(1);
    const id = '0/wet/primary tank';
    bay.move({ kind: 'fault', id: 'leak: primary tank', howBad: 'bad' });
    const sound = bay.sound([id])[id];
    expect(bay.check(id, true)).not.toEqual(sound);
    bay.mend(0, 'primary-tank');
    // Nothing blows from an empty tank: it is charged first.
    expect(bay.check(id, true)).toEqual(sound);
  });
});
