import { mean, withoutWrong, type Sure } from './sure';
import {
  CRACK_WITHIN_PSI,
  curveOf,
  type CurvePoint,
  type CurveReading,
  type NoCurve,
} from './curve';

/**
 * What two ports of a valve should do to each other: the second follows the first from its crack on; gives a share of
 * it (`ratio`); reads the same (`balance`); has what the first has, both going down (`passes`); stays while the first
 * goes (`holds`); has nothing (`shut`); follows service so that springs do not add (`springs`); lets hold-off go in
 * proportion (`modulates`); begins to, as the first falls (`takes over`); has nothing any more once the first is low (`shuts`).
 */
export type PairKind =
  | 'follows'
  | 'ratio'
  | 'balance'
  | 'passes'
  | 'holds'
  | 'shut'
  | 'springs'
  | 'modulates'
  | 'takes over'
  | 'shuts';

/** What a figure may be, and where that comes from. */
export interface FigureLimit {
  least: number | null;
  most: number | null;
  from: string;
}

/** A figure of a valve, with its doubt and what it is held to. */
export interface BenchFigure {
  /** Found by this in another reading of the same kind. */
  id: string;
  title: string;
  unit: 'psi' | 'for 1' | 's' | 'scfm' | 'mm';
  value: number;
  sd: number;
  limit: FigureLimit | null;
}

export type BenchVerdict = 'pass' | 'fail' | 'cant-tell';

const HOUSE = 'house default, not a regulation';
const TRADE = 'common practice';
/** Two sides, axles or circuits read alike within this, psi [common practice, no source]. */
export const ALIKE_WITHIN_PSI = 4;
/** Left at an outlet with nothing asked for, psi [common practice, no source]. */
const LEFT_MOST_PSI = 1.5;
/** A held tank loses no more than this while its supply goes, psi [common practice, no source]. */
const LOST_MOST_PSI = 3;
/** A spring side that follows service stays behind it by no more, psi [common practice, no source]. */
export const BEHIND_MOST_PSI = 12;
/** Hold-off at most, where the modulating valve is at rest, and where it works, psi of primary [trade]. */
const HOLD_OFF_MOST_PSI = 95;
/** "About" 95 is taken to be this much more, psi. */
const ABOUT_PSI = 5;
const AT_WORK_PSI = 50;
const AT_REST_PSI = 65;
/** A parking spring acts like this on the service side, psi [trade]. */
const SPRING_ACTS_PSI = 60;
/** Pressed to so much, with primary empty, the rear has the effect of as much service [trade], psi. */
const PRESSED_PSI = 20;
/** Two gauges never compared differ by this, two that were by that: as for a curve. */
const NOT_COMPARED_PSI = 1.4;
const COMPARED_PSI = 0.15;

/** One reading of two gauges against each other: two dials, each to half a division. */
const readSd = ({ divisionPsi }: CurveReading) =>
  Math.max(0.2, (Math.SQRT2 * divisionPsi) / 2 / Math.sqrt(12));
const gaugeSd = ({ compared }: CurveReading) => (compared ? COMPARED_PSI : NOT_COMPARED_PSI);

/**
 * The figures of two ports that were read against each other, each with its doubt and its limit.
 *
 * @param points psi, in the order they were read
 * @param statedPsi what the valve is made for, where that was read off it: its crack pressure
 * @returns the figures, or what is still wanted in words
 */
export function pairFigures(
  as: PairKind,
  points: readonly CurvePoint[],
  reading: CurveReading,
  statedPsi: number | null = null,
): readonly BenchFigure[] | NoCurve {
  switch (as) {
    case 'follows':
    case 'ratio':
      return followed(as, points, reading, statedPsi);
    case 'balance':
    case 'passes':
      return balanced(as, points, reading);
    case 'holds':
      return held(points, reading);
    case 'shut':
      return shut(points, reading);
    case 'springs':
      return springs(points, reading);
    case 'modulates':
      return modulates(points, reading);
    case 'takes over':
      return takesOver(points, reading);
    case 'shuts':
      return shuts(points, reading);
  }
}

function followed(
  as: 'follows' | 'ratio',
  points: readonly CurvePoint[],
  reading: CurveReading,
  statedPsi: number | null,
): readonly BenchFigure[] | NoCurve {
  // What scales with the load has no gain to hold near one.
  const curve = curveOf(points, reading, as === 'ratio' ? FREE : undefined);
  if ('wants' in curve) return curve;
  const { crack, gain, hysteresis, residualPsi, wantsPsi } = curve;
  if (as === 'follows' && statedPsi !== null && wantsPsi !== null) {
    return { wants: `One point more, at about ${wantsPsi} psi: it opens somewhere around it.` };
  }
  const figures: BenchFigure[] = [
    {
      id: 'crack',
      title: 'Opens at',
      unit: 'psi',
      ...crack,
      limit:
        as === 'ratio' || statedPsi === null
          ? null
          : {
              least: Math.max(0, statedPsi - CRACK_WITHIN_PSI),
              most: statedPsi + CRACK_WITHIN_PSI,
              from: 'what it is made for, read off it',
            },
    },
    {
      id: 'gain',
      title: as === 'ratio' ? 'Gives for each one asked' : 'Then gives for each one',
      unit: 'for 1',
      ...gain,
      limit: null,
    },
  ];
  if (hysteresis) {
    figures.push({
      id: 'hysteresis',
      title: 'More going down than going up',
      unit: 'psi',
      ...hysteresis,
      limit: null,
    });
  }
  if (residualPsi !== null) {
    figures.push({
      id: 'residual',
      title: 'Left with nothing asked',
      unit: 'psi',
      value: residualPsi,
      sd: readSd(reading) / Math.SQRT2,
      limit: { least: null, most: LEFT_MOST_PSI, from: HOUSE },
    });
  }
  return figures;
}

/** Anything from nothing to all may be a load-sensing valve's gain. */
const FREE = 10;

function balanced(
  as: 'balance' | 'passes',
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  // Where either stands near nothing, a crack pressure is what is seen, not a balance.
  const used = points.filter((point) => Math.max(...point) > 8);
  if (used.length < 2) return { wants: 'Two pressures at least over 8 psi.' };
  const gaps = used.map(([one, other]) => other - one);
  const by = mean(gaps, readSd(reading));
  const limit: FigureLimit = {
    least: -ALIKE_WITHIN_PSI,
    most: ALIKE_WITHIN_PSI,
    from: HOUSE,
  };
  return [
    {
      id: 'apart',
      title: 'The second over the first',
      unit: 'psi',
      value: by.value,
      sd: Math.hypot(by.sd, gaugeSd(reading)),
      limit,
    },
  ];
}

function held(
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  const low = points.reduce<CurvePoint | null>(
    (least, point) => (least === null || point[0] < least[0] ? point : least),
    null,
  );
  const first = points[0];
  if (!low || !first || (points.length > 1 && low[0] > first[0] - 20)) {
    return { wants: 'Two readings at least, the first side 20 psi lower at the second.' };
  }
  if (points.length < 2) {
    // One reading: it stands over what went.
    return [
      {
        id: 'kept',
        title: 'Kept over the side that went',
        unit: 'psi',
        value: low[1] - low[0],
        sd: Math.hypot(readSd(reading), gaugeSd(reading)),
        limit: { least: 20, most: null, from: HOUSE },
      },
    ];
  }
  return [
    {
      id: 'lost',
      title: 'Lost while the other side fell',
      unit: 'psi',
      value: first[1] - low[1],
      // Two readings of one gauge: its own error goes out.
      sd: readSd(reading),
      limit: { least: null, most: LOST_MOST_PSI, from: HOUSE },
    },
  ];
}

function shut(
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  const asked = points.filter(([inPsi]) => inPsi > 15);
  if (asked.length === 0) return { wants: 'One pressure at least over 15 psi.' };
  return [
    {
      id: 'through',
      title: 'Most that comes through',
      unit: 'psi',
      value: Math.max(...asked.map(([, out]) => out)),
      sd: readSd(reading) / Math.SQRT2,
      limit: { least: null, most: LEFT_MOST_PSI, from: TRADE },
    },
  ];
}

function springs(
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  const used = points.filter(([service]) => service > 30);
  if (used.length === 0) return { wants: 'One pressure at least over 30 psi.' };
  const behind = mean(
    used.map(([service, side]) => service - side),
    readSd(reading),
  );
  const added = Math.max(
    ...used.map(([service, side]) => service + Math.max(0, SPRING_ACTS_PSI - side)),
  );
  return [
    {
      id: 'behind',
      title: 'The spring side stays behind by',
      unit: 'psi',
      value: behind.value,
      sd: Math.hypot(behind.sd, gaugeSd(reading)),
      limit: { least: null, most: BEHIND_MOST_PSI, from: HOUSE },
    },
    {
      id: 'adds',
      title: 'Spring and service together, at most',
      unit: 'psi',
      value: added,
      sd: readSd(reading),
      // A wheel end is good for about 150 [trade].
      limit: { least: null, most: 150, from: TRADE },
    },
  ];
}

function modulates(
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  const rest = points.find(([front]) => front < 3);
  const pressed = points.filter(([front]) => front >= 8);
  if (!rest || pressed.length < 2) {
    return { wants: 'One reading with the pedal up, and two at least pressed over 8 psi.' };
  }
  // A point whose slope is far from the middle one was read wrongly.
  const slopes = pressed.map(([front, side]) => (rest[1] - side) / (front - rest[0]));
  const told = new Set(withoutWrong(slopes, readSd(reading) / 10));
  const used = pressed.filter((_, n) => told.has(slopes[n]!));
  // By least squares through what stood at rest.
  const across = used.map(([front]) => front - rest[0]);
  const down = used.map(([, side]) => rest[1] - side);
  const square = across.reduce((sum, x) => sum + x * x, 0);
  const slope = across.reduce((sum, x, n) => sum + x * down[n]!, 0) / square;
  const slopeSd = (readSd(reading) * Math.SQRT2) / Math.sqrt(square);
  const sideAt = rest[1] - slope * PRESSED_PSI;
  return [
    {
      id: 'hold-off',
      title: 'Hold-off with the pedal up',
      unit: 'psi',
      value: rest[1],
      sd: Math.hypot(readSd(reading) / Math.SQRT2, gaugeSd(reading)),
      limit: { least: null, most: HOLD_OFF_MOST_PSI + ABOUT_PSI, from: TRADE },
    },
    {
      id: 'slope',
      title: 'Lets go for each one of front brake',
      unit: 'for 1',
      value: slope,
      sd: slopeSd,
      limit: null,
    },
    {
      id: 'effect',
      title: `The springs act like, at ${PRESSED_PSI} psi of front brake`,
      unit: 'psi',
      value: Math.min(SPRING_ACTS_PSI, Math.max(0, SPRING_ACTS_PSI - sideAt)),
      sd: Math.hypot(slopeSd * PRESSED_PSI, readSd(reading)),
      limit: {
        least: PRESSED_PSI / 2,
        most: SPRING_ACTS_PSI,
        from: HOUSE,
      },
    },
  ];
}

function takesOver(
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  const falling = [...points].sort(([a], [b]) => b - a);
  const sides = falling.map(([, side]) => side);
  const high = Math.max(...sides);
  const low = Math.min(...sides);
  if (falling.length < 3)
    return { wants: 'Three pressures of primary at least, from 80 down to 45.' };
  if (high - low < 8) {
    return { wants: 'Hold-off has not gone yet: let primary further down with the pedal held.' };
  }
  const half = (high + low) / 2;
  const at = falling.findIndex(([, side]) => side < half);
  const [above, under] = [falling[at - 1], falling[at]];
  if (!above || !under) return { wants: 'A pressure of primary higher than these.' };
  const share = (above[1] - half) / Math.max(1e-9, above[1] - under[1]);
  return [
    {
      id: 'takes-over',
      title: 'Takes over at, of primary',
      unit: 'psi',
      value: above[0] + share * (under[0] - above[0]),
      // Between two steps it may be anywhere near where the line runs.
      sd: Math.hypot((above[0] - under[0]) / Math.sqrt(12), readSd(reading), gaugeSd(reading)),
      limit: { least: AT_WORK_PSI, most: AT_REST_PSI, from: TRADE },
    },
  ];
}

/** A protection valve keeps the tractor's air between these, psi of the trailer's supply [std: 49 CFR 393.43(b), values from memory]. */
const SHUTS_LEAST_PSI = 20;
const SHUTS_MOST_PSI = 45;
/** Open it passes at least so much of what is asked, psi; shut it passes less. */
const PASSED_PSI = 5;

function shuts(
  points: readonly CurvePoint[],
  reading: CurveReading,
): readonly BenchFigure[] | NoCurve {
  const falling = [...points].sort(([a], [b]) => b - a);
  const at = falling.findIndex(([, out]) => out < PASSED_PSI);
  const [above, under] = [falling[at - 1], falling[at]];
  if (!above || !under) {
    return {
      wants: 'One supply pressure at which it passes, and a lower one at which it does not.',
    };
  }
  return [
    {
      id: 'shuts',
      title: 'Shuts at, of supply',
      unit: 'psi',
      value: (above[0] + under[0]) / 2,
      sd: Math.hypot((above[0] - under[0]) / Math.sqrt(12), readSd(reading) / Math.SQRT2),
      limit: {
        least: SHUTS_LEAST_PSI,
        most: SHUTS_MOST_PSI,
        from: '49 CFR 393.43(b)',
      },
    },
  ];
}

/** What a figure comes to: told only where 95 in 100 of what it may be lie on one side of its limit. */
export function judgeFigure({
  value,
  sd,
  limit,
}: Pick<BenchFigure, 'value' | 'sd' | 'limit'>): BenchVerdict | null {
  if (!limit) return null;
  const doubt = 1.96 * sd;
  const over = limit.most === null ? -Infinity : value - limit.most;
  const under = limit.least === null ? -Infinity : limit.least - value;
  const out = Math.max(over, under);
  if (out + doubt <= 0) return 'pass';
  if (out - doubt > 0) return 'fail';
  return 'cant-tell';
}

/** How a figure stands beside the same one read elsewhere. */
export interface Beside {
  id: string;
  by: Sure;
  /** Unlike where 95 in 100 of what the gap may be lie beyond what differs anyway. */
  is: 'alike' | 'unlike' | 'cant-tell';
}

/** What sound valves of one kind differ by: psi, or for one; a ratio is set to its axle's load. */
const DIFFER: Readonly<Record<BenchFigure['unit'], number>> = {
  psi: 2,
  'for 1': 0.08,
  s: 8,
  scfm: 0.01,
  mm: 6,
};

/** Figures beside those of the valve's own last visit, of its twin on another axle, or of the rig's twin. */
export function besideOther(
  figures: readonly BenchFigure[],
  others: readonly BenchFigure[],
): Beside[] {
  return figures.flatMap((figure): Beside[] => {
    const other = others.find(({ id }) => id === figure.id);
    if (!other) return [];
    const value = figure.value - other.value;
    const sd = Math.hypot(figure.sd, other.sd);
    const gap = Math.abs(value);
    const differ = DIFFER[figure.unit];
    const is =
      gap - 1.96 * sd > differ ? 'unlike' : gap + 1.96 * sd <= differ * 1.5 ? 'alike' : 'cant-tell';
    return [{ id: figure.id, by: { value, sd }, is }];
  });
}
