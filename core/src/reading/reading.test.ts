import { SimpleLinearRegression } from 'ml-regression-simple-linear';
import { jStat } from 'jstat';
import fc from 'fast-check';
import { linearRegression } from 'simple-statistics';
import { buildUp } from './buildUp';
import { halfDivisionPsi, lineBelowPsi, nearestReadingPsi, nudgedPsi } from '../gauge/graduation';
import { judge, SURE_COVERAGE } from './judge';
import { chanceWithin, evenAndNormalCdf, normalCdf } from '../statistics/normal';
import { levelOf, levelUncertaintyPsi } from '../gauge/gaugeCheck';
import { studentT } from '../statistics/studentT';
import { testUnit } from '../test/walk';
import { weightedLine } from '../statistics/weightedLine';

const psiGauge = { unit: 'psi', division: 2, top: 150 } as const;
const barGauge = { unit: 'bar', division: 0.2, top: 12 } as const;

describe('reading a dial', () => {
  it('reads to half a division', () => {
    expect(halfDivisionPsi(psiGauge)).toBe(1);
    expect(nearestReadingPsi(117.4, psiGauge)).toBe(117);
    expect(nearestReadingPsi(9999, psiGauge)).toBe(150);
    expect(nearestReadingPsi(-3, psiGauge)).toBe(0);
  });

  it('finds the line under the needle, a needle on a line counting as on it', () => {
    expect(lineBelowPsi(118, psiGauge)).toBe(116);
    expect(lineBelowPsi(117, psiGauge)).toBe(116);
    expect(lineBelowPsi(0, psiGauge)).toBeNull();
    const eightBar = 8 / 0.06894757;
    expect((lineBelowPsi(eightBar, barGauge) ?? 0) * 0.06894757).toBeCloseTo(7.8, 9);
  });

  it('nudges by halves, there and back, on any dial', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 100 }),
        fc.integer({ min: -8, max: 8 }),
        fc.constantFrom(psiGauge, barGauge),
        (halves, moves, gauge) => {
          const start = nudgedPsi(0, halves, gauge);
          expect(nudgedPsi(nudgedPsi(start, moves, gauge), -moves, gauge)).toBeCloseTo(start, 9);
        },
      ),
    );
  });
});

describe('the line fit', () => {
  const points = fc
    .uniqueArray(fc.integer({ min: 0, max: 600 }), { minLength: 3, maxLength: 12 })
    .chain((xs) =>
      fc.tuple(
        fc.constant(xs),
        fc.array(fc.double({ min: 50, max: 130, noNaN: true }), {
          minLength: xs.length,
          maxLength: xs.length,
        }),
      ),
    );

  it('agrees with two general-purpose regressions where all weights are alike', () => {
    fc.assert(
      fc.property(points, ([xs, ys]) => {
        const ours = weightedLine(xs.map((x, index) => ({ x, y: ys[index] ?? 0, u: 0.4 })));
        const other = new SimpleLinearRegression(xs, ys);
        const third = linearRegression(xs.map((x, index) => [x, ys[index] ?? 0]));
        expect(ours?.slope).toBeCloseTo(other.slope, 6);
        expect(ours?.intercept).toBeCloseTo(other.intercept, 4);
        expect(ours?.slope).toBeCloseTo(third.m, 6);
      }),
    );
  });

  it('weighs a point of double uncertainty a quarter: four alike then count as one', () => {
    const wide = { y: 100, u: 2 };
    const split = weightedLine([
      { x: 0, ...wide },
      { x: 0, ...wide },
      { x: 0, ...wide },
      { x: 0, ...wide },
      { x: 60, y: 97, u: 1 },
    ]);
    const one = weightedLine([
      { x: 0, y: 100, u: 1 },
      { x: 60, y: 97, u: 1 },
    ]);
    expect(split?.slopeUncertainty).toBeCloseTo(one?.slopeUncertainty ?? NaN, 12);
  });

  it('needs two different times', () => {
    expect(
      weightedLine([
        { x: 5, y: 1, u: 1 },
        { x: 5, y: 2, u: 1 },
      ]),
    ).toBeNull();
    expect(weightedLine([])).toBeNull();
  });
});

describe('how sure', () => {
  it('follows the normal distribution of a general-purpose library', () => {
    for (let z = -4; z <= 4; z += 0.37)
      expect(normalCdf(z)).toBeCloseTo(jStat.normal.cdf(z, 0, 1), 6);
    expect(normalCdf(SURE_COVERAGE)).toBeCloseTo(0.95, 3);
  });

  it('splits evenly on a limit, and leaves no chance for a number without doubt outside it', () => {
    expect(chanceWithin(2, 0.5, null, 2)).toBeCloseTo(0.5, 6);
    expect(chanceWithin(2.1, 0, null, 2)).toBe(0);
    expect(chanceWithin(2, 0, null, 2)).toBe(1);
  });

  const limit = (min: number | null, max: number | null) => ({
    id: 'x',
    min,
    max,
    source: 's',
    tag: 'house' as const,
  });

  it('passes, fails, or says it can’t tell', () => {
    expect(judge(1, 0.3, limit(null, 2))).toMatchObject({ asRead: 'pass', verdict: 'pass' });
    expect(judge(2, 0.5, limit(null, 2))).toMatchObject({ asRead: 'pass', verdict: 'cant-tell' });
    expect(judge(2.4, 0.5, limit(null, 2))).toMatchObject({ asRead: 'fail', verdict: 'cant-tell' });
    expect(judge(4, 0.5, limit(null, 2))).toMatchObject({ asRead: 'fail', verdict: 'fail' });
    expect(judge(126, 3, limit(120, 140)).verdict).toBe('pass');
  });

  it('asks for 95 in 100, on either side', () => {
    // One-sided normal quantiles from any table: Φ(1.48) = 0.931, Φ(1.70) = 0.955.
    expect(judge(2 - 1.48, 1, limit(null, 2)).verdict).toBe('cant-tell');
    expect(judge(2 - 1.7, 1, limit(null, 2)).verdict).toBe('pass');
    expect(judge(2 + 1.48, 1, limit(null, 2)).verdict).toBe('cant-tell');
    expect(judge(2 + 1.7, 1, limit(null, 2)).verdict).toBe('fail');
    expect(judge(100 + 1.48, 1, limit(100, null)).verdict).toBe('cant-tell');
    expect(judge(100 + 1.7, 1, limit(100, null)).verdict).toBe('pass');
  });

  it('never passes under a stricter limit what failed under a wider one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 10, noNaN: true }),
        fc.double({ min: 0.01, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (value, doubt, max, stricterBy) => {
          const wide = judge(value, doubt, limit(null, max));
          const strict = judge(value, doubt, limit(null, max - stricterBy));
          expect(strict.within).toBeLessThanOrEqual(wide.within + 1e-12);
          if (wide.verdict === 'fail') expect(strict.verdict).toBe('fail');
          if (wide.asRead === 'fail') expect(strict.asRead).toBe('fail');
        },
      ),
    );
  });

  it('doubts a level by its gauge, anything within ±7 % as likely, and far less by a master gauge', () => {
    // [std: 49 CFR 571.121 S5.1.4, value from memory]; an even quantity's deviation is its half width ÷ √3.
    const level = (gauge: 'primary' | 'master') => levelOf(100, 1, gauge, testUnit(), 126, 0);
    expect(level('primary').halfWidthPsi).toBeCloseTo(8.82, 9);
    expect(levelUncertaintyPsi(level('primary'))).toBeCloseTo(Math.hypot(8.82 / 1.732, 0.804), 2);
    expect(levelUncertaintyPsi(level('master'))).toBeLessThan(1.2);
  });

  it('knows the sum of an even and a normal quantity, against a sum over many of the even one', () => {
    for (const x of [-9, -4, 0, 3, 8.5, 11]) {
      let sum = 0;
      const N = 4_000;
      for (let n = 0; n < N; n += 1) {
        const even = -8 + (16 * (n + 0.5)) / N;
        sum += jStat.normal.cdf(x - even, 0, 1.3) / N;
      }
      expect(evenAndNormalCdf(x, 8, 1.3)).toBeCloseTo(sum, 5);
    }
    expect(evenAndNormalCdf(1, 0, 1)).toBeCloseTo(jStat.normal.cdf(1, 0, 1), 6);
    expect(evenAndNormalCdf(2, 8, 0)).toBeCloseTo(0.625, 9);
  });

  it('has Student’s t of a general-purpose library', () => {
    for (const freedom of [4, 6, 8, 20]) {
      expect(studentT(1.96, freedom) / jStat.studentt.inv(0.975, freedom)).toBeCloseTo(1, 1);
      expect(studentT(1.645, freedom) / jStat.studentt.inv(0.95, freedom)).toBeCloseTo(1, 2);
    }
  });
});

describe('build-up', () => {
  const mark = (readingPsi: number, atS: number) => ({
    readingPsi,
    atMs: atS * 1000,
    resolutionPsi: 1,
  });

  it('times 85 to 100 psi', () => {
    const found = buildUp(mark(85, 10), mark(100, 41), 15, 'primary');
    expect(found).toMatchObject({ timeS: 31 });
    expect(found?.ratePsiPerS).toBeCloseTo(15 / 31, 9);
  });

  it('scales what was marked to the span the limit speaks of', () => {
    expect(buildUp(mark(90, 0), mark(100, 20), 15, 'primary')?.timeS).toBeCloseTo(30, 9);
  });

  it('doubts more with a coarser dial', () => {
    const fine = buildUp(mark(85, 0), mark(100, 30), 15, 'primary')?.standardUncertaintyS ?? 0;
    const coarse =
      buildUp({ ...mark(85, 0), resolutionPsi: 5 }, mark(100, 30), 15, 'primary')
        ?.standardUncertaintyS ?? 0;
    expect(coarse).toBeGreaterThan(fine);
  });

  it('makes nothing of marks that do not climb', () => {
    expect(buildUp(mark(100, 0), mark(85, 30), 15, 'primary')).toBeNull();
    expect(buildUp(mark(85, 30), mark(100, 30), 15, 'primary')).toBeNull();
  });
});
