/** What a run shows on the dash, of one rig: figures by name. */
export type DashReadings = Readonly<Record<DashFigure, number | null>>;

/** A figure of the dash, in the order of a run. */
export const dashFigures = [
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
  'lamp light',
  'lamp full',
  'lamp off',
] as const;
export type DashFigure = (typeof dashFigures)[number];

/**
 * By how much two readings of a figure must differ to be told apart on a dash with divisions of 2 psi: psi, psi/min
 * of a hold of a minute, seconds of a build-up, lamps.
 */
export const resolutionOf: Readonly<Record<DashFigure, number>> = {
  'build-up': 2,
  'cut-out': 2,
  // Where the last stroke ended: up to a stroke under the governor's own.
  'cut-in': 4,
  'static primary': 1,
  'static secondary': 1,
  'applied primary': 1,
  'applied secondary': 1,
  warning: 4,
  red: 4,
  yellow: 4,
  'lamp light': 0.5,
  'lamp full': 0.5,
  'lamp off': 0.5,
};

/** The dash figures of what was seen in a `dashRun`. Null where it did not come to that, or there is no such thing. */
export function dashReadings(seen: ReadonlyMap<string, number>): DashReadings {
  const at = (key: string) => seen.get(key) ?? null;

  const of = (key: string, pick: (...psi: number[]) => number) => {
    const both = ['primary', 'secondary'].flatMap((gauge) => seen.get(`${key} ${gauge}`) ?? []);
    return both.length > 0 ? pick(...both) : null;
  };
  const higher = (key: string) => of(key, Math.max);
  const less = (key: string, from: string, to: string) => {
    const a = at(from);
    const b = at(to);
    return a === null || b === null ? null : key === 'time' ? b - a : a - b;
  };
  const rate = (hold: string, gauge: string) =>
    less('fall', `${hold} from ${gauge}`, `${hold} to ${gauge}`);
  return {
    'build-up': less('time', 'at 85', 'at 100'),
    'cut-out': higher('cut-out'),
    'cut-in': higher('cut-in'),
    'static primary': rate('static', 'primary'),
    'static secondary': rate('static', 'secondary'),
    'applied primary': rate('applied', 'primary'),
    'applied secondary': rate('applied', 'secondary'),
    // A switch feels its own tank: the lower lights the lamp. A knob feels the higher.
    warning: of('warning', Math.min),
    red: higher('red'),
    yellow: higher('yellow'),
    'lamp light': at('lamp light'),
    'lamp full': at('lamp full'),
    'lamp off': at('lamp off'),
  };
}

/** Figures in which two runs differ by more than the dash can tell. */
export const toldApart = (one: DashReadings, other: DashReadings): DashFigure[] =>
  dashFigures.filter((figure) => {
    const a = one[figure];
    const b = other[figure];
    if (a === null || b === null) return a !== b;
    return Math.abs(a - b) > resolutionOf[figure];
  });
