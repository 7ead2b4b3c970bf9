/**
 * Standard normal distribution function Φ(z) through the error function's rational form
 * [std: Abramowitz & Stegun 7.1.26, value from memory] (error under 1.5e-7).
 */
export function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const poly =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - poly * Math.exp(-x * x);
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

/**
 * Chance that a normal quantity lies between two bounds.
 *
 * @param min lower bound, or null for none
 * @param max upper bound, or null for none
 */
export function chanceWithin(
  value: number,
  standardUncertainty: number,
  min: number | null,
  max: number | null,
): number {
  if (standardUncertainty <= 0) {
    return (min === null || value >= min) && (max === null || value <= max) ? 1 : 0;
  }
  const above = max === null ? 1 : normalCdf((max - value) / standardUncertainty);
  const below = min === null ? 0 : normalCdf((min - value) / standardUncertainty);
  return Math.min(1, Math.max(0, above - below));
}
