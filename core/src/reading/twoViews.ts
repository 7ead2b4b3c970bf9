import { verdictWords } from './verdictWords';
import type { Figure, PressureUnit } from '@keen-bleed/contract';
import { figureUnitIn, sayFigure } from '../units/say';
import { sayChance } from './figureWords';

/** The number that heads a figure, such as `126` or `< 1.4`: as read or how sure, by its rule set. */
export function sayHeadNumber(figure: Figure, unit: PressureUnit): string {
  const { value, read, atMost, heads, unit: figureUnit } = figure;
  if (value === null) return '—';
  // What is only bounded is shown as its bound, whichever view heads it.
  if (atMost !== null) return `< ${sayFigure(atMost, figureUnit, unit)}`;
  return sayFigure(heads === 'as-read' ? (read ?? value) : value, figureUnit, unit);
}

/** The view that does not head a figure, in one quieter line; null where nothing is judged. */
export function sayOtherView(figure: Figure, unit: PressureUnit): string | null {
  const { value, read, atMost, asRead, verdict, heads, within, standardUncertainty } = figure;
  if (value === null || verdict === null) return null;
  const of = (number: number) =>
    `${sayFigure(number, figure.unit, unit)} ${figureUnitIn(figure.unit, unit)}`;
  if (heads !== 'as-read') {
    return asRead === null ? null : `As read ${of(read ?? value)}: ${verdictWords[asRead]}`;
  }
  const doubt = standardUncertainty === null ? '' : ` ± ${of(2 * standardUncertainty)}`;
  const number = atMost === null ? `${of(value)}${doubt}` : `under ${of(atMost)}`;
  const sure = within === null ? '' : `, within the limit ${sayChance(within)}`;
  return `How sure: ${number}${sure}: ${verdictWords[verdict]}`;
}
