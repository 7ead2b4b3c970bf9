import { climbing } from '../bench/curve';
import { pairFigures, type PairKind } from '../bench/pairs';
import type { JobReading } from '@keen-bleed/contract';
import type { Retest } from '../repair/retests';
import type { RetestOutcome } from '../repair/retestOutcome';
import type { AnswerShape, Check, CheckAnswer } from './check';
import { apart, TELLS } from './tells';

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
    case 'soap':
      return checks.filter((each) => own(each) && each.doing.does === 'wet');
  }
}

/** From so much delivery on a valve passes air, psi. */
const PASSES_PSI = 1;

/** The control pressure at which delivery begins, psi, between the points that bracket it; null where none does. */
export function crackOf(points: readonly (readonly [from: number, to: number])[]): number | null {
  // The way up alone: friction holds more at the outlet going down.
  const sorted = climbing(points).sort(([a], [b]) => a - b);
  const at = sorted.findIndex(([, to]) => to >= PASSES_PSI);
  const here = sorted[at];
  if (!here) return null;
  const before = sorted[at - 1];
  if (!before) return here[0];
  const share = (PASSES_PSI - before[1]) / Math.max(1e-9, here[1] - before[1]);
  return before[0] + share * (here[0] - before[0]);
}

/** Shapes in which less is better: a fall, a time, a stroke. */
const LESS_IS_BETTER: ReadonlySet<string> = new Set(['psi/min', 's', 'mm']);

/**
 * What a check's answer comes to beside what the rig's twin says a sound rig gives. It fails where the two lie further
 * apart than gauges and sound rigs differ, on the side that is worse.
 *
 * @param expected what a sound rig of this description gives
 */
export function judgeAnswer(
  check: Check,
  answer: CheckAnswer,
  expected: CheckAnswer,
): RetestOutcome {
  const reading = readingOf(check, answer, expected);
  const readings = reading ? [reading] : [];
  const said = (verdict: RetestOutcome['verdict'], text: string): RetestOutcome => ({
    verdict,
    said: `${check.title}: ${text}`.slice(0, 300),
    readings,
  });
  const { answer: shape } = check;
  if (answer.kind === 'grade' && expected.kind === 'grade' && shape.kind === 'grade') {
    const rank = (id: string) => shape.grades.findIndex((grade) => grade.id === id);
    const title = shape.grades[rank(answer.grade)]?.title ?? answer.grade;
    return said(rank(answer.grade) <= rank(expected.grade) ? 'pass' : 'fail', title);
  }
  if (answer.kind === 'choice' && expected.kind === 'choice' && shape.kind === 'choice') {
    const title = shape.choices.find(({ id }) => id === answer.choice)?.title ?? answer.choice;
    return said(answer.choice === expected.choice ? 'pass' : 'fail', title);
  }
  if (answer.kind === 'points' && answer.points.length < 2)
    return said('cant-tell', 'two points at least are wanted');
  const by = apart(check, answer, expected);
  const isBetter =
    answer.kind === 'number' &&
    expected.kind === 'number' &&
    shape.kind === 'number' &&
    LESS_IS_BETTER.has(shape.unit) &&
    answer.value <= expected.value;
  const text = reading
    ? `${number(reading.after)} ${reading.unit}, ${number(reading.expected)} expected`
    : 'as expected';
  return said(by < TELLS || isBetter ? 'pass' : 'fail', text);
}

const number = (value: number | null) =>
  value === null ? 'none' : String(Math.round(value * 10) / 10);

type Points = Extract<CheckAnswer, { kind: 'points' }>;

/** From line to line of the dials a shop has, psi. */
const DIVISION_PSI = 2;

/** What two ports that do not follow one another come to, by the first figure of theirs that is a pressure. */
function ofPair(title: string, as: PairKind, answer: Points, expected: Points): JobReading | null {
  const first = ({ points, compared = false }: Points) => {
    const figures = pairFigures(as, points, { divisionPsi: DIVISION_PSI, compared });
    return 'wants' in figures ? undefined : figures.find(({ unit }) => unit === 'psi');
  };
  const [after, should] = [first(answer), first(expected)];
  if (!after || !should) return null;
  return {
    title: `${after.title}, ${title}`.slice(0, 80),
    unit: 'psi',
    before: null,
    after: after.value,
    expected: should.value,
  };
}

function readingOf(
  { title, answer: shape, doing }: Check,
  answer: CheckAnswer,
  expected: CheckAnswer,
): JobReading | null {
  if (answer.kind === 'number' && expected.kind === 'number' && shape.kind === 'number') {
    return {
      title: title.slice(0, 80),
      unit: shape.unit satisfies Extract<AnswerShape, { kind: 'number' }>['unit'],
      before: null,
      after: answer.value,
      expected: expected.value,
    };
  }
  if (answer.kind === 'points' && expected.kind === 'points' && doing.does === 'compare') {
    const as = shape.kind === 'points' ? (shape.as ?? 'follows') : 'follows';
    if (as !== 'follows') return ofPair(title, as, answer, expected);
    return {
      title: `Crack, ${title}`.slice(0, 80),
      unit: 'psi',
      before: null,
      after: crackOf(answer.points),
      expected: crackOf(expected.points),
    };
  }
  return null;
}
