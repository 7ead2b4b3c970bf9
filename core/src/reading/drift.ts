import { weightedLine } from '../statistics/weightedLine';

/** One past value of a figure. */
export interface DriftPoint {
  atMs: number;
  value: number;
}

/** How a figure moves from run to run, and when it will reach its limit at that pace. */
export interface Drift {
  perDay: number;
  /** Standard uncertainty of the pace, from the scatter about the line. */
  perDayUncertainty: number;
  /** The value the line gives today. */
  today: number;
  /** The pace is more than scatter. */
  real: boolean;
  /** When the line reaches the limit it heads for; null where it heads for none, or not within two years. */
  crossesAtMs: number | null;
  /** The limit it heads for. */
  towards: number | null;
}

const DAY_MS = 86_400_000;
const LEAST_POINTS = 4;
/** Standard uncertainties from zero at which a pace counts as more than scatter. */
const REAL_COVERAGE = 2;
/** Further ahead than this a straight line says nothing, ms. */
const FURTHEST_MS = 730 * DAY_MS;

/**
 * Straight-line drift of a figure over its past runs, by least squares with the scatter about the line as the
 * uncertainty.
 *
 * @param points in any order
 * @param limit the limit that applies now
 * @param nowMs when the forecast is made
 * @returns null with too few points to tell scatter from drift
 */
export function drift(
  points: readonly DriftPoint[],
  limit: { min: number | null; max: number | null } | null,
  nowMs: number,
): Drift | null {
  if (points.length < LEAST_POINTS) return null;
  const line = weightedLine(
    points.map(({ atMs, value }) => ({ x: (atMs - nowMs) / DAY_MS, y: value, u: 1 })),
  );
  if (!line) return null;
  const squares = points.reduce((sum, { atMs, value }) => {
    const off = value - (line.intercept + (line.slope * (atMs - nowMs)) / DAY_MS);
    return sum + off * off;
  }, 0);
  const scatter = Math.sqrt(squares / (points.length - 2));
  const perDayUncertainty = line.slopeUncertainty * scatter;
  const real = Math.abs(line.slope) > REAL_COVERAGE * perDayUncertainty;
  const towards = line.slope > 0 ? (limit?.max ?? null) : (limit?.min ?? null);
  let crossesAtMs: number | null = null;
  if (real && towards !== null) {
    const inMs = ((towards - line.intercept) / line.slope) * DAY_MS;
    if (inMs <= FURTHEST_MS) crossesAtMs = nowMs + Math.max(0, inMs);
  }
  return {
    perDay: line.slope,
    perDayUncertainty,
    today: line.intercept,
    real,
    crossesAtMs,
    towards,
  };
}
