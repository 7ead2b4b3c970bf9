/**
 * Force of air on a piston or diaphragm: F = p·A.
 *
 * @param pressurePsi gauge pressure, psi
 * @param areaIn2 effective area, in²
 * @returns pounds-force
 */
export function forceLbf(pressurePsi: number, areaIn2: number): number {
  return pressurePsi * areaIn2;
}

/** Area of a round piston, in², from its diameter in inches. */
export function pistonAreaIn2(diameterIn: number): number {
  return (Math.PI / 4) * diameterIn ** 2;
}
