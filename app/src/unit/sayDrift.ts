import type { PressureUnit } from '@keen-bleed/contract';
import { drift, fromPsi } from '@keen-bleed/core';
import { sayMonth } from '../data/when';
import type { Trend } from './trendsOf';

/** Runs a drift is taken from: the newest, as a repair ends an old story. */
const NEWEST = 10;

/** What one figure of a run is usually good to (standard deviation), psi, psi/min, s and so on. House values. */
const USUAL_DOUBT: Readonly<Record<Trend['figureUnit'], number>> = {
  psi: 1,
  'psi/min': 0.3,
  'psi/s': 0.03,
  s: 1.5,
  scfm: 0.3,
  '%': 2,
  ft: 1,
  mph: 0.5,
};

/** One sentence on where a figure is heading, or null where it is steady or too little is known. */
export function sayDrift(trend: Trend, unit: PressureUnit, nowMs: number): string | null {
  const points = trend.points.filter((point) => !point.isBound).slice(-NEWEST);
  const usual = USUAL_DOUBT[trend.figureUnit];
  const doubt = trend.figureUnit.startsWith('psi') ? fromPsi(usual, unit) : usual;
  const found = drift(points, trend, nowMs, doubt);
  if (!found?.crosses || found.towards === null) return null;
  const over =
    (trend.max !== null && found.today > trend.max) ||
    (trend.min !== null && found.today < trend.min);
  if (over) return 'Past its limit, at the pace of the last runs.';
  const { fromMs, toMs } = found.crosses;
  const from = sayMonth(fromMs);
  if (toMs === null) return `At this pace it reaches its limit in ${from} or later.`;
  const to = sayMonth(toMs);
  return from === to
    ? `At this pace it reaches its limit in ${from}.`
    : `At this pace it reaches its limit between ${from} and ${to}.`;
}
