import type { DrainedThing, PressureUnit } from '@keen-bleed/contract';
import { MOST_DRAINED_ML } from '@keen-bleed/contract/forms';
import { rounded } from '@keen-bleed/core';
import type { DrainAmount, DryerState } from '@keen-bleed/core/water';

export const AMOUNTS: readonly { value: DrainAmount; title: string }[] = [
  { value: 'dry', title: 'dry' },
  { value: 'mist', title: 'mist' },
  { value: 'spoonful', title: 'spoonful' },
  { value: 'cup', title: 'cup' },
  { value: 'more', title: 'more' },
];

export const THINGS: readonly { value: DrainedThing; title: string }[] = [
  { value: 'clear', title: 'clear' },
  { value: 'milky', title: 'milky' },
  { value: 'oil', title: 'oil' },
  { value: 'rust', title: 'rust' },
  { value: 'sludge', title: 'sludge' },
  { value: 'ice', title: 'ice' },
];

export const DRYER_TITLES: Readonly<Record<DryerState, string>> = {
  'in order': 'a dryer in order',
  spent: 'a spent cartridge',
  none: 'no drying at all',
};

/** Shops that speak psi speak Fahrenheit. */
export const isFahrenheit = (unit: PressureUnit) => unit === 'psi';
export const degreesOf = (unit: PressureUnit) => (isFahrenheit(unit) ? '°F' : '°C');
export const fromCelsius = (celsius: number, unit: PressureUnit) =>
  isFahrenheit(unit) ? celsius * 1.8 + 32 : celsius;
export const toCelsius = (degrees: number, unit: PressureUnit) =>
  isFahrenheit(unit) ? (degrees - 32) / 1.8 : degrees;
export const sayDegrees = (celsius: number, unit: PressureUnit) =>
  `${rounded(fromCelsius(celsius, unit), 0)} ${degreesOf(unit)}`.replace('-', '−');

export const sayMl = (ml: number) =>
  ml >= 1_000
    ? `${rounded(ml / 1_000, 1)} L`
    : `${ml < 10 ? rounded(ml, 0) : Math.round(ml / 5) * 5} ml`;

/** A number somebody typed; null where it is none. */
export const numberIn = (text: string): number | null => {
  const number = Number(text.trim().replace(',', '.').replace('−', '-'));
  return text.trim() === '' || !Number.isFinite(number) ? null : number;
};

/** Millilitres as they are typed; words where they cannot be. */
export function mlIn(text: string): number | string {
  const ml = numberIn(text);
  if (ml === null || ml < 0) return 'Give millilitres, such as 120.';
  if (ml > MOST_DRAINED_ML)
    return `No brake tank gives over ${MOST_DRAINED_ML / 1_000} litres of water: give millilitres, such as 120.`;
  return ml;
}

/** What a drain gave, in words. */
export function sayDrained(
  amount: DrainAmount,
  water: { ml?: number; what?: readonly DrainedThing[]; stuck?: boolean },
): string {
  const words = {
    dry: 'dry',
    mist: 'only mist',
    spoonful: 'a spoonful',
    cup: 'a cup',
    more: 'more than a cup',
  }[amount];
  return [
    water.ml === undefined ? words : `${words}, ${sayMl(water.ml)}`,
    water.what?.join(' and '),
    water.stuck ? 'the drain is stuck' : null,
  ]
    .filter(Boolean)
    .join(', ');
}
