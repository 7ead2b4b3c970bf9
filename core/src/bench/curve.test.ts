import fc from 'fast-check';
import { SimpleLinearRegression } from 'ml-regression-simple-linear';
import { unitOf } from '../test/walk';
import { checksOf } from '../checks/catalogue';
import { doCheck } from '../checks/observe';
import { drawsOf } from '../twin/random';
import { Twin } from '../twin/twin';
import {
  curveOf,
  climbing,
  deliveryAt,
  judgeCrack,
  sweepsOf,
  type Curve,
  type CurvePoint,
} from './curve';

const UP = [4, 6, 8, 10, 12, 15, 20, 30, 40, 60];
const DOWN = [50, 40, 30, 20, 15, 12, 10, 8, 6, 5];

/** A valve that balances a piston, in closed form: nothing to its crack, then what it is asked for less the crack. */
const valve =
  (crack: number, hysteresis: number, gain = 1) =>
  (inPsi: number, down: boolean) =>
    Math.max(0, gain * (inPsi - crack) + (down && inPsi > crack ? hysteresis : 0));

/** To half a division, as a dial is read. */
const onDial = (psi: number, divisionPsi: number) =>
  Math.max(0, (Math.round((2 * psi) / divisionPsi) * divisionPsi) / 2);

const isCurve = (found: ReturnType<typeof curveOf>): found is Curve => 'crack' in found;
const curve = (points: readonly CurvePoint[], compared = true, divisionPsi = 2): Curve => {
  const found = curveOf(points, { divisionPsi, compared });
  if (!isCurve(found)) throw new Error(found.wants);
  return found;
};

describe('a valve’s curve', () => {
  it('has the crack pressure within 0.5 psi in 90 of 100, from ten points up and ten down on 2-psi dials compared at zero and 60', () => {
    const draws = drawsOf(41);
    let near = 0;
    let covered = 0;
    const of = 500;
    for (let n = 0; n < of; n += 1) {
      const crack = 2 + 8 * draws.even();
      const out = valve(crack, 0.5 + 1.5 * draws.even(), 1 + 0.02 * draws.normal(2));
      // Compared at zero and 60: what is left of each dial's error is a bend between, a tenth of a division, one standard deviation.
      const bends = [0.2 * draws.normal(2), 0.2 * draws.normal(2)];
      const bent = (psi: number, by: number) =>
        psi + by * Math.sin((Math.PI * Math.min(60, psi)) / 60);
      const points = [
        ...UP.map((at) => [at, false] as const),
        ...DOWN.map((at) => [at, true] as const),
      ].map(([at, down]): CurvePoint => {
        // A pedal stops where it stops, not at a mark.
        const truly = at + 0.8 * draws.normal(2);
        return [onDial(bent(truly, bends[0]!), 2), onDial(bent(out(truly, down), bends[1]!), 2)];
      });
      const found = curve(points);
      if (Math.abs(found.crack.value - crack) <= 0.5) near += 1;
      if (Math.abs(found.crack.value - crack) <= 1.96 * found.crack.sd) covered += 1;
    }
    expect(near / of).toBeGreaterThanOrEqual(0.9);
    expect(covered / of).toBeGreaterThan(0.92);
  });

  it('of a valve that snaps is where it was caught opening, not where its line would begin', () => {
    const snaps = curve([
      [2, 0],
      [4, 1],
      [6, 6],
      [8, 8],
      [10, 10],
      [20, 20],
      [40, 40],
    ]);
    expect(Math.abs(snaps.crack.value - 4)).toBeLessThan(0.7);
    expect(snaps.crack.sd).toBeGreaterThan(0.4);
  });

  it('is the line of a library’s regression where nothing is read wrongly and the gain is one', () => {
    const out = valve(4, 0);
    const at = [8, 10, 15, 20, 30, 40, 60];
    const points = at.map((each): CurvePoint => [each, out(each, false)]);
    const line = new SimpleLinearRegression(
      at,
      points.map(([, to]) => to),
    );
    const found = curve(points);
    expect(found.gain.value).toBeCloseTo(line.slope, 6);
    expect(found.crack.value).toBeCloseTo(-line.intercept / line.slope, 6);
    expect(found.crack.value).toBeCloseTo(4, 6);
    expect(found.hysteresis).toBeNull();
  });

  it('names a wrong point and is not led by it', () => {
    const out = valve(4, 1);
    const points = [
      ...UP.map((at): CurvePoint => [at, out(at, false)]),
      ...DOWN.map((at): CurvePoint => [at, out(at, true)]),
    ];
    const slipped = points.map((point, n): CurvePoint =>
      n === 6 ? [point[0], point[1] + 10] : point,
    );
    const found = curve(slipped);
    expect(found.odd).toEqual([6]);
    expect(found.crack.value).toBeGreaterThan(3.6);
    expect(found.crack.value).toBeLessThan(4.4);
    expect(found.hysteresis?.value).toBeCloseTo(1, 0);
  });

  it('is wider with gauges that were not compared, and with coarser ones', () => {
    const points = UP.map((at): CurvePoint => [at, valve(5, 0)(at, false)]);
    expect(curve(points, false).crack.sd).toBeGreaterThan(3 * curve(points).crack.sd);
    expect(curve(points, true, 5).crack.sd).toBeGreaterThan(curve(points, true, 2).crack.sd);
  });

  it('says what it wants where it cannot be had', () => {
    const read = { divisionPsi: 2, compared: true };
    expect(
      curveOf(
        [
          [10, 6],
          [20, 16],
        ],
        read,
      ),
    ).toEqual({ wants: expect.stringContaining('Three points') as string });
    expect(
      curveOf(
        [
          [4, 0],
          [6, 0],
          [8, 0],
          [20, 15],
        ],
        read,
      ),
    ).toEqual({
      wants: expect.stringContaining('something comes out') as string,
    });
  });

  it('tells the way down from the way up, and what is left at the end', () => {
    const points: CurvePoint[] = [
      [10, 6],
      [20, 16],
      [60, 56],
      [20, 17],
      [0, 3],
    ];
    expect(sweepsOf(points)).toEqual({ up: [0, 1, 2], down: [3, 4] });
    expect(climbing(points)).toHaveLength(3);
    expect(curve(points).residualPsi).toBe(3);
    expect(curve(points.slice(0, 4)).residualPsi).toBeNull();
    expect(climbing([])).toEqual([]);
  });

  it('moves by what both gauges are moved by, whatever the valve', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 10, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (crack, hysteresis, by) => {
          const out = valve(crack, hysteresis);
          const read = (shift: number) =>
            curve([
              ...[15, 20, 30, 40, 60].map((at): CurvePoint => [at + shift, out(at, false)]),
              ...[40, 30, 20].map((at): CurvePoint => [at + shift, out(at, true)]),
            ]).crack.value;
          // A control gauge that reads high by so much moves the crack by as much.
          expect(read(by) - read(0)).toBeCloseTo(by, 4);
        },
      ),
    );
  });

  it('gives what comes out between and beyond its points', () => {
    const points: CurvePoint[] = [
      [4, 0],
      [10, 6],
      [20, 16],
    ];
    expect(deliveryAt(points, 15)).toBe(11);
    expect(deliveryAt(points, 30)).toBe(26);
    expect(deliveryAt(points, 2)).toBe(0);
    expect(deliveryAt([], 10)).toBe(0);
  });

  it('of a valve that snaps open lies between the last point of nothing and the first of something', () => {
    const { crack } = curve([
      [4, 0],
      [6, 0],
      [8, 8],
      [10, 10],
      [20, 20],
      [40, 40],
    ]);
    expect(crack.value).toBe(7);
    // Even within two psi: 2/√12.
    expect(crack.sd).toBeGreaterThan(0.57);
    expect(crack.sd).toBeLessThan(0.75);
  });

  // Our twin on one side: that the curve of its relay holds the crack it was given, 4 psi [trade].
  it('of the rear relay on the twin holds the crack it was described with', () => {
    const truck = { unit: unitOf('truck', '10'), towed: [] };
    const check = checksOf(truck, []).find(({ id }) => id.includes('compare/rear relay control'))!;
    const answer = doCheck(new Twin(truck, { tanksPsi: 90 }), check);
    if (answer.kind !== 'points') throw new Error('no points');
    const { crack } = curve(answer.points, true, 1);
    expect(Math.abs(crack.value - 4)).toBeLessThanOrEqual(1.96 * crack.sd);
    expect(crack.sd).toBeLessThan(0.8);
  });
});

describe('a crack pressure', () => {
  const say = (psi: number) => `${psi.toFixed(1)} psi`;
  const at = (value: number, sd: number) => judgeCrack({ crack: { value, sd } }, 4, say);

  it('passes within 1 psi of what its valve is made for, fails beyond, and cannot be told where its doubt spans the limit', () => {
    expect(at(4.2, 0.3).verdict).toBe('pass');
    expect(at(6, 0.3).verdict).toBe('fail');
    expect(at(4.9, 0.3).verdict).toBe('cant-tell');
    expect(at(4, 1.5)).toEqual({
      verdict: 'cant-tell',
      said: 'opens at 4.0 psi ± 2.9 psi, made for 4.0 psi ± 1.0 psi; two gauges compared with each other at zero and 60.0 psi, and more points under 20.0 psi would tell',
    });
  });
});
