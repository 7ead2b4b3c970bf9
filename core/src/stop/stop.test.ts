import fc from 'fast-check';
import { newUnitDraft } from '../rig/newUnit';
import { stopFigure } from '../reading/stopFigure';
import { limitFor } from '../standards/limitFor';
import { inService } from '../standards/inService';
import { numberedPorts } from '../standards/numberedPorts';
import { roadTest } from '../standards/roadTest';
import { seededNumbers } from '../test/seededNumbers';
import {
  brakingOf,
  decelerationByEyeG,
  GRAVITY_MPS2,
  MPS_PER_MPH,
  simulatedStop,
  stoppingDistanceFt,
  type SimulatedStop,
} from '.';

const evenly = (seed: number) => {
  const numbers = seededNumbers(seed);
  return () => numbers.between(0, 1);
};
const G_FTPS2 = GRAVITY_MPS2 / 0.3048;

describe('a stop seen from the wheel', () => {
  it('of 4 ft is 0.39 g from 5 mph and 0.10 g from 3 mph, a quarter of a second lost [calc: v² ÷ 2(s − vt)]', () => {
    expect(decelerationByEyeG(5, 4, 0.25)).toBeCloseTo(0.39, 2);
    expect(decelerationByEyeG(3, 4, 0.25)).toBeCloseTo(0.1, 2);
    // 15 to 20 ft are the run-up: as a stopping distance they would be no brakes.
    expect(decelerationByEyeG(5, 18, 0)).toBeLessThan(0.05);
    expect(decelerationByEyeG(5, 1, 0.25)).toBeNull();
  });

  it('at 14 ft/s² takes 1.9 ft from 5 mph, 3.6 with half a second’s ramp, 5.6 with half a second lost [calc]', () => {
    expect(stoppingDistanceFt(5, 14)).toBeCloseTo(1.92, 2);
    expect(stoppingDistanceFt(5, 14, 0.5)).toBeCloseTo(3.75, 1);
    expect(stoppingDistanceFt(5, 14, 0, 0.5)).toBeCloseTo(5.59, 1);
  });

  it('agrees with stepping through time, the ramp’s own braking left out of the closed form', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 25, noNaN: true }),
        fc.double({ min: 8, max: 25, noNaN: true }),
        fc.double({ min: 0, max: 0.6, noNaN: true }),
        (mph, ftps2, lostS) => {
          let [speed, distance, at] = [(mph * 5_280) / 3_600, 0, 0];
          const dt = 1e-4;
          while (speed > 0) {
            distance += speed * dt;
            if (at >= lostS) speed -= ftps2 * dt;
            at += dt;
          }
          expect(stoppingDistanceFt(mph, ftps2, 0, lostS)).toBeCloseTo(distance, 1);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('what a stop must reach', () => {
  const pct = (kind: 'truck' | 'bus' | 'tractor', grossLb?: number, towed = 0) =>
    limitFor(
      'stop-braking',
      {
        unit: { ...newUnitDraft(kind, 2015), ...(grossLb ? { grossLb } : {}) },
        towed: Array.from({ length: towed }, () => ({ ...newUnitDraft('trailer', 2015) }) as never),
      },
      roadTest,
    )?.min;

  it('is 14 ft/s², 43.5 % of the weight, and 17 ft/s² up to 10,000 lb [std: 49 CFR 393.52(d), value from memory]', () => {
    expect(pct('truck')).toBeCloseTo((100 * 14) / G_FTPS2, 1);
    expect(pct('truck', 33_000)).toBe(43.5);
    expect(pct('truck', 9_500)).toBeCloseTo((100 * 17) / G_FTPS2, 1);
    // Buses and combinations whatever they weigh.
    expect(pct('bus', 9_500)).toBe(43.5);
    expect(pct('truck', 9_500, 1)).toBe(43.5);
  });

  it('stands in every shipped rule set, with the speed and the distance that the eye goes by', () => {
    const rig = { unit: newUnitDraft('truck', 2015), towed: [] };
    for (const set of [roadTest, inService, numberedPorts]) {
      expect(limitFor('stop-speed', rig, set)).toMatchObject({ min: 5, max: 6 });
      expect(limitFor('stop-distance', rig, set)).toMatchObject({ max: 4 });
    }
  });
});

describe('a roller tester', () => {
  it('is its force over the weight: 71,098 N on 16,667 kg is 43.5 % [calc: F ÷ mg]', () => {
    const at = brakingOf({ by: 'roller', forceN: 71_098, massKg: 16_667 });
    expect(at).toMatchObject({ outcome: 'braking', part: null });
    expect((at as { pct: number }).pct).toBeCloseTo(43.5, 2);
  });
});

describe('a phone on the floor', () => {
  const stop = (given: Partial<SimulatedStop>, seed = 1) => {
    const random = evenly(seed);
    return brakingOf(simulatedStop({ fromMph: 20, g: 0.5, rampS: 0.4, ...given }, random));
  };
  /** The mean of a whole stop, ramp and all: Δv over its time. */
  const meanPct = (mph: number, g: number, rampS: number) => {
    const speed = mph * MPS_PER_MPH;
    const rest = speed - (g * GRAVITY_MPS2 * rampS) / 2;
    return (100 * speed) / (rampS + rest / (g * GRAVITY_MPS2)) / GRAVITY_MPS2;
  };

  it('from 20 mph counts the whole stop', () => {
    for (const [g, rampS] of [
      [0.3, 0.3],
      [0.45, 0.5],
      [0.6, 0.2],
    ] as const) {
      const found = stop({ g, rampS, shake: 0.05 });
      expect(found).toMatchObject({ outcome: 'braking', part: { of: 'whole' } });
      const { pct, sdPct } = found as { pct: number; sdPct: number };
      expect(Math.abs(pct - meanPct(20, g, rampS))).toBeLessThan(4 * sdPct);
      expect(sdPct).toBeLessThan(3);
    }
  });

  it('from walking pace counts only what comes after the ramp', () => {
    const found = stop({ fromMph: 6, g: 0.45, rampS: 0.15, shake: 0.05 });
    expect(found).toMatchObject({ outcome: 'braking', part: { of: 'after-ramp' } });
    expect((found as { pct: number }).pct).toBeGreaterThan(39);
    expect((found as { pct: number }).pct).toBeLessThan(48);
  });

  it('can’t tell under 0.3 s of it: a good stop of 0.6 g with half a second’s ramp from 5 mph', () => {
    // Averaged over all of it that good stop would be 0.36 g.
    expect(meanPct(5, 0.6, 0.5)).toBeCloseTo(36, 0);
    expect(stop({ fromMph: 5, g: 0.6, rampS: 0.5, shake: 0.05 })).toEqual({
      outcome: 'none',
      why: 'too-short',
    });
  });

  it('takes out the slope, and how the phone lies on the floor', () => {
    const flat = stop({ shake: 0.02 }) as { pct: number };
    for (const [slope, turned] of [
      [0.06, 0],
      [-0.06, 1.2],
      [0.03, -2.5],
    ] as const) {
      const found = stop({ shake: 0.02, slope, turned }) as { pct: number };
      expect(Math.abs(found.pct - flat.pct)).toBeLessThan(1);
    }
  });

  it('says nothing of a phone that was not still, that felt no stop, or another speed', () => {
    expect(stop({ shake: 1.5 })).toEqual({ outcome: 'none', why: 'not-still' });
    expect(stop({ g: 0.02, shake: 0.02 }).outcome).toBe('none');
    const felt = simulatedStop({ fromMph: 20, g: 0.5, rampS: 0.3 }, evenly(3));
    expect(brakingOf({ ...felt, fromMph: 45 })).toEqual({ outcome: 'none', why: 'speed-unlike' });
    const cut = { ...felt, motion: felt.motion.slice(0, -55) };
    expect(brakingOf(cut)).toEqual({ outcome: 'none', why: 'cut-off' });
  });

  /*
   * Richer than what it is judged by: dive, shaking, slope, direction, ramp and speed are drawn. The world is of our own
   * making: it proves the arithmetic and its doubt, not the phone.
   */
  it('passes under the limit in at most 5 of 100, however the phone lies', () => {
    const random = evenly(20_261_201);
    const between = (from: number, to: number) => from + (to - from) * random();
    let [told, wrong, covered, missed] = [0, 0, 0, 0];
    for (let n = 0; n < 400; n += 1) {
      const [g, rampS] = [between(0.3, 0.6), between(0.1, 0.7)];
      const found = brakingOf(
        simulatedStop(
          {
            ...{ fromMph: 20, g, rampS, slope: between(-0.06, 0.06) },
            ...{ turned: between(-3, 3), dive: between(0.01, 0.07), shake: between(0.02, 0.25) },
          },
          random,
        ),
      );
      if (found.outcome !== 'braking') {
        missed += 1;
        continue;
      }
      const truth = meanPct(20, g, rampS);
      if (Math.abs(found.pct - truth) <= 1.96 * found.sdPct) covered += 1;
      told += 1;
      if (found.pct - 1.645 * found.sdPct > 43.5 && truth < 43.5) wrong += 1;
    }
    expect(missed).toBeLessThan(40);
    expect(covered / told).toBeGreaterThan(0.88);
    expect(wrong / told).toBeLessThan(0.05);
  });

  it('can’t tell a jolt in a weak stop from the stop, wherever it comes', () => {
    for (const [fromMph, seed] of [
      [20, 1],
      [20, 2],
      [15, 3],
    ] as const) {
      const weak = simulatedStop({ fromMph, g: 0.2, rampS: 0.3 }, evenly(seed));
      const fell = (each: readonly number[]) =>
        Math.hypot(...each.map((to, axis) => to - weak.still.mean[axis]!));
      const [x = 0, y = 0, z = 0] = weak.motion
        .reduce((most, each) => (fell(each) > fell(most) ? each : most))
        .map((to, axis) => to - weak.still.mean[axis]!);
      const way = Math.hypot(x, y, z);
      const first = weak.motion.findIndex((each) => fell(each) > 1.5);
      const last = weak.motion.findLastIndex((each) => fell(each) > 1.5);
      for (const where of [0.3, 0.6, 0.9])
        for (const [seconds, by] of [
          [0.35, 14],
          [0.35, 25],
          [0.6, 10],
        ] as const) {
          const at = Math.round(first + where * (last - first));
          const motion = weak.motion.map((each, n) => {
            const jolt = n >= at && n < at + seconds * weak.hz ? by / way : 0;
            return [each[0] + jolt * x, each[1] + jolt * y, each[2] + jolt * z] as const;
          });
          const found = brakingOf({ ...weak, motion: motion as never });
          const least = found.outcome === 'braking' ? found.pct - 1.645 * found.sdPct : 0;
          expect([where, seconds, by, least < 43.5]).toEqual([where, seconds, by, true]);
        }
    }
  });

  it('goes by the law where a rule set has no figure, and never takes more than tyres hold', () => {
    const rig = { unit: newUnitDraft('truck', 2015), towed: [] };
    const limits = roadTest.limits.filter(({ figure }) => figure !== 'stop-braking');
    const found = { ...rig, ruleSet: { ...roadTest, limits }, sayIn: 'psi', marks: [] };
    const ofRoller = (forceN: number, massKg: number) =>
      stopFigure('stop-braking', {
        ...{ ...found, step: { id: 'service-stop' } },
        stop: { measured: { by: 'roller', forceN, massKg } },
      } as never);
    expect(ofRoller(8_000, 16_000)).toMatchObject({ verdict: 'fail', limit: { min: 43.5 } });
    expect(ofRoller(90_000, 16_000)).toMatchObject({ verdict: 'pass' });
    // The weight of one axle, or pounds for kilograms.
    expect(ofRoller(90_000, 7_000)).toMatchObject({ verdict: 'cant-tell', value: null });
  });

  it('that was simulated says in its figure that it is not this vehicle', () => {
    const measured = simulatedStop({ fromMph: 20, g: 0.6, rampS: 0.3 }, evenly(5));
    const found = { unit: newUnitDraft('truck', 2015), towed: [], ruleSet: roadTest, sayIn: 'psi' };
    const figureOf = (change: { simulated?: true }) => {
      const { simulated: _, ...felt } = measured;
      const stop = { measured: { ...felt, ...change } };
      return stopFigure('stop-braking', {
        ...found,
        stop,
        marks: [],
        step: { id: 'service-stop' },
      } as never);
    };
    expect(figureOf({ simulated: true })?.why).toContain('Simulated, not this vehicle');
    expect(figureOf({})?.why).toContain('By phone');
    expect(figureOf({})?.why).not.toContain('imulated');
  });
});
