import type { Figure, PressureUnit } from '@keen-bleed/contract';
import { fromPsi } from './pressure';

const M_PER_FT = 0.3048;
const KMH_PER_MPH = 1.609344;

const placesFor: Record<PressureUnit, { level: number; rate: number }> = {
  psi: { level: 0, rate: 1 },
  kPa: { level: 0, rate: 1 },
  bar: { level: 2, rate: 2 },
};

/** Rounds for people: `places` decimals, with no trailing zeros. */
export function rounded(value: number, places: number): string {
  const text = value.toFixed(places);
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return trimmed === '-0' ? '0' : trimmed;
}

/** An odometer's reading in words, such as `412,300 km`. */
export const sayOdometer = ({ value, unit }: { value: number; unit: 'km' | 'mi' }): string =>
  `${Math.round(value).toLocaleString('en-GB')} ${unit}`;

/** A gauge pressure in words, such as `118 psi`, `117.5 psi` or `8.2 bar`; halves of a psi are kept. */
export function sayPressure(psi: number, unit: PressureUnit): string {
  return `${sayLevel(psi, unit)} ${unit}`;
}

/** The number of {@link sayPressure} without its unit. */
export function sayLevel(psi: number, unit: PressureUnit): string {
  const value = fromPsi(psi, unit);
  if (unit === 'psi') return rounded(Math.round(value * 2) / 2, 1);
  return rounded(value, placesFor[unit].level);
}

/** A figure's unit as shown when the reader has chosen `unit` for pressures. */
export function figureUnitIn(figureUnit: Figure['unit'], unit: PressureUnit): string {
  if (figureUnit === 'ft') return unit === 'psi' ? 'ft' : 'm';
  if (figureUnit === 'mph') return unit === 'psi' ? 'mph' : 'km/h';
  return figureUnit.startsWith('psi') ? figureUnit.replace('psi', unit) : figureUnit;
}

/** A figure's number as shown when the reader has chosen `unit` for pressures. */
export function sayFigure(value: number, figureUnit: Figure['unit'], unit: PressureUnit): string {
  switch (figureUnit) {
    case 'psi':
      return sayLevel(value, unit);
    case 'psi/min':
      return rounded(fromPsi(value, unit), placesFor[unit].rate);
    case 'psi/s':
      return rounded(fromPsi(value, unit), placesFor[unit].rate + 1);
    case 's':
      return rounded(value, value < 100 ? 1 : 0);
    case 'scfm':
      return rounded(value, value < 1 ? 2 : 1);
    case '%':
      return rounded(value, 1);
    case 'ft':
      return unit === 'psi' ? rounded(value, 1) : rounded(value * M_PER_FT, 1);
    case 'mph':
      return unit === 'psi' ? rounded(value, 0) : rounded(value * KMH_PER_MPH, 0);
  }
}
