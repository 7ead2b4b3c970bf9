import { studentT } from '../statistics/studentT';
import { weightedLine } from '../statistics/weightedLine';

/** One past value of a figure. */
export interface DriftPoint {
  atMs: number;
  value: number;
}

/** How a figure moves from run to run, and when it will reach its limit at that pace. */
export interface Drift {
  perDay: number;
  /** Standard uncertainty of the pace: from the scatter about the line, never less than the figures' own doubt gives. */
  perDayUncertainty: number;
  /** The value the line gives today. */
  today: number;
  /** The pace is more than scatter, 95 times in 100. */
  real: boolean;
  /**
   * Between when and when the line reaches the limit it heads for, nine times in ten; the later end is null where it
   * may be more than two years off. Null where it heads for none, or the earlier end is that far off.
   */
  crosses: { fromMs: number; toMs: number | null } | null;
  /** The limit it heads for. */
  towards: number | null;
}

const DAY_MS = 86_400_000;
/** From fewer runs no pace is told. */
const LEAST_POINTS = 6;
/** Normal quantiles: both sides of 95 in 100, and of 90. */
const REAL_Z = 1.96;
const RANGE_Z = 1.645;
/** Further ahead than this a straight line says nothing, ms. */
const FURTHEST_MS = 730 * DAY_MS;

/**
 * Straight-line drift of a figure over its past runs, by least squares, with Student's t for so few of them.
 *
 * @param points in any order; a figure that is only bounded is no point
 * @param limit the limit that applies now
 * @param nowMs when the forecast is made
 * @param doubt standard uncertainty of one figure, in its unit: scatter is never taken as less
 * @returns null with too few points to tell scatter from drift
 */
export function drift(
  points: readonly DriftPoint[],
  limit: { min: number | null; max: number | null } | null,
  nowMs: number,
  doubt: number,
): Drift | null {
  if (points.length < LEAST_POINTS) return null;
  const at = (atMs: number) => (atMs - nowMs) / DAY_MS;
  const line = weightedLine(points.map(({ atMs, value }) => ({ x: at(atMs), y: value, u: 1 })));
  if (!line) return null;
  const freedom = points.length - 2;
  const squares = points.reduce(
    (sum, { atMs, value }) => sum + (value - (line.intercept + line.slope * at(atMs))) ** 2,
    0,
  );
  const scatter = Math.max(Math.sqrt(squares / freedom), doubt);
  const perDayUncertainty = line.slopeUncertainty * scatter;
  const real = Math.abs(line.slope) > studentT(REAL_Z, freedom) * perDayUncertainty;
  const towards = line.slope > 0 ? (limit?.max ?? null) : (limit?.min ?? null);
  const reach = studentT(RANGE_Z, freedom) * perDayUncertainty;
  // The line turns about the middle of its points: a pace that is off is off from there.
  const middle = points.reduce((sum, { atMs }) => sum + at(atMs), 0) / points.length;
  const there = line.intercept + line.slope * middle;
  const crossing = (slope: number): number | null => {
    if (towards === null || slope * line.slope <= 0) return null;
    const inMs = (middle + (towards - there) / slope) * DAY_MS;
    return inMs <= FURTHEST_MS ? nowMs + Math.max(0, inMs) : null;
  };
  const sign = Math.sign(line.slope);
  const fromMs = real ? crossing(line.slope + sign * reach) : null;
  return {
    perDay: line.slope,
    perDayUncertainty,
    today: line.intercept,
    real,
    crosses: fromMs === null ? null : { fromMs, toMs: crossing(line.slope - sign * reach) },
    towards,
  };
}
