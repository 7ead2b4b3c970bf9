import { readingUncertaintyPsi } from '../gauge/uncertainty';
import { USUAL_HEAT_S, type Heat } from './heat';

/** Heat that moves the needle by less than this share of the limit hides no leak. */
const HEAT_SHARE_OF_LIMIT = 0.2;
/** Longer than this nobody is made to wait, s: what heat is then left is reckoned with. */
const LONGEST_WAIT_S = 180;
/** A hold is at least a minute, as everywhere in the trade, and at most four, s. */
export const SHORTEST_HOLD_S = 60;
export const LONGEST_HOLD_S = 240;
const WHOLE_S = 15;
/**
 * So many standard uncertainties of a reading at each end must lie in the limit: then seven in ten of all rates up to
 * twice the limit are told from it, and nine in ten of those under half of it.
 */
const COVERAGE = 6.5;

/**
 * How long air must stand before a hold, from when nothing moves it any more: until heat moves the needle by less than
 * a fifth of the limit.
 *
 * @param heat what it is still to do at that moment
 * @returns seconds, in whole ones
 */
export function waitNeededS(heat: Heat, limitPsiPerMin: number): number {
  const { meanPsi, sdPsi } = heat(USUAL_HEAT_S);
  const startPsiPerMin = ((Math.abs(meanPsi) + sdPsi / 2) * 60) / USUAL_HEAT_S;
  const times = startPsiPerMin / (HEAT_SHARE_OF_LIMIT * limitPsiPerMin);
  if (times <= 1) return 0;
  return Math.min(LONGEST_WAIT_S, Math.ceil(USUAL_HEAT_S * Math.log(times)));
}

/**
 * How long a hold must be for a dial to tell a rate under half of the limit from the limit.
 *
 * @param resolutionPsi half a division
 * @returns seconds, in quarters of a minute
 */
export function holdLengthS(resolutionPsi: number, limitPsiPerMin: number): number {
  const pairPsi = Math.SQRT2 * readingUncertaintyPsi(resolutionPsi);
  const needed = (60 * COVERAGE * pairPsi) / limitPsiPerMin;
  const whole = Math.ceil(needed / WHOLE_S) * WHOLE_S;
  return Math.min(LONGEST_HOLD_S, Math.max(SHORTEST_HOLD_S, whole));
}
