import type { GaugeRole } from '@keen-bleed/contract';

/**
 * How far a reading is off beyond its rounding, as a share of the half division (standard deviation): the eye's
 * parallax, and a needle that sticks until it is pushed. With the rounding a 2-psi dial is good to about 0.8 psi.
 * House value.
 */
export const EYE_SHARE_OF_HALF_DIVISION = 0.75;

/** How well the passing of a line is seen, as a share of the half division (standard deviation). House value. */
export const LINE_SHARE_OF_HALF_DIVISION = 0.6;

/** Scatter of a thumb's reaction, s (standard deviation); its constant part cancels in a difference. House value. */
export const REACTION_S = 0.2;

/** How late a thumb comes on average, s. House value. */
export const LATE_S = 0.4;

/** One reading in so many is a slip: another number on the dial. House values: how often, and how far off, half divisions. */
export const SLIP_CHANCE = 0.02;
export const SLIP_HALF_DIVISIONS = 6;

/** A dash gauge must be right within this share of cut-out [std: 49 CFR 571.121 S5.1.4, value from memory]. */
export const DASH_GAUGE_SHARE = 0.07;

/** The same for a master gauge of the ±1 % kind. House value. */
export const MASTER_GAUGE_SHARE = 0.01;

/**
 * How far a gauge's scale is too wide or too narrow: what a difference of two readings is off by, as a share of it
 * (standard deviation). House values.
 */
const DASH_SLOPE_SHARE = 0.06;
const MASTER_SLOPE_SHARE = 0.01;

/** Standard uncertainty of one reading to `resolutionPsi`: even rounding, and the eye, in psi. */
export function readingUncertaintyPsi(resolutionPsi: number): number {
  return Math.hypot(resolutionPsi / Math.sqrt(12), EYE_SHARE_OF_HALF_DIVISION * resolutionPsi);
}

/** Standard uncertainty, psi, of where the needle stood when a line was tapped, at a given rate. */
export function crossingUncertaintyPsi(resolutionPsi: number, ratePsiPerS: number): number {
  return Math.hypot(LINE_SHARE_OF_HALF_DIVISION * resolutionPsi, REACTION_S * ratePsiPerS);
}

/** A master gauge, or a made-up gauge set, which shows what it is given. */
export const isTrueGauge = (gauge: GaugeRole): boolean =>
  gauge === 'master' || gauge === 'simulated';

/** What a gauge's level may be off by at most, as a share of cut-out: evenly, anything within it is as likely. */
export function gaugeShare(gauge: GaugeRole): number {
  return isTrueGauge(gauge) ? MASTER_GAUGE_SHARE : DASH_GAUGE_SHARE;
}

/** What a difference read from a gauge is off by, as a share of it (standard deviation). */
export function slopeShare(gauge: GaugeRole): number {
  return isTrueGauge(gauge) ? MASTER_SLOPE_SHARE : DASH_SLOPE_SHARE;
}
