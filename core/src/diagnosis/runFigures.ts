import type { DashFigure, DashReadings } from '../twin/signature/dashReadings';
import { dashReadings } from '../twin/signature/dashReadings';

/** What linked channels add to the dash: supply tank and one service line, psi or psi/min. */
export const channelFigures = [
  'supply over primary, loading',
  'supply at cut-out',
  'static supply',
  'applied supply',
  'service at 9 psi',
  'service after 1 s',
  'service full',
  'service let go',
] as const;
export type ChannelFigure = (typeof channelFigures)[number];

/** Figures with a number, in the order of the model's vectors. */
export const numberFigures = [
  'build-up',
  'cut-out',
  'cut-in',
  'static primary',
  'static secondary',
  'applied primary',
  'applied secondary',
  'warning',
  'red',
  'yellow',
  ...channelFigures,
] as const satisfies readonly (DashFigure | ChannelFigure)[];
export type NumberFigure = (typeof numberFigures)[number];

/** Figures that are a lamp, on or off. */
export const lampFigures = ['lamp light', 'lamp full', 'lamp off'] as const;
export type LampFigure = (typeof lampFigures)[number];

export type RunFigures = Readonly<Partial<Record<NumberFigure | LampFigure, number>>>;

/** Build-up that never comes is given up after this, s. */
const GIVEN_UP_S = 400;
/** Falls are told apart in psi/min up to about this, and by their ratio beyond. */
const BEND = 1;

/** How sound rigs differ in a figure: by its logarithm, by a bent fall, or plainly. */
export type Measure = 'log' | 'fall' | 'plain';
export const measureOf = (figure: NumberFigure): Measure =>
  figure === 'build-up' ? 'log' : /^(static|applied)/.test(figure) ? 'fall' : 'plain';

/** A figure in the measure in which sound rigs differ evenly: logarithm of a time, bent falls, psi as they are. */
export function measured(figure: NumberFigure, value: number): number {
  switch (measureOf(figure)) {
    case 'log':
      return Math.log(Math.max(1, Math.min(GIVEN_UP_S, value)));
    case 'fall':
      return Math.asinh(value / BEND);
    case 'plain':
      return value;
  }
}

/** By how much the measure moves for each unit of the figure there. */
export function slopeAt(figure: NumberFigure, value: number): number {
  switch (measureOf(figure)) {
    case 'log':
      return 1 / Math.max(1, value);
    case 'fall':
      return 1 / Math.hypot(value, BEND);
    case 'plain':
      return 1;
  }
}

/** A figure in its measure, and the slope of the measure there. */
export const shiftMeasured = (figure: NumberFigure, value: number) => ({
  at: measured(figure, value),
  slope: slopeAt(figure, value),
});

/** A figure back from its measure. */
export function unmeasured(figure: NumberFigure, at: number): number {
  switch (measureOf(figure)) {
    case 'log':
      return Math.exp(at);
    case 'fall':
      return BEND * Math.sinh(at);
    case 'plain':
      return at;
  }
}

/** What somebody reads off a dash by eye: one standard deviation of each figure in its own unit [common practice, no source]. */
export const READ_BY_EYE: Readonly<Record<NumberFigure, number>> = {
  'build-up': 1.2,
  'cut-out': 1,
  'cut-in': 2,
  'static primary': 0.9,
  'static secondary': 0.9,
  'applied primary': 0.9,
  'applied secondary': 0.9,
  warning: 2,
  red: 2,
  yellow: 2,
  'supply over primary, loading': 0.4,
  'supply at cut-out': 0.4,
  'static supply': 0.15,
  'applied supply': 0.15,
  'service at 9 psi': 0.5,
  'service after 1 s': 3,
  'service full': 0.5,
  'service let go': 0.3,
};

/** By how much the model itself is off, in the figure's measure: one standard deviation. */
export const MODEL_OFF: Readonly<Record<Measure, number>> = { log: 0.05, fall: 0.12, plain: 1 };
export const modelOff = (figure: NumberFigure): number => MODEL_OFF[measureOf(figure)];

/** Figures of what was seen in a `dashRun`, the channels' among them where it was run with them. */
export function runFigures(seen: ReadonlyMap<string, number>): RunFigures {
  const dash: DashReadings = dashReadings(seen);
  const figures: Partial<Record<NumberFigure | LampFigure, number>> = {};
  for (const figure of [...numberFigures, ...lampFigures]) {
    const value = (dash as Readonly<Record<string, number | null | undefined>>)[figure];
    if (value !== null && value !== undefined) figures[figure] = value;
  }
  if (seen.has('at 85') && !('build-up' in figures)) figures['build-up'] = GIVEN_UP_S;
  const put = (figure: ChannelFigure, ...keys: readonly [string] | readonly [string, string]) => {
    const [a, b] = keys.map((key) => seen.get(key));
    if (a === undefined || (keys.length > 1 && b === undefined)) return;
    figures[figure] = keys.length > 1 ? a - (b ?? 0) : a;
  };
  put('supply over primary, loading', 'loading supply', 'loading primary');
  put('supply at cut-out', 'cut-out supply');
  put('static supply', 'static from supply', 'static to supply');
  put('applied supply', 'applied from supply', 'applied to supply');
  put('service at 9 psi', 'light service');
  put('service after 1 s', 'soon service');
  put('service full', 'applied from service');
  put('service let go', 'off service');
  return figures;
}
