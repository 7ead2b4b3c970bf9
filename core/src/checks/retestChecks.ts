import type { NoCurve } from '../bench/curve';
import { judgeFigure, pairFigures, type BenchFigure, type PairKind } from '../bench/pairs';
import type { JobReading, Unit } from '@keen-bleed/contract';
import { chamberAt } from '../rig/chamberAt';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import type { Retest } from '../repair/retests';
import type { RetestOutcome } from '../repair/retestOutcome';
import type { AnswerShape, Check, CheckAnswer } from './check';
import { apart, TELLS } from './tells';
import { figuresOfCheck } from './valves';

/** Wheels that a valve works, by its part, where they are not its own. */
const WORKS: Readonly<Record<string, readonly string[]>> = {
  'rear-relay': ['rear left'],
  'front-quick-release': ['front left'],
  antilock: ['front left', 'rear left', 'left'],
  relay: ['left'],
};

/** The place of a check without its unit's number. */
const placeOf = ({ doing }: Check): string | null =>
  'place' in doing ? doing.place.replace(/^#\d+ /, '') : null;

/** The checks of a rig's catalogue that a retest consists of; a step of a run has none. */
export function checksOfRetest(checks: readonly Check[], { check: owed }: Retest): Check[] {
  if (!owed) return [];
  const { unit, partId, what } = owed;
  const [group, wheel] = partId.split('.');
  const side = wheel?.split('-').at(-1) ?? null;
  const own = (each: Check) => each.unit === unit && each.part === group;
  switch (what) {
    case 'curve':
      return checks
        .filter(
          (each) => own(each) && each.doing.does === 'compare' && each.state.id === 'released',
        )
        .slice(0, 1);
    case 'residual':
      return checks.filter(
        (each) => own(each) && each.doing.does === 'read' && each.state.id === 'released',
      );
    case 'timing': {
      const places = WORKS[partId] ?? [];
      return checks.filter(
        (each) =>
          each.unit === unit && each.doing.does === 'time' && places.includes(placeOf(each) ?? ''),
      );
    }
    case 'stroke':
      return checks.filter(
        (each) =>
          own(each) &&
          each.doing.does === 'stroke' &&
          (side === null || (placeOf(each) ?? '').endsWith(side)),
      );
    case 'soap': {
      // A drain is a joint of its tank and a coupler one of its line: each is wetted with it.
      const wetted = group?.replace(/drain$/, 'tank').replace(/coupler$/, 'line');
      return checks.filter(
        (each) => each.unit === unit && each.part === wetted && each.doing.does === 'wet',
      );
    }
  }
}

/** Shapes in which less is better: a fall, a time, a stroke. */
const LESS_IS_BETTER: ReadonlySet<string> = new Set(['psi/min', 's', 'mm']);

/** The unit a check was done at, and how it stands in its rig. */
export interface CheckedAt {
  unit: Unit;
  /** Something is coupled behind it. */
  isTowing: boolean;
  /** It is coupled behind something: its times are the rig's, and no standard's. */
  isTowed: boolean;
}

/** Where a check of a rig is done. */
export function checkedAt(rig: RigUnderTest, check: Check): CheckedAt | null {
  const units = unitsOf(rig);
  const unit = units[check.unit];
  if (!unit) return null;
  return { unit, isTowing: check.unit < units.length - 1, isTowed: check.unit > 0 };
}

/**
 * What a check's answer comes to: first by the law and the part's own plate, outside of which it fails; then beside
 * what the rig's twin says a good rig gives. What is inside the law and unlike a good rig is measured again, and then a
 * lead may accept it. Where there is no law, what lies further from a good rig than gauges and good rigs differ, on the
 * side that is worse, fails.
 *
 * @param expected what a good rig of this description gives; null where that is not known
 * @param at where it was done; null leaves the law out
 */
export function judgeAnswer(
  check: Check,
  answer: CheckAnswer,
  expected: CheckAnswer | null,
  at: CheckedAt | null = null,
): RetestOutcome {
  const reading = readingOf(check, answer, expected, at);
  const readings = reading ? [reading] : [];
  const said = (verdict: RetestOutcome['verdict'], text: string): RetestOutcome => ({
    verdict,
    said: `${check.title}: ${text}`.slice(0, 300),
    readings,
  });
  const { answer: shape } = check;
  if (answer.kind === 'points' && answer.points.length < 2)
    return said('cant-tell', 'two points at least are wanted');
  const law = byLaw(check, answer, at);
  if (law && 'wants' in law) return said('cant-tell', law.wants);
  if (law && law.verdict !== 'pass') return said(law.verdict, `${law.said}${causesOf(check, at)}`);
  const unlawed = law ? '' : noLawOf(check, at);
  if (!expected)
    return law ? said('pass', law.said) : said('cant-tell', 'nothing to hold it against yet');
  if (answer.kind === 'grade' && expected.kind === 'grade' && shape.kind === 'grade') {
    const rank = (id: string) => shape.grades.findIndex((grade) => grade.id === id);
    const title = shape.grades[rank(answer.grade)]?.title ?? answer.grade;
    return said(rank(answer.grade) <= rank(expected.grade) ? 'pass' : 'fail', title);
  }
  if (answer.kind === 'choice' && expected.kind === 'choice' && shape.kind === 'choice') {
    const title = shape.choices.find(({ id }) => id === answer.choice)?.title ?? answer.choice;
    return said(answer.choice === expected.choice ? 'pass' : 'fail', title);
  }
  const by = apart(check, answer, expected);
  const isBetter =
    answer.kind === 'number' &&
    expected.kind === 'number' &&
    shape.kind === 'number' &&
    LESS_IS_BETTER.has(shape.unit) &&
    answer.value <= expected.value;
  const text = reading
    ? `${answer.kind === 'points' ? `${reading.title.split(',')[0]!.toLowerCase()} ` : ''}${number(reading.after)} ${reading.unit}, ${number(reading.expected)} ${reading.unit} expected`
    : 'as expected';
  if (by < TELLS || isBetter) return said('pass', law ? law.said : `${text}${unlawed}`);
  return law
    ? said('cant-tell', `${law.said}, and ${text} of a good rig like this. Measure it again.`)
    : said('fail', `${text}${unlawed}`);
}

interface ByLaw {
  verdict: RetestOutcome['verdict'];
  said: string;
}

/** What the law and the part's plate say of an answer; null where they say nothing. */
function byLaw(check: Check, answer: CheckAnswer, at: CheckedAt | null): ByLaw | NoCurve | null {
  const figures = at ? lawfulFigures(check, answer, at) : null;
  if (!figures) return null;
  if ('wants' in figures) return figures;
  const limited = figures.filter(({ limit }) => limit !== null);
  if (limited.length === 0) return null;
  const worst =
    limited.find((figure) => isOutside(figure) && isBeyondDoubt(check, figure)) ??
    limited.find(isOutside) ??
    limited[0]!;
  const { limit, value, unit, title } = worst;
  const bounds = [
    limit?.least == null ? '' : `at least ${number(limit.least)} ${unit}`,
    limit?.most == null ? '' : `at most ${number(limit.most)} ${unit}`,
  ].filter(Boolean);
  const text = `${title.toLowerCase()} ${number(value)} ${unit}, ${bounds.join(' and ')} (${limit?.from ?? ''})`;
  if (!isOutside(worst)) return { verdict: 'pass', said: text };
  return isBeyondDoubt(check, worst)
    ? { verdict: 'fail', said: text }
    : { verdict: 'cant-tell', said: `${text}: compare the two gauges and read it again` };
}

/** What two ports give is judged by two gauges, and by no published figure unless the part's plate says one. */
const SAID_BY_PLATE: ReadonlySet<string> = new Set(['crack']);

function lawfulFigures(
  check: Check,
  answer: CheckAnswer,
  { unit, isTowing, isTowed }: CheckedAt,
): readonly BenchFigure[] | NoCurve | null {
  // The standard times a trailer from its own coupler: coupled, the towing vehicle's part would be counted in.
  if (check.doing.does === 'time' && isTowed) return null;
  const figures = figuresOfCheck(check, answer, unit, isTowing);
  if (!figures || 'wants' in figures || check.doing.does !== 'compare') return figures;
  return figures.map((figure) =>
    SAID_BY_PLATE.has(figure.id) ? figure : { ...figure, limit: null },
  );
}

const isOutside = ({ limit, value }: BenchFigure): boolean =>
  (limit?.most != null && value > limit.most + 1e-9) ||
  (limit?.least != null && value < limit.least - 1e-9);

/** A single reading is taken as read; what is worked out of two gauges is outside only beyond their doubt. */
const isBeyondDoubt = (check: Check, figure: BenchFigure): boolean =>
  check.doing.does !== 'compare' || judgeFigure(figure) === 'fail';

/** Why a stroke is long on an automatic adjuster: resetting it would hide that until it is long again [trade]. */
function causesOf({ doing, part }: Check, at: CheckedAt | null): string {
  if (doing.does !== 'stroke' || !at || chamberAt(at.unit, part)?.adjuster !== 'automatic')
    return '';
  return '. Automatic adjuster, never adjusted as a repair: look for worn bushes, a seized or bent linkage, a wrong arm, a worn drum or lining, a broken spring';
}

/** That no limit is published, where one might be looked for. */
function noLawOf({ doing, part }: Check, at: CheckedAt | null): string {
  if (doing.does !== 'stroke' || !at) return '';
  const chamber = chamberAt(at.unit, part);
  return chamber ? `; no published limit for type ${chamber.group.type}: by a good rig alone` : '';
}

const number = (value: number | null) =>
  value === null ? 'none' : String(Math.round(value * 10) / 10);

type Points = Extract<CheckAnswer, { kind: 'points' }>;

/** From line to line of the dials a shop has, psi. */
const DIVISION_PSI = 2;

/** What two ports that do not follow one another come to, by the first figure of theirs that is a pressure. */
function ofPair(
  title: string,
  as: PairKind,
  answer: Points,
  expected: Points | null,
): JobReading | null {
  const first = ({ points, compared = false }: Points) => {
    const figures = pairFigures(as, points, { divisionPsi: DIVISION_PSI, compared });
    return 'wants' in figures ? undefined : figures.find(({ unit }) => unit === 'psi');
  };
  const after = first(answer);
  const should = expected ? first(expected) : undefined;
  if (!after) return null;
  return {
    title: `${after.title}, ${title}`.slice(0, 80),
    unit: 'psi',
    before: null,
    after: after.value,
    expected: should?.value ?? null,
  };
}

function readingOf(
  check: Check,
  answer: CheckAnswer,
  expected: CheckAnswer | null,
  at: CheckedAt | null,
): JobReading | null {
  const { title, answer: shape, doing } = check;
  if (answer.kind === 'number' && shape.kind === 'number') {
    return {
      title: title.slice(0, 80),
      unit: shape.unit satisfies Extract<AnswerShape, { kind: 'number' }>['unit'],
      before: null,
      after: answer.value,
      expected: expected?.kind === 'number' ? expected.value : null,
    };
  }
  if (answer.kind === 'points' && doing.does === 'compare') {
    const as = shape.kind === 'points' ? (shape.as ?? 'follows') : 'follows';
    const should = expected?.kind === 'points' ? expected : null;
    if (as !== 'follows') return ofPair(title, as, answer, should);
    return {
      title: `Crack, ${title}`.slice(0, 80),
      unit: 'psi',
      before: null,
      after: crackOf(check, answer, at?.unit),
      expected: should ? crackOf(check, should, at?.unit) : null,
    };
  }
  return null;
}

/** The crack pressure of a curve, by the one function that the bench has it by too; null where the points do not say. */
export function crackOf(check: Check, answer: CheckAnswer, unit?: Unit): number | null {
  const figures = figuresOfCheck(check, answer, unit);
  if (!figures || 'wants' in figures) return null;
  return figures.find(({ id }) => id === 'crack')?.value ?? null;
}
