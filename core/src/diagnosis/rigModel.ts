import { checksOf, doAll } from '../checks/index';
import type { Check, CheckAnswer } from '../checks/check';
import { climbing } from '../bench/curve';
import { hasCompressor } from '../rig/hasCompressor';
import type { RigUnderTest } from '../rig/rigUnderTest';
import type { Effect } from '../twin/effects';
import type { Fault } from '../twin/faults/fault';
import { effectsOf } from '../twin/faults/fault';
import { faultsOf } from '../twin/faults/faultsOf';
import { dashRun } from '../twin/routine/dashRun';
import { played } from '../twin/routine/player';
import { drawRig } from '../twin/spread/drawnRig';
import type { Known } from '../twin/spread/spreadOf';
import { Twin, type TwinSite } from '../twin/twin';
import {
  lampFigures,
  measured,
  numberFigures,
  runFigures,
  type LampFigure,
  type NumberFigure,
  type RunFigures,
} from './runFigures';

/** Severities at which a fault's run is made; between them it is interpolated. */
export const RUN_AT = [0.1, 0.4, 0.55, 0.7, 0.85, 1] as const;
/** Severities at which checks are done on it. */
export const CHECKED_AT = [0.2, 0.6, 1] as const;
/** Sound rigs that a run is made on, and that every check is done on. */
export const SOUND_RUNS = 40;
export const SOUND_CHECKED = 30;
/** So few are enough to begin with. */
const LEAST_SOUND_RUNS = 8;
const ENOUGH_SOUND_RUNS = 20;
const LEAST_SOUND_CHECKED = 4;
const FOUND_PSI = 70;

/** What a run shows, in the measure of the figures; null where a figure did not come. */
export interface ShownByRun {
  numbers: readonly (number | null)[];
  /** Between severities: how far each number may lie off the straight line; one standard deviation. */
  unsure?: readonly number[];
  lamps: Readonly<Partial<Record<LampFigure, number>>>;
}

/** What sound rigs like this one show: the mean of each number, in its measure. */
export interface SoundRuns {
  mean: readonly number[];
}

/** What sound rigs like this one answer to a check. */
export interface SoundAnswers {
  /** Of a number, or of what comes out for what goes in where points are asked for. */
  mean: number;
  deviation: number;
  /** What each drawn rig gave; null where it gave no number. */
  drawn: readonly (number | null)[];
  /** Of grades and choices: how often each came. */
  shares: Readonly<Record<string, number>>;
}

/** A table that another thread, or an earlier day, has worked out. */
export interface KeptTable {
  runs: Readonly<Record<string, ShownByRun>>;
  answers: Readonly<Record<string, Readonly<Record<string, CheckAnswer>>>>;
  soundRuns: readonly ShownByRun[];
  soundAnswers: readonly Readonly<Record<string, CheckAnswer>>[];
}

/** What is worked out next, and how much of it there is. */
export interface Progress {
  done: number;
  of: number;
}

const keyOf = (fault: string | null, severity: number) =>
  fault === null ? 'sound' : `${fault} @${severity}`;

export interface ModelOptions extends Known, Pick<TwinSite, 'outsideC' | 'heightM' | 'load'> {
  /** Linked gauges on supply and a service line belong to the run. */
  channels?: boolean;
}

/**
 * What a rig would show: each of its faults on a twin, and sound rigs drawn from its spread. Worked out as it is asked
 * for and remembered; `prepare` works out the rest. It knows nothing of evidence.
 */
export class RigModel {
  readonly faults: readonly Fault[];
  readonly checks: readonly Check[];
  readonly checkById: ReadonlyMap<string, Check>;
  readonly faultById: ReadonlyMap<string, Fault>;
  /** There is a run by the book to be made on it: it has a compressor of its own. */
  readonly hasRun: boolean;
  private readonly runs = new Map<string, ShownByRun>();
  private readonly answers = new Map<string, Map<string, CheckAnswer>>();
  private readonly soundRuns: ShownByRun[] = [];
  private readonly soundAnswers: ReadonlyMap<string, CheckAnswer>[] = [];
  private cachedSound: (SoundRuns & { of: number }) | null = null;
  private readonly underFault = new Map<
    string,
    readonly (ReadonlyMap<string, CheckAnswer> | undefined)[]
  >();
  private readonly cachedAnswers = new Map<string, SoundAnswers>();

  constructor(
    readonly rig: RigUnderTest,
    readonly options: ModelOptions = {},
  ) {
    this.faults = faultsOf(rig, options.outsideC);
    this.checks = checksOf(rig, this.faults).filter(({ onBench }) => !onBench);
    this.checkById = new Map(this.checks.map((check) => [check.id, check]));
    this.faultById = new Map(this.faults.map((fault) => [fault.id, fault]));
    this.hasRun = hasCompressor(rig.unit.kind);
  }

  /** A run by the book with a fault at one of `RUN_AT`; null for a sound rig as described. */
  run(fault: string | null, severity = 0): ShownByRun {
    const key = keyOf(fault, severity);
    let shown = this.runs.get(key);
    if (!shown) {
      const of = fault === null ? null : this.faultById.get(fault)!;
      // Left and right are one where no fault is on one side alone: the same pressures from fewer places.
      shown = this.play(of ? effectsOf(of, severity) : [], of?.oneSide ? 'apart' : 'alike');
      this.runs.set(key, shown);
    }
    return shown;
  }

  hasRunOf(fault: string, severity: number): boolean {
    return this.runs.has(keyOf(fault, severity));
  }

  /** Answers to some checks with a fault at one of `CHECKED_AT`; null for a sound rig as described. */
  answersTo(
    ids: readonly string[],
    fault: string | null,
    severity = 0,
  ): ReadonlyMap<string, CheckAnswer> {
    const key = keyOf(fault, severity);
    let known = this.answers.get(key);
    if (!known) this.answers.set(key, (known = new Map<string, CheckAnswer>()));
    const missing = ids.filter((id) => !known.has(id));
    if (missing.length > 0) {
      const checks = missing.flatMap((id) => this.checkById.get(id) ?? []);
      const has = fault === null ? [] : [{ fault: this.faultById.get(fault)!, severity }];
      for (const [id, answer] of doAll(this.rig, checks, has, this.options)) known.set(id, answer);
    }
    return known;
  }

  /** What is known of an answer without working anything out. */
  knownAnswer(id: string, fault: string, severity: number): CheckAnswer | undefined {
    return this.answers.get(keyOf(fault, severity))?.get(id);
  }

  /** What was given to every check under a fault, at each severity of the grid; undefined where nothing was done yet. */
  knownUnder(fault: string): readonly (ReadonlyMap<string, CheckAnswer> | undefined)[] {
    const kept = this.underFault.get(fault);
    if (kept) return kept;
    const found = CHECKED_AT.map((severity) => this.answers.get(keyOf(fault, severity)));
    // The maps themselves are added to: once all are there they are found by one look.
    if (found.every((each) => each !== undefined)) this.underFault.set(fault, found);
    return found;
  }

  /** Whether a check was done on a fault at every severity of the grid. */
  knows(id: string, fault: string): boolean {
    return CHECKED_AT.every((severity) => this.knownAnswer(id, fault, severity) !== undefined);
  }

  /** What sound rigs show in a run: from as many as are worked out, a few at least. */
  get sound(): SoundRuns {
    while (this.soundRuns.length < LEAST_SOUND_RUNS) this.drawSoundRun();
    if (this.cachedSound?.of !== this.soundRuns.length) {
      this.cachedSound = { of: this.soundRuns.length, ...soundOf(this.soundRuns) };
    }
    return this.cachedSound;
  }

  /** What each drawn sound rig shows of one number; the same rigs in the same order as with checks. */
  soundColumn(n: number): readonly (number | null)[] {
    void this.sound;
    return this.soundRuns.map(({ numbers }) => numbers[n] ?? null);
  }

  /** What sound rigs answer to a check: from as many as are worked out, a few at least. */
  soundTo(id: string): SoundAnswers {
    while (this.soundAnswers.length < LEAST_SOUND_CHECKED) this.drawSoundAnswers();
    const kept = this.cachedAnswers.get(id);
    if (kept?.drawn.length === this.soundAnswers.length) return kept;
    const found = answersOf(this.soundAnswers.map((answers) => answers.get(id) ?? null));
    this.cachedAnswers.set(id, found);
    return found;
  }

  /** Severities at which a fault's run is known, from the least. */
  runsOf(fault: string): readonly number[] {
    return RUN_AT.filter((severity) => this.hasRunOf(fault, severity));
  }

  /** Every fault's run is known at two severities at least, and enough sound rigs: the rest only sharpens it. */
  get isWhole(): boolean {
    return (
      !this.hasRun ||
      (this.soundRuns.length >= ENOUGH_SOUND_RUNS &&
        this.faults.every(({ id }) => COARSE.every((severity) => this.hasRunOf(id, severity))))
    );
  }

  /**
   * Works out what is not known yet, a piece at a time.
   *
   * @param what `behind` begins at the other end of the runs of all, for a second thread;
   *   runs of some faults first; runs of all at two severities, and of some at every one; checks of some; or
   *   everything
   * @param first those some, by id
   */
  *prepare(
    what: 'first' | 'runs' | 'behind' | 'checks' | 'everything' = 'everything',
    first: readonly string[] = [],
  ): Generator<Progress, void> {
    const work: (() => void)[] = [];
    const ids = this.checks.map(({ id }) => id);
    const some = first.filter((id) => this.faultById.has(id));
    const asked = new Set<string>();
    const run = (fault: string, severity: number) => {
      const key = keyOf(fault, severity);
      if (asked.has(key) || this.runs.has(key)) return;
      asked.add(key);
      work.push(() => this.run(fault, severity));
    };
    let drawn = this.soundRuns.length;
    const soundRuns = (upTo: number) => {
      for (; drawn < upTo; drawn += 1) work.push(() => this.drawSoundRun());
    };
    let answered = this.soundAnswers.length;
    const soundAnswers = (upTo: number) => {
      for (; answered < upTo; answered += 1) work.push(() => this.drawSoundAnswers());
    };
    const check = (fault: string) => {
      for (const severity of CHECKED_AT) {
        if (!this.knowsAll(ids, fault, severity)) {
          work.push(() => this.answersTo(ids, fault, severity));
        }
      }
    };
    if (this.hasRun && what !== 'checks') {
      work.push(() => this.run(null));
      if (what !== 'behind') soundRuns(LEAST_SOUND_RUNS);
      if (what === 'first') {
        for (const severity of COARSE) for (const fault of some) run(fault, severity);
      } else if (what === 'behind') {
        for (const severity of [...COARSE].reverse()) {
          for (const { id } of [...this.faults].reverse()) run(id, severity);
        }
      } else {
        for (const severity of COARSE) for (const { id } of this.faults) run(id, severity);
        soundRuns(ENOUGH_SOUND_RUNS);
        for (const fault of some) for (const severity of RUN_AT) run(fault, severity);
      }
      if (what === 'everything') {
        for (const severity of RUN_ORDER) for (const { id } of this.faults) run(id, severity);
        soundRuns(SOUND_RUNS);
      }
    }
    if (what === 'checks' || what === 'everything') {
      const sound = this.answers.get(keyOf(null, 0));
      if (ids.some((id) => !sound?.has(id))) work.push(() => this.answersTo(ids, null));
      soundAnswers(LEAST_SOUND_CHECKED);
      for (const fault of some) check(fault);
    }
    if (what === 'everything') {
      soundAnswers(SOUND_CHECKED);
      for (const { id } of this.faults) check(id);
    }
    for (const [n, does] of work.entries()) {
      does();
      yield { done: n + 1, of: work.length };
    }
  }

  private knowsAll(ids: readonly string[], fault: string, severity: number): boolean {
    return ids.every((id) => this.knownAnswer(id, fault, severity) !== undefined);
  }

  /** Everything worked out so far, to be kept. */
  table(): KeptTable {
    return {
      runs: Object.fromEntries(this.runs),
      answers: Object.fromEntries(
        [...this.answers].map(([key, answers]) => [key, Object.fromEntries(answers)]),
      ),
      soundRuns: this.soundRuns,
      soundAnswers: this.soundAnswers.map((answers) => Object.fromEntries(answers)),
    };
  }

  /** Takes in what was worked out before of the same rig by the same version. */
  learn({ runs, answers, soundRuns, soundAnswers }: KeptTable): void {
    for (const [key, shown] of Object.entries(runs)) this.runs.set(key, shown);
    for (const [key, given] of Object.entries(answers)) {
      const known = this.answers.get(key) ?? new Map<string, CheckAnswer>();
      for (const [id, answer] of Object.entries(given)) known.set(id, answer);
      this.answers.set(key, known);
    }
    this.soundRuns.push(...soundRuns.slice(this.soundRuns.length));
    for (const given of soundAnswers.slice(this.soundAnswers.length)) {
      this.soundAnswers.push(new Map(Object.entries(given)));
    }
    this.cachedSound = null;
    this.cachedAnswers.clear();
    this.underFault.clear();
  }

  private drawSoundRun(): void {
    const seed = this.soundRuns.length + 1;
    this.soundRuns.push(this.play(drawRig(this.rig, seed, this.options).effects, 'apart'));
  }

  private drawSoundAnswers(): void {
    const seed = this.soundAnswers.length + 1;
    const { effects } = drawRig(this.rig, seed, this.options);
    this.soundAnswers.push(doAll(this.rig, this.checks, [], this.options, effects));
  }

  private play(effects: readonly Effect[], sides: 'apart' | 'alike'): ShownByRun {
    const twin = new Twin(this.rig, { ...this.options, tanksPsi: FOUND_PSI, sides });
    twin.apply(effects);
    const routine = dashRun(twin, { channels: this.options.channels ?? false, ears: false });
    return shownOf(runFigures(played(twin, routine)));
  }
}

/** What every fault is worked out at before the likeliest are worked out at all severities. */
const COARSE: readonly number[] = [0.85, 0.4];
const RUN_ORDER: readonly number[] = [0.7, 0.4, 1, 0.85, 0.55, 0.1];

/** Figures as a model holds them. */
export const shownOf = (figures: RunFigures): ShownByRun => ({
  numbers: numberFigures.map((figure: NumberFigure) => {
    const value = figures[figure];
    return value === undefined ? null : measured(figure, value);
  }),
  lamps: Object.fromEntries(
    lampFigures.flatMap((lamp) => (figures[lamp] === undefined ? [] : [[lamp, figures[lamp]]])),
  ),
});

function soundOf(runs: readonly ShownByRun[]): SoundRuns {
  return {
    mean: numberFigures.map((_, n) => {
      const known = runs.flatMap(({ numbers }) => numbers[n] ?? []);
      return known.length > 0 ? known.reduce((sum, value) => sum + value, 0) / known.length : 0;
    }),
  };
}

/** What a number is, or what comes out for what goes in: the figure that points are compared by. */
export function figureOf(answer: CheckAnswer): number | null {
  if (answer.kind === 'number') return answer.value;
  if (answer.kind !== 'points' || answer.points.length === 0) return null;
  // What stands higher on the way down is the valve's friction, not what it gives.
  const gaps = climbing(answer.points).map(([from, to]) => to - from);
  return gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length;
}

export const saidOf = (answer: CheckAnswer): string | null =>
  answer.kind === 'grade' ? answer.grade : answer.kind === 'choice' ? answer.choice : null;

function answersOf(all: readonly (CheckAnswer | null)[]): SoundAnswers {
  const answers = all.filter((answer) => answer !== null);
  const drawn = all.map((answer) => answer && figureOf(answer));
  const numbers = drawn.filter((value) => value !== null);
  const mean = numbers.reduce((sum, value) => sum + value, 0) / Math.max(1, numbers.length);
  const squares = numbers.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const shares: Record<string, number> = {};
  for (const answer of answers) {
    const said = saidOf(answer);
    if (said !== null) shares[said] = (shares[said] ?? 0) + 1 / answers.length;
  }
  return { mean, deviation: Math.sqrt(squares / Math.max(1, numbers.length - 1)), drawn, shares };
}
