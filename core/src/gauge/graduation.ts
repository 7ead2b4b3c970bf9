import type { Gauge } from '@keen-bleed/contract';
import { fromPsi, toPsi } from '../units/pressure';

/** A needle is read to half a division; this is what one such half is worth in psi. */
export function halfDivisionPsi(gauge: Gauge): number {
  return toPsi(gauge.division, gauge.unit) / 2;
}

/** The reading nearest to `psi` that the dial can show to half a division. */
export function nearestReadingPsi(psi: number, gauge: Gauge): number {
  const halves = Math.round((fromPsi(psi, gauge.unit) * 2) / gauge.division);
  return onScale((halves * gauge.division) / 2, gauge);
}

/** The line of the dial nearest to `psi`. */
export function nearestLinePsi(psi: number, gauge: Gauge): number {
  const lines = Math.round(fromPsi(psi, gauge.unit) / gauge.division);
  return onScale(lines * gauge.division, gauge);
}

/** The first line of the dial strictly under `psi`, or null under the lowest. */
export function lineBelowPsi(psi: number, gauge: Gauge): number | null {
  // A reading on the line counts as the line; the small slack takes up the rounding of the conversion.
  const lines = Math.ceil(fromPsi(psi, gauge.unit) / gauge.division - 1e-6) - 1;
  return lines < 0 ? null : toPsi(lines * gauge.division, gauge.unit);
}

/** The first line of the dial strictly over `psi`, or the end of the scale. */
export function lineAbovePsi(psi: number, gauge: Gauge): number {
  const lines = Math.floor(fromPsi(psi, gauge.unit) / gauge.division + 1e-6) + 1;
  return onScale(lines * gauge.division, gauge);
}

/** A reading moved by a number of half divisions, kept on the scale. */
export function nudgedPsi(psi: number, halves: number, gauge: Gauge): number {
  return nearestReadingPsi(psi + halves * halfDivisionPsi(gauge), gauge);
}

function onScale(value: number, gauge: Gauge): number {
  return toPsi(Math.min(Math.max(value, 0), gauge.top), gauge.unit);
}
