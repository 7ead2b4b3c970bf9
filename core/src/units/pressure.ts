import type { PressureUnit } from '@keen-bleed/contract';

/** Kilopascals in one pound-force per square inch [std: NIST SP 811, value from memory]. */
export const KPA_PER_PSI = 6.894757;

/** Standard atmosphere, psi absolute, as the trade's leak arithmetic takes it. */
export const STANDARD_ATMOSPHERE_PSI = 14.7;

const perPsi: Record<PressureUnit, number> = {
  psi: 1,
  kPa: KPA_PER_PSI,
  bar: KPA_PER_PSI / 100,
};

/** Converts a gauge pressure or a pressure difference from psi to `unit`. */
export function fromPsi(psi: number, unit: PressureUnit): number {
  return psi * perPsi[unit];
}

/** Converts a gauge pressure or a pressure difference in `unit` to psi. */
export function toPsi(value: number, unit: PressureUnit): number {
  return value / perPsi[unit];
}
