import { unitOf } from '../test/walk';
import { drawsOf } from '../twin/random';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { effectsOf, type Fault } from '../twin/faults/fault';
import { faultsOf } from '../twin/faults/faultsOf';
import { Twin } from '../twin/twin';
import { actsAt, checksOfStep, failsAt } from './actsAt';
import { bring } from './bring';
import { checksOf } from './catalogue';
import { PERFECT_SENSES, USUAL_SENSES, type Check } from './check';
import { doCheck, hasFault, NO_CHANCE, observed } from './observe';
import { STATES } from './states';
import { apart, doAll, TELLS } from './tells';

const OUTSIDE_C = -10;
const truck: RigUnderTest = { unit: unitOf('truck', '10'), towed: [] };
const kinds: Readonly<Record<string, RigUnderTest>> = {
  truck,
  'tractor and trailer': { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] },
  bus: { unit: unitOf('bus', '12'), towed: [] },
  'numbered tractor and trailer': {
    unit: unitOf('tractor', '13', { ports: 'numbers' }),
    towed: [unitOf('trailer', '23', { ports: 'numbers' })],
  },
  'trailer alone': { unit: unitOf('trailer', '24'), towed: [] },
};

/** Checks of a fault, what is done at its own part first, then the quickest. */
const inOrder = (checks: readonly Check[], { id }: Fault) =>
  [...checks].sort(
    (a, b) =>
      Number(b.bearsOn.includes(id)) - Number(a.bearsOn.includes(id)) ||
      a.minutes + a.state.minutes - b.minutes - b.state.minutes,
  );

/** The first check that tells a fault from the sound rig; its own part's first. Our twin on both sides. */
function bestCheck(
  rig: RigUnderTest,
  fault: Fault,
  checks: readonly Check[],
  sound: ReturnType<typeof doAll>,
) {
  const order = inOrder(checks, fault);
  // By lots of a few: the first nearly always tells.
  for (let n = 0; n < order.length; n += n === 0 ? 3 : 12) {
    const some = order.slice(n, n === 0 ? 3 : n + 12);
    const answers = doAll(rig, some, [{ fault, severity: 0.9 }], { outsideC: OUTSIDE_C });
    const telling = some.find(
      (check) =>
        apart(check, sound.get(check.id)!, answers.get(check.id)!) >= TELLS ||
        (check.doing.does === 'look' && fault.id in check.doing.under),
    );
    if (telling) return telling;
  }
  return null;
}

describe('the catalogue of checks', () => {
  it.each(Object.keys(kinds))(
    'reaches every fault of a %s',
    (kind) => {
      const rig = kinds[kind]!;
      const faults = faultsOf(rig, OUTSIDE_C);
      const checks = checksOf(rig, faults);
      const sound = doAll(rig, checks, [], { outsideC: OUTSIDE_C });
      const untold = faults.filter((fault) => !bestCheck(rig, fault, checks, sound));
      expect(untold.map(({ id }) => id)).toEqual([]);
    },
    60_000,
  );

  it('names each check once, at a part of its unit, and says how it is done and what a sound rig gives', () => {
    for (const rig of Object.values(kinds)) {
      const checks = checksOf(rig);
      const ids = checks.map(({ id }) => id);
      expect(ids.filter((id, n) => ids.indexOf(id) !== n)).toEqual([]);
      for (const { title, how, sound, minutes, part, tools, answer } of checks) {
        expect(title).not.toMatch(/undefined|#\d/);
        expect(how.length).toBeGreaterThan(20);
        expect(sound).toMatch(/\.$/);
        expect(minutes).toBeGreaterThan(0);
        expect(part).not.toBe('');
        if (tools.includes('tee')) expect(answer.kind).toMatch(/number|points/);
      }
    }
  });

  it('has no check of what is not fitted', () => {
    const without: RigUnderTest = {
      unit: {
        ...truck.unit,
        parts: [{ partId: 'safety-valve', standing: 'not-fitted', foundAtMs: 1 }],
      },
      towed: [],
    };
    const of = (rig: RigUnderTest) => checksOf(rig).filter(({ part }) => part === 'safety-valve');
    expect(of(truck).length).toBeGreaterThan(0);
    expect(of(without)).toEqual([]);
  });

  it('warns before a fitting is opened, and before anybody goes under', () => {
    for (const check of checksOf(truck)) {
      if (check.tools.includes('tee')) expect(check.cautions.join(' ')).toMatch(/Let all air out/);
      if (check.doing.does === 'stroke') expect(check.cautions.join(' ')).toMatch(/Chock/);
    }
  });

  // The trade's own table of what points where (common practice, no source).
  it('tells a relay’s inlet seat from a spring chamber’s centre seal: parked, the seal is quiet and the seat goes on', () => {
    const checks = checksOf(truck);
    const heard = (faultId: string, state: string) => {
      const check = checks.find(({ id }) => id === `0/listen/rear relay: exhaust/${state}`)!;
      const fault = faultsOf(truck).find(({ id }) => id === faultId)!;
      const twin = new Twin(truck, { tanksPsi: 90 });
      twin.apply(effectsOf(fault, 0.8));
      return doCheck(twin, check, { senses: PERFECT_SENSES });
    };
    expect(heard('seat: rear relay: inlet', 'released')).toMatchObject({ grade: 'hiss' });
    expect(heard('centre seal: rear left', 'released')).toMatchObject({ grade: 'hiss' });
    expect(heard('seat: rear relay: inlet', 'parked')).toMatchObject({ grade: 'hiss' });
    expect(heard('centre seal: rear left', 'parked')).toMatchObject({ grade: 'quiet' });
  });

  it('errs as ears, soap and eyes do', () => {
    const listen = checksOf(truck).find(({ id }) => id === '0/listen/primary drain/parked')!;
    const wet = checksOf(truck).find(({ id }) => id === '0/wet/primary tank')!;
    const look = checksOf(truck).find(({ id }) => id === '0/look/intake')!;
    const fault = (id: string) => faultsOf(truck).find((each) => each.id === id)!;
    const shares = (check: Check, faults: Fault[], said: string, senses = USUAL_SENSES) => {
      const twin = new Twin(truck, { tanksPsi: 120 });
      twin.apply(faults.flatMap((each) => effectsOf(each, 0.7)));
      bring(twin, STATES.parked);
      const chance = drawsOf(7);
      const ids = faults.map((each) => hasFault(each, 0.7));
      let times = 0;
      for (let n = 0; n < 2_000; n += 1) {
        const answer = observed(twin, check, senses, { even: chance.even, normal: () => 0 }, ids);
        const word =
          answer.kind === 'grade' ? answer.grade : answer.kind === 'choice' ? answer.choice : '';
        if (word === said) times += 1;
      }
      return times / 2_000;
    };
    // 2,000 draws: within three deviations of the binomial.
    const near = (share: number, of: number) =>
      expect(Math.abs(share - of)).toBeLessThan(3 * Math.sqrt((of * (1 - of)) / 2_000));
    near(shares(listen, [fault('seat: primary drain')], 'quiet'), 0.1);
    near(shares(listen, [], 'hiss'), 0.02);
    near(shares(wet, [fault('leak: primary tank')], 'dry'), 0.05);
    near(shares(look, [], 'bad'), 0.05);
    near(shares(look, [fault('intake blocked')], 'bad'), 0.95);
    // A draw at the very end of what can be drawn is the last of what can be seen, not nothing.
    const twin = new Twin(truck, { tanksPsi: 120 });
    const atTheEnd = { even: () => 1 - 2 ** -53, normal: () => 0 };
    const last = look.doing.does === 'look' ? Object.keys(look.doing.sound).at(-1) : undefined;
    expect(observed(twin, look, USUAL_SENSES, atTheEnd, [])).toEqual({
      kind: 'choice',
      choice: last,
    });
    expect(last).toBeTruthy();
    // Other ears have other rates.
    const others = { ...USUAL_SENSES, missed: 0.3, imagined: 0.1, soapMisses: 0.2 };
    near(shares(listen, [fault('seat: primary drain')], 'quiet', others), 0.3);
    near(shares(listen, [], 'hiss', others), 0.1);
    near(shares(wet, [fault('leak: primary tank')], 'dry', others), 0.2);
    // Somebody who hears nothing hears nothing.
    expect(
      shares(listen, [fault('seat: primary drain')], 'quiet', { ...USUAL_SENSES, missed: 1 }),
    ).toBe(1);
  });

  it('does a check the same way twice', () => {
    const check = checksOf(truck).find(
      ({ id }) => id === '0/compare/rear relay control/rear delivery/released',
    )!;
    const once = () => doCheck(new Twin(truck, { tanksPsi: 90 }), check, { chance: NO_CHANCE });
    expect(once()).toEqual(once());
    expect(once()).toMatchObject({ kind: 'points' });
  });
});

describe('the steps of a run', () => {
  it('are of the catalogue: each says where it acts, and which check it is', () => {
    const rig = kinds['tractor and trailer']!;
    const checks = checksOf(rig);
    expect(actsAt(rig, 'cut-out')).toContainEqual({ unit: 0, part: 'governor' });
    expect(actsAt(rig, 'couplers')).toEqual([
      { unit: 1, part: 'supply-coupler' },
      { unit: 1, part: 'service-coupler' },
    ]);
    for (const step of [
      'build-up',
      'cut-out',
      'cut-in',
      'static-hold',
      'applied-hold',
      'warning',
      'pop-out',
      'stop-lamp',
    ]) {
      expect(actsAt(rig, step).length).toBeGreaterThan(0);
      const [first] = checksOfStep(checks, step);
      expect({ step, found: first !== undefined }).toEqual({ step, found: true });
    }
    expect(actsAt(rig, 'prepare')).toEqual([]);
    expect(failsAt(rig, 'figure:cut-out')).toEqual(actsAt(rig, 'cut-out'));
    expect(failsAt(rig, 'look:couplers/seals')).toEqual(actsAt(rig, 'couplers'));
    expect(failsAt(rig, 'figure:gauge-error')).toEqual([]);
  });
});
