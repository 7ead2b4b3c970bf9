import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import type { Check, CheckAnswer, Senses } from '../checks/check';
import { HEARD, SOAPED } from '../checks/grades';
import { NOTHING } from '../checks/walkChecks';
import type { AnswerEvidence, RunEvidence } from './evidence';
import { figureOf, saidOf, type RigModel, type ShownByRun } from './rigModel';
import {
  lampFigures,
  modelOff,
  numberFigures,
  READ_BY_EYE,
  shiftMeasured,
  type NumberFigure,
} from './runFigures';

/** Readings stray further than the normal law allows; this law's degrees of freedom. */
const DEGREES = 5;
/** What a fault does to a figure is known to this share of it. */
const SHIFT_OFF = 0.15;
/** A lamp is written down wrongly so often. */
const LAMP_WRONG = 0.02;
/** A needle shows its pressure within 7 % of cut-out, evenly [std: 49 CFR 571.121 S5.1.4, value from memory]; psi. */
export const NEEDLE_SD_PSI = (0.07 * 125) / Math.sqrt(3);
/** A dash gauge that was compared with a master gauge is known to this, psi. */
const CHECKED_SD_PSI = 1;

/** Which needle each figure is read from; both where the higher or lower of two is taken. */
const READ_FROM: Readonly<
  Partial<Record<NumberFigure, readonly [primary: number, secondary: number]>>
> = {
  'cut-out': [0.5, 0.5],
  'cut-in': [0.5, 0.5],
  warning: [0.5, 0.5],
  red: [0.5, 0.5],
  yellow: [0.5, 0.5],
};

/** A number of today, and what a sound rig shows of it, in its measure. */
export interface JointNumber {
  /** Where it stands in a shift. */
  row: number;
  figure: NumberFigure | null;
  check: Check | null;
  seen: number;
  mean: number;
  /** One standard deviation of a sound rig, as it is read. */
  deviation: number;
  /** By this rig's own earlier runs. */
  byPast: boolean;
}

/** A number that was found: a figure of a run, or the answer to a check. */
interface Entry {
  figure: NumberFigure | null;
  check: Check | null;
  /** From before: no fault of today moves it. */
  isPast: boolean;
  /** In its measure. */
  seen: number;
  mean: number;
  /** What each drawn sound rig shows; null where it does not. */
  drawn: readonly (number | null)[];
  /** Variance of reading it, and of the model. */
  own: number;
}

/**
 * Every number of one time, a run's and the checks', weighed together: what makes sound rigs differ moves many of them
 * at once, so one covariance is common to all.
 */
export class JointWeigher {
  private readonly entries: readonly Entry[];
  private readonly base: Matrix;
  private readonly nominal: ShownByRun | null;

  constructor(
    private readonly model: RigModel,
    readonly run: RunEvidence | null,
    answers: readonly AnswerEvidence[],
  ) {
    this.nominal = run ? model.run(null) : null;
    const numbers = answers.flatMap(({ checkId, answer }): Entry[] => {
      const check = model.checkById.get(checkId);
      const seen = figureOf(answer);
      if (!check || seen === null) return [];
      const { mean, drawn } = model.soundTo(checkId);
      const own = answerDeviation(check, 0, 0) ** 2;
      return [{ figure: null, check, isPast: false, seen, mean, drawn, own }];
    });
    this.entries = [...(run ? this.figuresOf(run) : []), ...numbers];
    const turns = run?.turnsUnknown ? TURNS_UNKNOWN ** 2 : 0;
    const needle = run?.gaugeChecked ? CHECKED_SD_PSI : NEEDLE_SD_PSI;
    this.base = Matrix.zeros(this.entries.length, this.entries.length);
    this.entries.forEach((one, row) => {
      this.entries.forEach((other, column) => {
        const [ap = 0, as = 0] = (one.figure && READ_FROM[one.figure]) ?? [];
        const [bp = 0, bs = 0] = (other.figure && READ_FROM[other.figure]) ?? [];
        const common =
          needle ** 2 * (ap * bp + as * bs) +
          (one.figure === 'build-up' && other.figure === 'build-up' ? turns : 0);
        const both = covarianceOf(one, other) * (row === column ? 1 : BELIEVED);
        const before = one.isPast === other.isPast ? 1 : SAME_AS_BEFORE;
        this.base.set(row, column, before * (both + common) + (row === column ? one.own : 0));
      });
    });
  }

  private figuresOf(run: RunEvidence): Entry[] {
    const { usual } = run;
    return [
      ...this.entriesOf(run.figures, (figure) => run.doubt?.[figure] ?? READ_BY_EYE[figure], false),
      // A median of several runs is read the better the more there are.
      ...(usual && usual.runs > 0
        ? this.entriesOf(
            usual.figures,
            (figure) => READ_BY_EYE[figure] * Math.sqrt(1 / usual.runs + LEAST_PAST),
            true,
          )
        : []),
    ];
  }

  private entriesOf(
    figures: RunEvidence['figures'],
    doubt: (figure: NumberFigure) => number,
    isPast: boolean,
  ): Entry[] {
    const { mean } = this.model.sound;
    return numberFigures.flatMap((figure, n): Entry[] => {
      const value = figures[figure];
      if (value === undefined || this.nominal?.numbers[n] == null) return [];
      const { at, slope } = shiftMeasured(figure, value);
      return [
        {
          figure,
          check: null,
          isPast,
          seen: at,
          mean: mean[n]!,
          drawn: this.model.soundColumn(n),
          own: (doubt(figure) * slope) ** 2 + modelOff(figure) ** 2,
        },
      ];
    });
  }

  /** Each number of today beside what a sound rig would show: this one's own earlier runs tell that best, where it has some. */
  numbers(): readonly JointNumber[] {
    return this.entries.flatMap(({ figure, check, isPast, seen, mean }, row): JointNumber[] => {
      if (isPast) return [];
      const past = figure ? this.entries.findIndex((e) => e.isPast && e.figure === figure) : -1;
      const own = this.base.get(row, row);
      if (past < 0) {
        const deviation = Math.sqrt(own);
        return [{ row, figure, check, seen, mean, deviation, byPast: false }];
      }
      const both = this.base.get(row, past);
      const before = this.base.get(past, past);
      const { seen: was, mean: usual } = this.entries[past]!;
      return [
        {
          row,
          figure,
          check,
          seen,
          mean: mean + (both / before) * (was - usual),
          deviation: Math.sqrt(Math.max(1e-9, own - (both * both) / before)),
          byPast: true,
        },
      ];
    });
  }

  /** One standard deviation of each number of a sound rig, as it was read, in its measure. */
  deviation(row: number): number {
    return Math.sqrt(this.base.get(row, row));
  }

  /**
   * What a cause moves: a shift of every number in its measure.
   *
   * @param shown what a run shows under it
   * @param would what it would answer to a check
   */
  shiftOf(shown: ShownByRun | null, would: (check: Check) => WouldAnswer): readonly number[] {
    return this.entries.map(({ figure, check, isPast }) => {
      if (isPast) return 0;
      if (check) return would(check).shift;
      const n = numberFigures.indexOf(figure!);
      const from = this.nominal?.numbers[n] ?? null;
      const to = shown?.numbers[n] ?? null;
      return from === null || to === null ? 0 : to - from;
    });
  }

  /** How far each shift may lie off, as a variance. */
  unsureOf(shown: ShownByRun | null, would: (check: Check) => WouldAnswer): readonly number[] {
    return this.entries.map(({ figure, check, isPast }) =>
      isPast
        ? 0
        : check
          ? would(check).unsure ** 2
          : (shown?.unsure?.[numberFigures.indexOf(figure!)] ?? 0) ** 2,
    );
  }

  /** A doubt or a variance of figures, laid out as the numbers stand here. */
  laidOut(of: (figure: NumberFigure | null, row: number) => number): readonly number[] {
    return this.entries.map(({ figure, isPast }, row) => (isPast ? 0 : of(figure, row)));
  }

  /**
   * Logarithm of how likely these numbers are under a shift.
   *
   * @param along what else moves numbers together: a vector of rank one
   * @param loose variances on top, for what is not in the list
   */
  logLikelihood(
    shift: readonly number[] | null,
    along: readonly number[] | null = null,
    loose: readonly number[] | null = null,
  ): number {
    const size = this.entries.length;
    if (size === 0) return 0;
    const spread = this.base.clone();
    for (let row = 0; row < size; row += 1) {
      const own = (SHIFT_OFF * (shift?.[row] ?? 0)) ** 2 + (loose?.[row] ?? 0);
      spread.set(row, row, spread.get(row, row) + own);
      if (!along || along[row] === 0) continue;
      for (let column = 0; column < size; column += 1) {
        spread.set(row, column, spread.get(row, column) + along[row]! * along[column]!);
      }
    }
    const lower = lowerOf(spread);
    let logDet = 0;
    let squares = 0;
    const solved: number[] = [];
    for (let row = 0; row < size; row += 1) {
      const { seen, mean } = this.entries[row]!;
      let left = seen - mean - (shift?.[row] ?? 0);
      for (let column = 0; column < row; column += 1) {
        left -= lower.get(row, column) * solved[column]!;
      }
      const pivot = lower.get(row, row);
      solved.push(left / pivot);
      logDet += Math.log(pivot);
      squares += (left / pivot) ** 2;
    }
    // The constant that hangs on size alone is the same for every cause.
    return -logDet - ((DEGREES + size) / 2) * Math.log1p(squares / DEGREES);
  }

  /** Logarithm of how likely the lamps are. */
  logLamps(lamps: ShownByRun['lamps']): number {
    let sum = 0;
    for (const lamp of lampFigures) {
      const seen = this.run?.figures[lamp];
      const would = lamps[lamp];
      if (seen === undefined || would === undefined) continue;
      // Between severities a lamp is on for a share of them.
      const on = LAMP_WRONG + (1 - 2 * LAMP_WRONG) * would;
      sum += Math.log(seen > 0.5 ? on : 1 - on);
    }
    return sum;
  }
}

/** Turns of the engine, where nobody wrote them down: one standard deviation of their logarithm. */
const TURNS_UNKNOWN = 0.3;
/** What made a rig differ before still does, to this share: it wears, and is mended. */
const SAME_AS_BEFORE = 0.9;
/** However many runs there were, their median is known no better. */
const LEAST_PAST = 0.1;

/** Of so few draws, what two numbers have in common is believed to this share. */
const BELIEVED = 0.9;

/** So much of what numbers have in common is kept where it is more than their own spread allows. */
const SHRINKS = 0.8;

/**
 * The lower triangle of a covariance. Of few draws, and of more for one number than for another, what two have in common
 * can come out as more than there is: then less of it is believed, until it can be.
 */
export function lowerOf(spread: Matrix): Matrix {
  let cholesky = new CholeskyDecomposition(spread);
  while (!cholesky.isPositiveDefinite()) {
    for (let row = 0; row < spread.rows; row += 1) {
      for (let column = 0; column < spread.columns; column += 1) {
        if (row !== column) spread.set(row, column, SHRINKS * spread.get(row, column));
      }
    }
    cholesky = new CholeskyDecomposition(spread);
  }
  return cholesky.lowerTriangularMatrix;
}

/** What two numbers of sound rigs have in common, over the rigs that show both. */
function covarianceOf(one: Entry, other: Entry): number {
  let sum = 0;
  let count = 0;
  const upTo = Math.min(one.drawn.length, other.drawn.length);
  for (let n = 0; n < upTo; n += 1) {
    const a = one.drawn[n];
    const b = other.drawn[n];
    if (a == null || b == null) continue;
    sum += (a - one.mean) * (b - other.mean);
    count += 1;
  }
  return count > 1 ? sum / (count - 1) : 0;
}

/** A grade that the model has a step off: sound rigs and faults differ, and the model is not the rig. */
const GRADE_OFF = 0.08;
/** A choice that the model has wrong. */
const CHOICE_OFF = 0.03;
/** Somebody who follows a hose or turns a cock sees the fault itself, and is hardly ever wrong. */
const SEEN_WRONG = 0.005;
/** What a fault moves is known to this share of it, where a check reads it. */
const ANSWER_SHIFT_OFF = 0.2;

/** What one cause would answer to a check: the mean of numbers, chances of grades and choices. */
export interface WouldAnswer {
  mean: number;
  shift: number;
  /** How far the shift may lie off: one standard deviation. */
  unsure: number;
  chances: Readonly<Record<string, number>>;
}

/** Chances of each grade or choice where a twin shows one. */
export function chancesOf(
  check: Check,
  shown: string,
  senses: Senses,
): Readonly<Record<string, number>> {
  const { doing, answer } = check;
  if (doing.does === 'listen') {
    if (shown === HEARD[0]) {
      return { quiet: 1 - senses.imagined - 0.02, hiss: senses.imagined + 0.015, blow: 0.005 };
    }
    const heard = 1 - senses.missed;
    return shown === HEARD[1]
      ? { quiet: senses.missed, hiss: 0.9 * heard, blow: 0.1 * heard }
      : { quiet: senses.missed, hiss: 0.15 * heard, blow: 0.85 * heard };
  }
  if (answer.kind === 'grade') {
    const ids = answer.grades.map(({ id }) => id);
    const isSoap = ids[0] === SOAPED[0];
    const at = ids.indexOf(shown);
    const off = isSoap ? senses.soapOff : GRADE_OFF;
    const missed = isSoap ? senses.soapMisses : 0.03;
    const chances = ids.map((_, n) => {
      if (at === 0) return n === 0 ? 0.95 : n === 1 ? 0.04 : 0.01;
      const own = n === at ? 1 - off - missed : Math.abs(n - at) === 1 ? off / 2 : 0.005;
      return own + (n === 0 ? missed : 0);
    });
    const sum = chances.reduce((total, each) => total + each, 0);
    return Object.fromEntries(ids.map((id, n) => [id, chances[n]! / sum]));
  }
  if (doing.does === 'walk' && answer.kind === 'choice')
    return walkChances(doing, answer, shown, senses);
  if (answer.kind === 'choice') {
    const others = answer.choices.length - 1;
    const off = doing.does === 'couplers' || doing.does === 'cock' ? SEEN_WRONG : CHOICE_OFF;
    return Object.fromEntries(
      answer.choices.map(({ id }) => [id, id === shown ? 1 - off : off / others]),
    );
  }
  return {};
}

/** On a walk one thing is taken for another: for a spot of the same part, or for any. */
const WALK_BESIDE = 0.08;
const WALK_ELSEWHERE = 0.05;
const WALK_IMAGINED = 0.04;

function walkChances(
  { of, spots }: Extract<Check['doing'], { does: 'walk' }>,
  { choices }: Extract<Check['answer'], { kind: 'choice' }>,
  shown: string,
  senses: Senses,
): Readonly<Record<string, number>> {
  const missed = (of === 'air' ? senses.missed : senses.lookWrong) + 0.03;
  // What a rod does stands before its place.
  const what = /^(out|idle|late)\./.exec(shown)?.[0] ?? '';
  const at = spots.find(({ id }) => `${what}${id}` === shown);
  const beside = spots
    .filter(({ id, part, unit }) => id !== at?.id && part === at?.part && unit === at.unit)
    .map(({ id }) => `${what}${id}`);
  const elsewhere = shown === NOTHING ? WALK_IMAGINED : WALK_ELSEWHERE;
  const near = beside.length > 0 ? WALK_BESIDE : 0;
  const chances = Object.fromEntries(
    choices.map(({ id }) => [id, elsewhere / (choices.length - 1)]),
  );
  for (const id of beside) chances[id] = chances[id]! + near / beside.length;
  if (shown !== NOTHING) chances[NOTHING] = missed;
  chances[shown] = 0;
  chances[shown] = 1 - Object.values(chances).reduce((sum, each) => sum + each, 0);
  return chances;
}

/** One standard deviation of what a check's number would be, for one cause. */
export function answerDeviation(check: Check, soundDeviation: number, shift: number): number {
  const { answer } = check;
  if (answer.kind !== 'number' && answer.kind !== 'points') return 1;
  // Points err each for itself; their mean errs less.
  const error = answer.kind === 'points' ? answer.error / Math.sqrt(2) : answer.error;
  return Math.hypot(
    error,
    Math.max(answer.spread / 3, soundDeviation),
    answer.resolution / Math.sqrt(12),
    ANSWER_SHIFT_OFF * shift,
  );
}

/** Logarithm of Student's density at a distance, with a scale. */
export const logStudent = (distance: number, scale: number): number =>
  -Math.log(scale) - ((DEGREES + 1) / 2) * Math.log1p((distance / scale) ** 2 / DEGREES);

/** Logarithm of how likely a grade or a choice is, for what a cause would answer. */
export const logSaid = (answer: CheckAnswer, would: WouldAnswer): number =>
  Math.log(Math.max(LEAST_CHANCE, would.chances[saidOf(answer) ?? ''] ?? 0));

/** Nothing that somebody says is impossible. */
const LEAST_CHANCE = 5e-3;
