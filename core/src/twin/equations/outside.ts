/**
 * Outside pressure by height, after the standard atmosphere's lowest layer:
 * p = 101,325·(1 − 2.25577·10⁻⁵·h)^5.2559 [std: ISO 2533, value from memory].
 *
 * @param heightM metres over the sea
 * @returns Pa
 */
export function outsidePaAt(heightM: number): number {
  return 101_325 * (1 - 2.25577e-5 * heightM) ** 5.2559;
}
