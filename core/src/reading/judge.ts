import type { LimitUsed } from '@keen-bleed/contract';
import { chanceWithin } from '../statistics/normal';

/** How sure a verdict must be, as a probability. */
export const SURE = 0.95;
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
 * Judges a figure by its limit. Pass where the chance of lying within it is at least {@link SURE}, fail
 * where it is at most 1 − {@link SURE}, can't tell in between. A figure on the limit is within it.
 */
export function judge(
  value: number,
  standardUncertainty: number,
  limit: Pick<LimitUsed, 'min' | 'max'>,
): Judgement {
  return judgeBy(value, chanceWithin(value, standardUncertainty, limit.min, limit.max), limit);
}

/** The same where the number as read and the chance of lying within the limit are known apart. */
export function judgeBy(
  read: number,
  within: number,
  limit: Pick<LimitUsed, 'min' | 'max'>,
): Judgement {
  const asRead =
    (limit.min === null || read >= limit.min) && (limit.max === null || read <= limit.max)
      ? 'pass'
      : 'fail';
  const verdict = within >= SURE ? 'pass' : within <= 1 - SURE ? 'fail' : 'cant-tell';
  return { asRead, verdict, within };
}
