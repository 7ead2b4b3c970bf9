import { crossingUncertaintyPsi, readingUncertaintyPsi } from '../gauge/uncertainty';
import { weightedLine } from '../statistics/weightedLine';

/** One mark of a hold. */
export interface HoldMark {
  atMs: number;
  readingPsi: number;
  resolutionPsi: number;
  method: 'read' | 'crossing';
}

/** What a hold says of the leak. */
export interface LeakRate {
  /** Positive when the pressure falls. */
  ratePsiPerMin: number;
  standardUncertaintyPsiPerMin: number;
  /** From the first mark to the last. */
  spanS: number;
  /** Mean reading over the hold, psi gauge. */
  meanPsi: number;
}

/**
 * Leak rate from all marks of a hold, by weighted least squares. A reading carries its rounding; a
 * crossing carries the thumb's scatter times the rate, so the fit is done twice: once to learn the rate.
 *
 * @param marks in any order
 * @returns null with fewer than two marks or no time between them
 */
export function leakRate(marks: readonly HoldMark[]): LeakRate | null {
  const first = marks.reduce((least, mark) => Math.min(least, mark.atMs), Infinity);
  const last = marks.reduce((most, mark) => Math.max(most, mark.atMs), -Infinity);
  const fit = (ratePsiPerS: number) =>
    weightedLine(
      marks.map((mark) => ({
        x: (mark.atMs - first) / 1000,
        y: mark.readingPsi,
        u:
          mark.method === 'crossing'
            ? crossingUncertaintyPsi(mark.resolutionPsi, ratePsiPerS)
            : readingUncertaintyPsi(mark.resolutionPsi),
      })),
    );
  const rough = fit(0);
  const line = rough && fit(Math.abs(rough.slope));
  if (!line) return null;
  return {
    // Adding zero turns the negative zero of a level hold into plain zero.
    ratePsiPerMin: -line.slope * 60 + 0,
    standardUncertaintyPsiPerMin: line.slopeUncertainty * 60,
    spanS: (last - first) / 1000,
    meanPsi: marks.reduce((sum, mark) => sum + mark.readingPsi, 0) / marks.length,
  };
}

/**
 * How long a hold with a reading at each end must be before a rate this far from its limit can be judged.
 *
 * @param gapPsiPerMin distance of the rate from the limit, psi/min
 * @param coverage standard uncertainties that must fit into the gap
 * @returns seconds; infinite for no gap
 */
export function holdNeededS(resolutionPsi: number, gapPsiPerMin: number, coverage: number): number {
  const pairPsi = Math.SQRT2 * readingUncertaintyPsi(resolutionPsi);
  return gapPsiPerMin > 0 ? (60 * coverage * pairPsi) / gapPsiPerMin : Infinity;
}
