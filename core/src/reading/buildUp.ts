import type { GaugeRole } from '@keen-bleed/contract';
import { LINE_SHARE_OF_HALF_DIVISION, REACTION_S, slopeShare } from '../gauge/uncertainty';

/** Quicker than any vehicle's compressor fills its tanks; marks that say so were not both meant. House value. */
export const FASTEST_CLIMB_PSI_PER_S = 5;

/** A needle seen to pass a level on the way up. */
export interface ClimbMark {
  atMs: number;
  readingPsi: number;
  resolutionPsi: number;
}

/** What a climb between two levels says. */
export interface BuildUp {
  /** Time for the span the limit speaks of, scaled from the span that was marked. */
  timeS: number;
  standardUncertaintyS: number;
  ratePsiPerS: number;
}

/**
 * Build-up from two passings. A dial on which the wanted levels cannot be read is marked as near as it can be,
 * and the time is scaled to the wanted span, since the climb is straight over so short a way.
 *
 * @param spanPsi the span the limit speaks of, such as 15 for 85 to 100 psi
 * @returns null where the marks do not climb
 */
export function buildUp(
  from: ClimbMark,
  to: ClimbMark,
  spanPsi: number,
  gauge: GaugeRole,
): BuildUp | null {
  const elapsedS = (to.atMs - from.atMs) / 1000;
  const climbedPsi = to.readingPsi - from.readingPsi;
  if (elapsedS <= 0 || climbedPsi <= 0) return null;
  const ratePsiPerS = climbedPsi / elapsedS;
  const timeS = spanPsi / ratePsiPerS;
  const placeS = (LINE_SHARE_OF_HALF_DIVISION * from.resolutionPsi) / ratePsiPerS;
  const onePassS = Math.hypot(REACTION_S, placeS);
  return {
    timeS,
    standardUncertaintyS: Math.hypot(Math.SQRT2 * onePassS, slopeShare(gauge) * timeS),
    ratePsiPerS,
  };
}
