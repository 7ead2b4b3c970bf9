import { jStat } from 'jstat';
import { linearRegression } from 'simple-statistics';
import { chanceWithin, evenAndNormalCdf, normalCdf } from './normal';
import { quantile } from './quantile';
import { studentT } from './studentT';
import { weightedLine } from './weightedLine';

const zs = Array.from({ length: 121 }, (_, n) => (n - 60) / 10);

describe('the normal distribution, against the library', () => {
  it.each(zs)('at %d', (z) => {
    expect(Math.abs(normalCdf(z) - jStat.normal.cdf(z, 0, 1))).toBeLessThan(1.5e-7);
  });

  it('between bounds, of which either may be missing', () => {
    const { cdf } = jStat.normal;
    for (const [value, sd, min, max] of [
      [10, 2, 9, 13],
      [10, 0.5, 12, 14],
      [-3, 4, -3, 0],
    ] as const) {
      expect(chanceWithin(value, sd, min, max)).toBeCloseTo(
        cdf(max, value, sd) - cdf(min, value, sd),
        6,
      );
      expect(chanceWithin(value, sd, null, max)).toBeCloseTo(cdf(max, value, sd), 6);
      expect(chanceWithin(value, sd, min, null)).toBeCloseTo(1 - cdf(min, value, sd), 6);
      expect(chanceWithin(value, sd, null, null)).toBe(1);
    }
  });

  it('of what is known for sure is one on the bounds and between them, and nothing beyond', () => {
    for (const sd of [0, -1]) {
      for (const value of [3, 4, 5]) expect(chanceWithin(value, sd, 3, 5)).toBe(1);
      for (const value of [2.999, 5.001]) expect(chanceWithin(value, sd, 3, 5)).toBe(0);
      expect(chanceWithin(9, sd, 3, null)).toBe(1);
      expect(chanceWithin(-9, sd, null, 5)).toBe(1);
    }
  });

  it('reaches a share where the library has it', () => {
    for (const share of [0.025, 0.2, 0.5, 0.95])
      expect(quantile(normalCdf, share, -8, 8)).toBeCloseTo(jStat.normal.inv(share, 0, 1), 5);
    // Not between the bounds: the one on its side.
    expect(quantile(normalCdf, 0.5, 1, 8)).toBeCloseTo(1, 9);
    expect(quantile(normalCdf, 0.5, -8, -1)).toBeCloseTo(-1, 9);
  });
});

describe('an even quantity plus a normal one', () => {
  /** The same by summing the normal distribution over the even one, with the library. */
  const summed = (x: number, half: number, sd: number) => {
    const steps = 4_000;
    let sum = 0;
    for (let n = 0; n < steps; n += 1)
      sum += jStat.normal.cdf(x - half + (2 * half * (n + 0.5)) / steps, 0, sd);
    return sum / steps;
  };

  it.each([
    [0, 3, 1],
    [1.5, 3, 1],
    [-2.8, 3, 1],
    [4, 3, 1],
    [0.3, 0.2, 1],
    [8, 9.1, 0.4],
  ])('at %d, within ±%d and with a deviation of %d', (x, half, sd) => {
    expect(evenAndNormalCdf(x, half, sd)).toBeCloseTo(summed(x, half, sd), 5);
  });

  it('is the normal one where the even one is narrow, and a ramp where there is no normal one', () => {
    expect(evenAndNormalCdf(0.7, 0.019, 1)).toBe(normalCdf(0.7));
    expect(evenAndNormalCdf(0.7, 0, 2)).toBe(normalCdf(0.35));
    expect([-4, -3, 0, 1.5, 3, 4].map((x) => evenAndNormalCdf(x, 3, 0))).toEqual([
      0, 0, 0.5, 0.75, 1, 1,
    ]);
    // Far beyond, where the difference of two integrals might leave the bounds.
    expect(evenAndNormalCdf(60, 3, 1)).toBeLessThanOrEqual(1);
    expect(evenAndNormalCdf(-60, 3, 1)).toBeGreaterThanOrEqual(0);
  });
});

describe('Student’s t, against the library', () => {
  it.each([0.9, 0.95])('at %d it is within 1 %% from three degrees of freedom on', (share) => {
    const z = jStat.normal.inv(share, 0, 1);
    for (let freedom = 3; freedom <= 40; freedom += 1) {
      const right = jStat.studentt.inv(share, freedom);
      expect(Math.abs(studentT(z, freedom) / right - 1)).toBeLessThan(0.01);
    }
  });

  it('has each term of the expansion right: what is left of it goes with the fourth power', () => {
    for (const share of [0.8, 0.95, 0.975]) {
      const z = jStat.normal.inv(share, 0, 1);
      for (const freedom of [20, 30, 40]) {
        const off = studentT(z, freedom) - jStat.studentt.inv(share, freedom);
        expect(Math.abs(off) * freedom ** 4).toBeLessThan(2.5);
      }
    }
  });
});

describe('a weighted line', () => {
  /** A point that counts for so many, each with an uncertainty of one. */
  const points = [
    { x: 0, y: 1, times: 4 },
    { x: 2, y: 2.5, times: 1 },
    { x: 5, y: 2, times: 9 },
    { x: 7, y: 6, times: 2 },
  ];
  const weighted = points.map(({ x, y, times }) => ({ x, y, u: 1 / Math.sqrt(times) }));

  it('is the library’s through as many points as each counts for', () => {
    const { m, b } = linearRegression(
      points.flatMap(({ x, y, times }) => Array.from({ length: times }, () => [x, y])),
    );
    const line = weightedLine(weighted)!;
    expect(line.slope).toBeCloseTo(m, 12);
    expect(line.intercept).toBeCloseTo(b, 12);
  });

  it('has a slope as uncertain as the points and their reach make it: σ/√Σ(x−x̄)²', () => {
    const ys = [0, 1, 2, 3, 4].map((x) => ({ x, y: 3, u: 0.5 }));
    expect(weightedLine(ys)).toEqual({
      slope: 0,
      intercept: 3,
      slopeUncertainty: 0.5 / Math.sqrt(10),
    });
  });

  it('does not lose itself among clock times', () => {
    const far = weighted.map((each) => ({ ...each, x: each.x + 1.76e9 }));
    expect(weightedLine(far)!.slope).toBeCloseTo(weightedLine(weighted)!.slope, 9);
  });

  it('is none through one abscissa, or through nothing', () => {
    expect(weightedLine([])).toBeNull();
    expect(weightedLine([{ x: 1, y: 2, u: 1 }])).toBeNull();
    expect(weightedLine([1, 2].map((y) => ({ x: 1, y, u: 1 })))).toBeNull();
  });
});
