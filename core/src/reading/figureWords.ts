import type { Figure, FigureId, LimitUsed, PressureUnit } from '@keen-bleed/contract';
import { figureUnitIn, sayFigure } from '../units/say';

/** Figures in the words of the trade. */
export const figureTitles: Readonly<Record<FigureId, string>> = {
  'build-up-time': 'Build-up',
  'build-up-rate': 'Build-up rate',
  'free-air-delivery': 'Free air delivered',
  'cut-out': 'Cut-out',
  'cut-in': 'Cut-in',
  'governor-differential': 'Differential',
  'build-up-part': 'Build-up to 65 %',
  'build-up-full': 'Build-up to 100 %',
  'governor-cycle': 'Governor cycle',
  'coupling-supply': 'Supply coupling',
  'trailer-supply': 'Trailer supply',
  'static-leak': 'Static leak',
  'static-loss': 'Free air lost',
  'static-leak-other': 'Static leak, other gauge',
  'applied-leak': 'Applied leak',
  'applied-loss': 'Free air lost, pedal down',
  'applied-leak-other': 'Applied leak, other gauge',
  warning: 'Low-air warning',
  'pop-out-park': 'Park pop-out',
  'pop-out-trailer': 'Trailer pop-out',
  'warning-reset': 'Warning off',
  'stop-lamp': 'Stop lamps',
  'reserve-left': 'Left after eight',
  'gauge-error': 'Dash gauge error',
  'purge-time': 'Purge',
  'stop-braking': 'Service stop, braking',
  'stop-distance': 'Stopping distance',
  'stop-speed': 'Speed of the stop',
};

/** A figure's number with its unit, such as `1.2 psi/min`. */
export function sayValue(value: number, figureUnit: Figure['unit'], unit: PressureUnit): string {
  return `${sayFigure(value, figureUnit, unit)} ${figureUnitIn(figureUnit, unit)}`;
}

/** A limit in words, such as `at most 2 psi/min` or `120 to 140 psi`. */
export function sayLimit(
  limit: Pick<LimitUsed, 'min' | 'max'>,
  figureUnit: Figure['unit'],
  unit: PressureUnit,
): string {
  const bare = sayBareLimit(limit, figureUnit, unit);
  return bare === null ? 'no limit' : `${bare} ${figureUnitIn(figureUnit, unit)}`;
}

function sayBareLimit(
  { min, max }: Pick<LimitUsed, 'min' | 'max'>,
  figureUnit: Figure['unit'],
  unit: PressureUnit,
): string | null {
  const say = (value: number) => sayFigure(value, figureUnit, unit);
  if (min !== null && max !== null) return `${say(min)} to ${say(max)}`;
  if (max !== null) return `at most ${say(max)}`;
  return min === null ? null : `at least ${say(min)}`;
}

/** One line for lists, such as `Static leak 4.9 psi/min, allowed at most 2`. */
export function sayFigureLine(
  figure: Pick<Figure, 'id' | 'value' | 'atMost' | 'unit' | 'limit'> &
    Partial<Pick<Figure, 'read' | 'heads'>>,
  unit: PressureUnit,
): string {
  const title = figureTitles[figure.id];
  if (figure.value === null) return `${title} could not be read`;
  const value = figure.heads === 'as-read' ? (figure.read ?? figure.value) : figure.value;
  const number =
    figure.atMost === null
      ? `${title} ${sayValue(value, figure.unit, unit)}`
      : `${title} under ${sayValue(figure.atMost, figure.unit, unit)}`;
  const limit = figure.limit && sayBareLimit(figure.limit, figure.unit, unit);
  return limit ? `${number}, allowed ${limit}` : number;
}

/** How sure, for people: `97 in 100`, never a round 100 or 0. */
export function sayChance(probability: number): string {
  return `${Math.min(99, Math.max(1, Math.round(probability * 100)))} in 100`;
}
