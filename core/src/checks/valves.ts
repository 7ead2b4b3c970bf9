import type { Unit } from '@keen-bleed/contract';
import { BUBBLE_LEAST_S, BUBBLE_WAIT_S, bubbleScfm } from '../bench/bubbles';
import type { NoCurve } from '../bench/curve';
import { pairFigures, type BenchFigure, type FigureLimit } from '../bench/pairs';
import { TIMING_MOST_S, type TimedKind } from '../trace/brakeMoves';
import { plumbingOf } from '../rig/plumbing/plumbingOf';
import { chamberAt } from '../rig/chamberAt';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import { STROKE_SOURCE, strokeLimitMm } from '../standards/strokeLimits';
import { wantsOf } from '../repair/match';
import type { PartRole } from '../rig/partsOf';
import type { Check, CheckAnswer } from './check';

/** A valve and all that is read of it by gauge, one check each. */
export interface Valve {
  unit: number;
  part: string;
  role: PartRole;
  title: string;
  checks: readonly Check[];
}

const READ: ReadonlySet<Check['doing']['does']> = new Set<Check['doing']['does']>([
  'compare',
  'switches',
  'lights',
  'governor',
  'relief',
  'bubble',
  'time',
]);

/** The valves of a rig, unit by unit as air runs through them: those of which something can be read. */
export function valvesOf(rig: RigUnderTest, checks: readonly Check[]): Valve[] {
  const read = checks.filter(({ doing }) => READ.has(doing.does));
  return unitsOf(rig).flatMap((each, unit) =>
    plumbingOf(each).parts.flatMap(({ id: part, role, title }): Valve[] => {
      const own = read.filter((check) => check.unit === unit && check.part === part);
      return own.length === 0 ? [] : [{ unit, part, role, title, checks: inOrder(own) }];
    }),
  );
}

/** Pairs of ports first, then set points, then how fast it goes on and off, then bubbles. */
const inOrder = (checks: readonly Check[]): Check[] => {
  const rank = ({ doing }: Check) =>
    doing.does === 'compare' ? 0 : doing.does === 'bubble' ? 3 : doing.does === 'time' ? 2 : 1;
  return [...checks].sort((a, b) => rank(a) - rank(b));
};

/** The same check on the valves of the same kind elsewhere on the rig: on its other axles, on what it tows. */
export function twinChecks(valves: readonly Valve[], valve: Valve, check: Check): Check[] {
  return valves
    .filter(
      (other) =>
        familyOf(other) === familyOf(valve) &&
        (other.unit !== valve.unit || other.part !== valve.part),
    )
    .flatMap((other) => other.checks.find((each) => kindOf(each) === kindOf(check)) ?? []);
}

/** A relay-emergency valve brakes as a relay does. */
const familyOf = ({ role }: Valve): string => (role === 'relay-emergency' ? 'relay' : role);

const kindOf = ({ doing, state, answer }: Check): string =>
  doing.does === 'compare' && answer.kind === 'points'
    ? `${answer.as ?? 'follows'} ${doing.by}`
    : `${doing.does} ${doing.does === 'governor' ? doing.way : ''} ${state.id} ${answer.kind}`;

/** From line to line of the dials a shop has, psi. */
const DIVISION_PSI = 2;

/**
 * The figures of a valve that a check gave, each with its doubt, held to the valve's own data where those were read off
 * it, and otherwise to what is published or usual.
 *
 * @param unit the unit it was done at; undefined leaves the valve's own data out
 * @param isTowing the unit tows another: a trailer's limits differ by it
 * @returns null where a check gives no figure
 */
export function figuresOfCheck(
  check: Check,
  answer: CheckAnswer,
  unit: Unit | undefined,
  isTowing = false,
): readonly BenchFigure[] | NoCurve | null {
  const { doing, part } = check;
  const want = unit ? wantsOf(unit, part).find(({ field }) => field === 'setPsi') : undefined;
  const statedPsi = unit ? readOffPsi(unit, part) : null;
  if (answer.kind === 'points' && check.answer.kind === 'points') {
    const { as = 'follows', from, to } = check.answer;
    const figures = pairFigures(
      as,
      answer.points,
      { divisionPsi: DIVISION_PSI, compared: answer.compared ?? false },
      part.includes('relay') ? statedPsi : null,
    );
    if ('wants' in figures) return figures;
    // Two that should read alike are called by their names.
    return figures.map((figure) =>
      figure.id === 'apart' ? { ...figure, title: `${capital(to)} over ${from}` } : figure,
    );
  }
  if (answer.kind !== 'number' || check.answer.kind !== 'number') return null;
  const { error, resolution } = check.answer;
  const sd = Math.hypot(error, resolution / Math.sqrt(12));
  if (doing.does === 'bubble') {
    return [
      {
        id: `bubble ${check.state.id}`,
        title: 'A bubble of an inch takes',
        unit: 's',
        value: answer.value,
        sd,
        limit: { least: BUBBLE_LEAST_S, most: null, from: 'common practice' },
      },
      ...(answer.value < BUBBLE_WAIT_S
        ? [
            {
              id: `passes ${check.state.id}`,
              title: 'It passes',
              unit: 'scfm' as const,
              value: bubbleScfm(answer.value),
              // A bubble is called an inch by eye: a fifth of its volume either way.
              sd: bubbleScfm(answer.value) * Math.hypot(0.2, sd / Math.max(1, answer.value)),
              limit: null,
            },
          ]
        : []),
    ];
  }
  if (doing.does === 'stroke') {
    const chamber = unit ? chamberAt(unit, part) : null;
    const most = chamber ? strokeLimitMm(chamber.group.type, chamber.stroke) : null;
    const from = chamber ? `${STROKE_SOURCE}, type ${chamber.group.type}` : STROKE_SOURCE;
    return [
      {
        id: 'stroke',
        title: 'Stroke',
        unit: 'mm',
        value: answer.value,
        sd,
        limit: most === null ? null : { least: null, most, from },
      },
    ];
  }
  if (doing.does === 'time') {
    const way = doing.pedal === 'down' ? 'apply' : 'release';
    return [
      {
        id: `time ${way}`,
        title: way === 'apply' ? 'On, to 60 psi' : 'Off, 95 to 5 psi',
        unit: 's',
        value: answer.value,
        sd,
        limit: unit
          ? {
              least: null,
              most: TIMING_MOST_S[timedAs(unit, isTowing)][way],
              from: '49 CFR 571.121 S5.3.3 and S5.3.4, with 100 psi in the tanks',
            }
          : null,
      },
    ];
  }
  const set = SET[doing.does];
  if (!set) return null;
  const own = isSetPoint(check) && statedPsi !== null ? (want?.tolerance ?? null) : null;
  const limit =
    own !== null && statedPsi !== null
      ? {
          least: statedPsi - own,
          most: statedPsi + own,
          from: 'what it is made for',
        }
      : set.limit(check);
  return [
    {
      id: `${doing.does} ${doing.does === 'governor' ? doing.way : ''}`.trim(),
      title: set.title(check),
      unit: 'psi',
      value: answer.value,
      sd,
      limit,
    },
  ];
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What a valve is made for, as it was read off it; a governor's cut-out as its unit is described. */
const readOffPsi = (unit: Unit, part: string): number | null =>
  unit.parts?.find(({ partId }) => partId === part)?.setPsi ??
  (part === 'governor' ? (unit.governor?.cutOutPsi ?? null) : null);

/** What timing asks of a vehicle of this kind. */
const timedAs = ({ kind }: Pick<Unit, 'kind'>, isTowing: boolean): TimedKind =>
  kind === 'dolly' ? kind : kind !== 'trailer' ? 'truck' : isTowing ? 'towing-trailer' : kind;

/** Cut-in is not what a governor is sold by. */
const isSetPoint = ({ doing }: Check): boolean =>
  !(doing.does === 'governor' && doing.way === 'in');

interface SetPoint {
  title: (check: Check) => string;
  limit: (check: Check) => FigureLimit | null;
}

const isKnob = (check: Check) => check.title.endsWith('pops out');

const SET: Partial<Record<Check['doing']['does'], SetPoint>> = {
  switches: {
    title: (check) => (isKnob(check) ? 'Pops out at' : 'Comes on at'),
    limit: (check) =>
      isKnob(check)
        ? { least: 20, most: 45, from: '49 CFR 393.43(b); common practice for the test' }
        : { least: 55, most: 75, from: 'common practice; not under 55 by 49 CFR 393.51' },
  },
  lights: {
    title: () => 'Lights at',
    limit: () => ({ least: null, most: 6, from: '49 CFR 571.121 S5.1.7' }),
  },
  governor: {
    title: ({ doing }) =>
      doing.does === 'governor' && doing.way === 'out' ? 'Cuts out at' : 'Cuts in at',
    limit: ({ doing }) =>
      doing.does === 'governor' && doing.way === 'out'
        ? { least: null, most: 135, from: '49 CFR 570.57, where the maker says nothing else' }
        : { least: 80, most: null, from: '49 CFR 570.57, where the maker says nothing else' },
  },
  relief: {
    title: () => 'Opens at',
    limit: () => ({ least: 140, most: 160, from: 'common practice: about 150' }),
  },
};
