/* Taken out of the global object once: a lookup there is slow in some sandboxes. */
const { abs, exp, PI, sqrt, SQRT2 } = Math;

/**
 * Standard normal distribution function Φ(z) through the error function's rational form
 * [std: Abramowitz & Stegun 7.1.26, value from memory] (error under 1.5e-7).
 */
export function normalCdf(z: number): number {
  const x = abs(z) / SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const poly =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - poly * exp(-x * x);
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

const density = (z: number) => exp((-z * z) / 2) / sqrt(2 * PI);
/** Integral of Φ from −∞ to z. */
const integral = (z: number) => z * normalCdf(z) + density(z);

/**
 * Distribution function of an even quantity within ±`halfWidth` plus a normal one: what a dial that may be off by so
 * much, read by an eye, leaves open.
 */
export function evenAndNormalCdf(x: number, halfWidth: number, standardDeviation: number): number {
  if (halfWidth < standardDeviation / 50) return normalCdf(x / standardDeviation);
  if (standardDeviation <= 0) return Math.min(1, Math.max(0, (x / halfWidth + 1) / 2));
  const s = standardDeviation;
  const sum =
    (s / (2 * halfWidth)) * (integral((x + halfWidth) / s) - integral((x - halfWidth) / s));
  return Math.min(1, Math.max(0, sum));
}
