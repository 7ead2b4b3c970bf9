import { segmentsOf, type SegmentKind, type Trace } from './segments';

/**
 * A curve of straight pieces, each so many seconds long at so many psi/s, recorded ten times a second: what is found
 * in it is told by its own arithmetic, on either side of every bound.
 */
function pieces(startPsi: number, ...of: [seconds: number, psiPerS: number][]): Trace {
  const psi = [startPsi];
  for (const [seconds, psiPerS] of of) {
    for (let n = 0; n < seconds * 10; n += 1) psi.push((psi.at(-1) ?? 0) + psiPerS / 10);
  }
  return {
    seconds: Float64Array.from(psi, (_, n) => n / 10),
    psi: Float64Array.from(psi),
  };
}

const kinds = (trace: Trace, kind: SegmentKind) =>
  segmentsOf(trace).filter((each) => each.kind === kind);

/** The same without what was read between two moments. */
function without({ seconds, psi }: Trace, fromS: number, toS: number): Trace {
  const keep = [...seconds.keys()].filter((n) => seconds[n]! <= fromS || seconds[n]! >= toS);
  return {
    seconds: Float64Array.from(keep, (n) => seconds[n]!),
    psi: Float64Array.from(keep, (n) => psi[n]!),
  };
}

describe('a stretch of a curve', () => {
  it('without readings is a gap after three seconds, and not after two', () => {
    const level = pieces(100, [60, 0]);
    expect(kinds(without(level, 20, 22), 'gap')).toEqual([]);
    expect(kinds(without(level, 20, 24), 'gap')).toHaveLength(1);
  });

  it('is a build-up from slow climbs on, long and high enough', () => {
    const climbs = (seconds: number, psiPerS: number) =>
      kinds(pieces(60, [30, 0], [seconds, psiPerS], [30, 0]), 'build-up');
    expect(climbs(150, 0.08)).toHaveLength(1);
    expect(climbs(150, 0.04)).toEqual([]);
    expect(climbs(10, 1)).toHaveLength(1);
    expect(climbs(30, 0.1)).toEqual([]);
    expect(climbs(70, 0.1)).toHaveLength(1);
    const [climb] = climbs(100, 0.3);
    expect(climb?.slopePsiPerS).toBeCloseTo(0.3, 1);
    expect(climb?.fromS).toBeGreaterThan(24);
    expect(climb?.fromS).toBeLessThan(34);
    expect(climb?.toS).toBeGreaterThan(126);
    expect(climb?.toS).toBeLessThan(136);
  });

  it('is a hold where the needle hardly falls for as long as tells something', () => {
    const held = (seconds: number, psiPerS: number) =>
      kinds(pieces(110, [30, 1], [seconds, psiPerS], [30, -1]), 'hold');
    expect(held(120, -0.08)).toHaveLength(1);
    expect(held(120, -0.2)).toEqual([]);
    expect(held(120, 0.08)).toHaveLength(1);
    expect(held(65, 0)).toHaveLength(1);
    expect(held(40, 0)).toEqual([]);
    const [hold] = held(120, -0.08);
    expect(hold?.slopePsiPerS).toBeCloseTo(-0.08, 2);
    expect(hold?.residualPsi).toBeLessThan(0.01);
    expect(hold?.fromS).toBeGreaterThanOrEqual(30);
    expect(hold?.toS).toBeLessThanOrEqual(150);
  });

  it('is an application where a pedal takes three psi at once, and not where a leak takes it slowly', () => {
    const fallsBy = (psi: number, inS: number) =>
      kinds(pieces(110, [30, 0], [inS, -psi / inS], [30, 0]), 'application');
    expect(fallsBy(3, 1)).toHaveLength(1);
    expect(fallsBy(2, 1)).toEqual([]);
    expect(fallsBy(3, 4)).toEqual([]);
  });

  it('is the fanning down from over the warning to under the pop-out alone', () => {
    const fans = (fromPsi: number, toPsi: number) =>
      kinds(pieces(fromPsi, [10, 0], [100, (toPsi - fromPsi) / 100], [10, 0]), 'fall');
    expect(fans(80, 18)).toHaveLength(1);
    expect(fans(72, 10)).toEqual([]);
    expect(fans(100, 25)).toEqual([]);
  });
});

describe('a moment of a curve', () => {
  it('is a cut-out at the top of a climb over 80 psi that ends', () => {
    const tops = (fromPsi: number, ...after: [number, number][]) =>
      kinds(pieces(fromPsi, [30, 0], [50, 0.5], ...after), 'cut-out');
    expect(tops(98, [40, 0])).toHaveLength(1);
    expect(tops(98, [40, 0])[0]?.fromPsi).toBeCloseTo(123, 0);
    expect(tops(50, [40, 0])).toEqual([]);
    // A climb that the recording breaks off is not at its top.
    expect(tops(98)).toEqual([]);
  });

  it('is a cut-in at the foot of a climb that had fallen there within the minute', () => {
    const feet = (waitS: number, footPsi = 100) =>
      kinds(pieces(footPsi + 20, [30, 0], [10, -2], [waitS, 0], [40, 0.5], [30, 0]), 'cut-in');
    expect(feet(40)).toHaveLength(1);
    expect(feet(40)[0]?.fromPsi).toBeCloseTo(100, 0);
    expect(feet(90)).toEqual([]);
    expect(feet(40, 60)).toEqual([]);
    const climbsAlone = pieces(100, [40, 0], [40, 0.5], [30, 0]);
    expect(kinds(climbsAlone, 'cut-in')).toEqual([]);
  });
});
