import { Matrix, solve } from 'ml-matrix';
import type { Sure } from './sure';

/** What was read at two ports at once, psi. */
export type CurvePoint = readonly [inPsi: number, outPsi: number];

/** How the two gauges were read. */
export interface CurveReading {
  /** From line to line of the dials, psi: they are read to half of it. */
  divisionPsi: number;
  /** The two gauges were compared with each other at zero and at 60 psi, and their difference put right. */
  compared: boolean;
}

/** What a valve does with what it is asked for. */
export interface Curve {
  /** The pressure asked for at which it begins to pass air, psi. */
  crack: Sure;
  /** What comes out more for each psi more that goes in. */
  gain: Sure;
  /** How much more stands at the outlet going down than going up, psi; null where nothing was read going down. */
  hysteresis: Sure | null;
  /** What is left at the outlet once nothing is asked for any more, psi; null where that was not read. */
  residualPsi: number | null;
  /** Where one point more would tell the crack, psi; null where the points around it are near enough. */
  wantsPsi: number | null;
  /** Points that do not go with the others, by their place: read again. */
  odd: readonly number[];
}

/** Why a curve cannot be had of some points, in words. */
export interface NoCurve {
  wants: string;
}

/** Points on either side of the crack further apart than this leave it open, psi. House value. */
const WIDEST_PSI = 6;

/**
 * Where one point more is wanted: between the last pressure at which nothing came out and the first at which something
 * did, where these lie so far apart that a valve which snaps could open anywhere between them.
 *
 * @returns psi, or null where the points are near enough
 */
function wantsBetween(
  points: readonly CurvePoint[],
  up: readonly number[],
  rising: readonly number[],
): number | null {
  const first = Math.min(...rising.map((n) => points[n]![0]));
  const silent = up.flatMap((n) => (rising.includes(n) ? [] : [points[n]![0]]));
  const last = Math.max(0, ...silent.filter((at) => at < first));
  return first - last > WIDEST_PSI ? Math.round((first + last) / 2) : null;
}

/** It passes air from so much at its outlet on, psi. */
const PASSES_PSI = 1;
/** A valve that balances a piston gives out what it is asked for beyond its crack: to this share [common practice, no source]. */
const GAIN_SD = 0.02;
/** Two gauges that were never compared differ by this, and two that were by that; psi, one standard deviation. */
const NOT_COMPARED_PSI = 1.4;
const COMPARED_PSI = 0.15;
/** Readings stray this far before they count for less: Huber's constant for 95 % efficiency on the normal law. */
const HUBER = 1.345;
/** A point this many deviations off the curve is to be read again. */
const ODD_AT = 3.5;
const ROUNDS = 12;
/** Nothing is asked for under this, psi. */
const NOTHING_PSI = 1;

/** Points in the order they were read: those up to the highest asked for, and those after it. */
export function sweepsOf(points: readonly CurvePoint[]): {
  up: readonly number[];
  down: readonly number[];
} {
  const most = Math.max(...points.map(([inPsi]) => inPsi));
  const top = points.findIndex(([inPsi]) => inPsi === most);
  return {
    up: points.flatMap((_, n) => (n <= top ? [n] : [])),
    down: points.flatMap((_, n) => (n > top ? [n] : [])),
  };
}

/** The points of the way up alone; all of them, where they were written down from the highest. */
export function climbing(points: readonly CurvePoint[]): CurvePoint[] {
  const up = sweepsOf(points).up.map((n) => points[n]!);
  return up.length > 1 ? up : [...points];
}

/**
 * Crack pressure, gain and hysteresis of a valve from what was read at its control and its delivery.
 *
 * The outlet follows `gain × (in − crack)` going up (a balanced piston held shut by a spring) and stands higher by the hysteresis going down. The gain is held near
 * one, as of a valve that balances a piston: extrapolating a free slope down to the crack would double its doubt. A valve
 * that snaps open and then gives all it is asked for has no such line: its crack lies between the last point at which
 * nothing came out and the first at which something did. Points that stray count for less (Huber's weights, by reweighted least squares), and are named.
 *
 * @param points psi, in the order they were read: up, then down
 * @param gainSd how near one the gain is held, one standard deviation: a valve that scales has none near one
 * @returns the curve, or what it still wants
 */
export function curveOf(
  points: readonly CurvePoint[],
  { divisionPsi, compared }: CurveReading,
  gainSd = GAIN_SD,
): Curve | NoCurve {
  if (points.length < 3)
    return { wants: 'Three points at least, the more under 20 psi the better.' };
  const { up, down } = sweepsOf(points);
  const passes = (n: number) => points[n]![1] >= PASSES_PSI;
  const rising = up.filter(passes);
  const falling = down.filter(passes);
  if (rising.length < 2) {
    return { wants: 'Two points at least on the way up at which something comes out.' };
  }
  const used = [...rising, ...falling];
  const hasDown = falling.length > 0;
  // Two readings, each even within its half division.
  const readSd = Math.max(0.2, (Math.SQRT2 * divisionPsi) / 2 / Math.sqrt(12));
  const design = new Matrix(
    used.map((n) => [points[n]![0], 1, ...(hasDown ? [falling.includes(n) ? 1 : 0] : [])]),
  );
  const seen = used.map((n) => points[n]![1]);
  let weights = used.map(() => 1);
  let fit: number[] = [];
  let normal = Matrix.zeros(design.columns, design.columns);
  let spread = readSd;
  for (let round = 0; round < ROUNDS; round += 1) {
    ({ fit, normal } = solved(design, seen, weights, spread, gainSd));
    const off = residuals(design, seen, fit);
    // The median of absolute residuals, made to be a standard deviation on the normal law.
    const middle = [...off].map(Math.abs).sort((a, b) => a - b)[Math.floor(off.length / 2)] ?? 0;
    spread = Math.max(readSd, 1.4826 * middle);
    weights = off.map((each) => Math.min(1, (HUBER * spread) / Math.max(1e-9, Math.abs(each))));
  }
  const covariance = solve(normal, Matrix.eye(design.columns));
  const [gain = 1, at = 0, more = 0] = fit;
  const crack = -at / gain;
  // By the derivatives of −at/gain.
  const byGain = at / gain ** 2;
  const byAt = -1 / gain;
  const variance =
    byGain ** 2 * covariance.get(0, 0) +
    byAt ** 2 * covariance.get(1, 1) +
    2 * byGain * byAt * covariance.get(0, 1);
  const off = residuals(design, seen, fit);
  const byLine = { value: Math.max(0, crack), sd: Math.sqrt(Math.max(0, variance)) };
  const opened = openingAt(points, rising, fit) ?? opensBetween(points, up, rising, byLine, readSd);
  const last = points.at(-1)!;
  return {
    crack: {
      value: opened.value,
      sd: Math.hypot(opened.sd, compared ? COMPARED_PSI : NOT_COMPARED_PSI),
    },
    gain: { value: gain, sd: Math.sqrt(covariance.get(0, 0)) },
    hysteresis: hasDown ? { value: more, sd: Math.sqrt(covariance.get(2, 2)) } : null,
    residualPsi: down.length > 0 && last[0] < NOTHING_PSI ? last[1] : null,
    wantsPsi: wantsBetween(points, up, rising),
    odd: used.filter((_, row) => Math.abs(off[row]!) > ODD_AT * spread).sort((a, b) => a - b),
  };
}

/** So far under its line, psi and as a share of it, a first point is a valve that is only just open. */
const JUST_OPEN_PSI = 1.5;
const JUST_OPEN_SHARE = 0.5;

/** A valve that snaps was caught as it opened: it passes air, and far less than it will. Null where it was not. */
function openingAt(
  points: readonly CurvePoint[],
  rising: readonly number[],
  [gain = 1, at = 0]: readonly number[],
): Sure | null {
  const first = rising.reduce((least, n) => (points[n]![0] < points[least]![0] ? n : least));
  const [inPsi, out] = points[first]!;
  const line = gain * inPsi + at;
  if (line - out < JUST_OPEN_PSI || out > JUST_OPEN_SHARE * line) return null;
  return { value: inPsi - 0.5, sd: 0.5 };
}

/** The crack by the line, where that lies between the points on either side of it; otherwise what they leave open. */
function opensBetween(
  points: readonly CurvePoint[],
  up: readonly number[],
  rising: readonly number[],
  byLine: Sure,
  readSd: number,
): Sure {
  const first = Math.min(...rising.map((n) => points[n]![0]));
  const silent = up.filter((n) => !rising.includes(n) && points[n]![0] < first);
  const last = silent.length > 0 ? Math.max(...silent.map((n) => points[n]![0])) : null;
  const slack = 2 * readSd;
  if (last === null) return byLine;
  if (byLine.value > last - slack && byLine.value < first + slack) {
    // It lies between the two all the same, but for how they were read.
    const value = Math.min(Math.max(byLine.value, last - readSd / 2), first + readSd / 2);
    return { ...byLine, value };
  }
  return { value: (last + first) / 2, sd: Math.hypot((first - last) / Math.sqrt(12), readSd / 2) };
}

/** Weighted least squares with the gain held near one. */
function solved(
  design: Matrix,
  seen: readonly number[],
  weights: readonly number[],
  spread: number,
  gainSd: number,
): { fit: number[]; normal: Matrix } {
  const size = design.columns;
  const normal = Matrix.zeros(size, size);
  const right = Matrix.zeros(size, 1);
  seen.forEach((out, row) => {
    const weight = weights[row]! / spread ** 2;
    for (let a = 0; a < size; a += 1) {
      right.set(a, 0, right.get(a, 0) + weight * design.get(row, a) * out);
      for (let b = 0; b < size; b += 1) {
        normal.set(a, b, normal.get(a, b) + weight * design.get(row, a) * design.get(row, b));
      }
    }
  });
  normal.set(0, 0, normal.get(0, 0) + 1 / gainSd ** 2);
  right.set(0, 0, right.get(0, 0) + 1 / gainSd ** 2);
  return { fit: solve(normal, right).to1DArray(), normal };
}

const residuals = (design: Matrix, seen: readonly number[], fit: readonly number[]): number[] =>
  seen.map(
    (out, row) => out - fit.reduce((sum, each, column) => sum + each * design.get(row, column), 0),
  );

/** What comes out at a pressure asked for, by points going up: between two as the line runs, beyond the last by one for one. */
export function deliveryAt(points: readonly CurvePoint[], inPsi: number): number {
  const sorted = [...climbing(points)].sort(([a], [b]) => a - b);
  const above = sorted.findIndex(([at]) => at >= inPsi);
  const [high] = sorted.slice(above < 0 ? sorted.length : above);
  const low = above < 0 ? sorted.at(-1) : sorted[above - 1];
  if (!low) return high?.[1] ?? 0;
  if (!high) return low[1] > 0 ? low[1] + inPsi - low[0] : 0;
  const share = (inPsi - low[0]) / Math.max(1e-9, high[0] - low[0]);
  return low[1] + share * (high[1] - low[1]);
}

/** A replacement, and a valve in order, crack within this of what they are made for, psi [trade]. */
export const CRACK_WITHIN_PSI = 1;

/** What a crack pressure comes to against what the valve is made for. */
export interface CrackVerdict {
  verdict: 'pass' | 'fail' | 'cant-tell';
  said: string;
}

/**
 * Judges a crack pressure against its valve's own figure: within 1 psi [trade]. It can be told only where 95 in 100 of
 * what it may be lie on one side of the limit.
 *
 * @param statedPsi what the valve is made for
 * @param sayPsi how a pressure is said
 * @param compared the two gauges were compared with each other
 */
export function judgeCrack(
  { crack }: Pick<Curve, 'crack'>,
  statedPsi: number,
  sayPsi: (psi: number) => string,
  compared = false,
): CrackVerdict {
  const off = Math.abs(crack.value - statedPsi);
  const doubt = 1.96 * crack.sd;
  const numbers = `opens at ${sayPsi(crack.value)} ± ${sayPsi(doubt)}, made for ${sayPsi(statedPsi)} ± ${sayPsi(CRACK_WITHIN_PSI)}`;
  if (off + doubt <= CRACK_WITHIN_PSI) return { verdict: 'pass', said: numbers };
  if (off - doubt > CRACK_WITHIN_PSI) return { verdict: 'fail', said: numbers };
  return {
    verdict: 'cant-tell',
    said: `${numbers}; ${compared ? 'more points' : `two gauges compared with each other at zero and ${sayPsi(60)}, and more points`} under ${sayPsi(20)} would tell`,
  };
}
