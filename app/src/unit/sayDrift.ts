import { drift } from '@keen-bleed/core';
import { sayDay } from '../data/when';
import type { Trend } from './trendsOf';

/** Runs a drift is taken from: the newest, as a repair ends an old story. */
const NEWEST = 8;

/** One sentence on where a figure is heading, or null where it is steady or too little is known. */
export function sayDrift(trend: Trend, nowMs: number): string | null {
  const points = trend.points.slice(-NEWEST).map(({ atMs, value }) => ({ atMs, value }));
  const found = drift(points, trend, nowMs);
  if (!found?.crossesAtMs || found.towards === null) return null;
  const over =
    (trend.max !== null && found.today > trend.max) ||
    (trend.min !== null && found.today < trend.min);
  if (over) return 'Past its limit, at the pace of the last runs.';
  return `At this pace it reaches its limit about ${sayDay(found.crossesAtMs)}.`;
}
