import type { ShownByRun } from './rigModel';
import { measureOf, numberFigures, type Measure, type NumberFigure } from './runFigures';

/* What readings look like where no fault of the list is behind them: a dial, a slip of the reader, or something else. */

const LEVELS = ['cut-out', 'cut-in', 'warning', 'red', 'yellow'] as const;
const SLIPS: Readonly<Record<Measure, number>> = {
  log: 0.4,
  fall: 1.2,
  plain: 12,
};
/** What a faulty dial or reader does: a needle that is off beyond its allowance, or one reading that slipped. */
export const READER: readonly { which: string; of: Partial<Record<NumberFigure, number>> }[] = [
  { which: 'dial', of: Object.fromEntries(LEVELS.map((figure) => [figure, 9])) },
  ...numberFigures.slice(0, 10).map((figure) => ({
    which: figure,
    of: { [figure]: SLIPS[measureOf(figure)] },
  })),
];

/** Which figures something that is not in the list may move together. */
export const UNLISTED_WAYS: readonly (readonly NumberFigure[])[] = [
  [...numberFigures],
  ['build-up', 'cut-out', 'cut-in', 'supply over primary, loading', 'supply at cut-out'],
  [
    'static primary',
    'static secondary',
    'applied primary',
    'applied secondary',
    'static supply',
    'applied supply',
  ],
  ['warning', 'red', 'yellow'],
];
/** Variance of what faults at large do to a figure, in its measure. */
export const LOOSE: Readonly<Record<Measure, number>> = {
  log: 0.25,
  fall: 4,
  plain: 150,
};
export const EITHER_LAMP: ShownByRun['lamps'] = {
  'lamp light': 0.8,
  'lamp full': 0.8,
  'lamp off': 0.2,
};
