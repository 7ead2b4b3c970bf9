import type { LimitUsed } from '@keen-bleed/contract';
import { chanceWithin } from '../statistics/normal';

/** How sure a verdict must be, as a probability. */
export const SURE = 0.95;
/**
 * How sure a verdict on a pressure must be: it hangs on one or two readings whose doubt is wide beside its window, so
 * that most of what is told lies near the edge, where {@link SURE} would be wrong too often. House value.
 */
export const SURE_OF_PRESSURE = 0.97;
/**
 * The same for a difference of two pressures: either reading may be a slip, and a difference that is really out of its
 * window is rare beside one that was read wrong. House value.
 */
export const SURE_OF_DIFFERENCE = 0.99;
/** Standard uncertainties that one-sided sureness of {@link SURE} asks for: Φ⁻¹(0.95). */
export const SURE_COVERAGE = 1.645;

/** A figure held against its limit, both ways. */
export interface Judgement {
  /** What an inspector would write: the number alone against the limit. */
  asRead: 'pass' | 'fail';
  /** What the number's doubt leaves of it. */
  verdict: 'pass' | 'fail' | 'cant-tell';
  /** Chance that the true figure lies within the limit. */
  within: number;
}

/**
 * Judges a figure by its limit. Pass where the chance of lying within it is at least `sure`, fail where
 * it is at most 1 − `sure`, can't tell in between. A figure on the limit is within it.
 */
export function judge(
  value: number,
  standardUncertainty: number,
  limit: Pick<LimitUsed, 'min' | 'max'>,
  sure = SURE,
): Judgement {
  return judgeBy(
    value,
    chanceWithin(value, standardUncertainty, limit.min, limit.max),
    limit,
    sure,
  );
}

/** The same where the number as read and the chance of lying within the limit are known apart. */
export function judgeBy(
  read: number,
  within: number,
  limit: Pick<LimitUsed, 'min' | 'max'>,
  sure = SURE,
): Judgement {
  const asRead =
    (limit.min === null || read >= limit.min) && (limit.max === null || read <= limit.max)
      ? 'pass'
      : 'fail';
  const verdict = within >= sure ? 'pass' : within <= 1 - sure ? 'fail' : 'cant-tell';
  return { asRead, verdict, within };
}
