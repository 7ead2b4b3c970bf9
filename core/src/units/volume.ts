/** Cubic inches in a cubic foot. */
export const IN3_PER_FT3 = 1728;

/** Litres in a cubic inch, from the inch of 25.4 mm. */
export const LITRES_PER_IN3 = 0.016387064;

/** Cubic inches to cubic feet. */
export function ft3FromIn3(volumeIn3: number): number {
  return volumeIn3 / IN3_PER_FT3;
}

/** Cubic inches to litres. */
export function litresFromIn3(volumeIn3: number): number {
  return volumeIn3 * LITRES_PER_IN3;
}

/** Litres to cubic inches. */
export function in3FromLitres(litres: number): number {
  return litres / LITRES_PER_IN3;
}
