/** A bubble of one inch across, cubic feet: π/6 of a cubic inch [calc]. */
const BUBBLE_FT3 = Math.PI / 6 / 1728;
/** An exhaust may blow a bubble of an inch in not less than this, s [trade, from memory]. */
export const BUBBLE_LEAST_S = 5;
/** Nobody waits longer for one, s: none by then is none. */
export const BUBBLE_WAIT_S = 60;

/** What blows a bubble of an inch in so many seconds, scfm: about 0.004 in five [calc]. */
export const bubbleScfm = (seconds: number): number => (BUBBLE_FT3 / Math.max(0.2, seconds)) * 60;

/** How long an exhaust takes to blow a bubble of an inch, s; `BUBBLE_WAIT_S` where it blows none. */
export const bubbleSeconds = (scfm: number): number =>
  scfm <= 0 ? BUBBLE_WAIT_S : Math.min(BUBBLE_WAIT_S, (BUBBLE_FT3 * 60) / scfm);
