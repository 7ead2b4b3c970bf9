import type { GaugeRole } from '@keen-bleed/contract';

/**
 * How far a careful eye is off beyond rounding, as a share of the half division (standard deviation):
 * parallax and a needle that trembles. House value.
 */
export const EYE_SHARE_OF_HALF_DIVISION = 0.25;

/** How well the passing of a line is seen, as a share of the half division (standard deviation). House value. */
export const LINE_SHARE_OF_HALF_DIVISION = 0.2;

/** Scatter of a thumb's reaction, s (standard deviation); its constant part cancels in a difference. House value. */
export const REACTION_S = 0.2;

/**
 * A dash gauge must be right within ±7 % of cut-out [std: 49 CFR 571.121 S5.1.4, value from memory]. Nearly
 * all gauges in use are inside that, so it is taken as three standard deviations.
 */
export const DASH_GAUGE_SHARE = 0.07 / 3;

/** The same for a master gauge of the ±1 % kind. House value. */
export const MASTER_GAUGE_SHARE = 0.01 / 3;

/** Standard uncertainty of one reading to `resolutionPsi`: even rounding, and the eye, in psi. */
export function readingUncertaintyPsi(resolutionPsi: number): number {
  return Math.hypot(resolutionPsi / Math.sqrt(12), EYE_SHARE_OF_HALF_DIVISION * resolutionPsi);
}

/** Standard uncertainty, psi, of where the needle stood when a line was tapped, at a given rate. */
export function crossingUncertaintyPsi(resolutionPsi: number, ratePsiPerS: number): number {
  return Math.hypot(LINE_SHARE_OF_HALF_DIVISION * resolutionPsi, REACTION_S * ratePsiPerS);
}

/** The gauge's own share of error: a standard deviation relative to the pressure of cut-out. */
export function gaugeShare(gauge: GaugeRole): number {
  return gauge === 'master' ? MASTER_GAUGE_SHARE : DASH_GAUGE_SHARE;
}

/** Standard uncertainty, psi, of a level: one reading, and the gauge it was read from. */
export function levelUncertaintyPsi(
  resolutionPsi: number,
  gauge: GaugeRole,
  cutOutPsi: number,
): number {
  return Math.hypot(readingUncertaintyPsi(resolutionPsi), gaugeShare(gauge) * cutOutPsi);
}
