import type { AnyFact, AnyHeader, FieldProblem } from '@keen-bleed/contract';
import { inOrder } from '../facts/factOrder';
import {
  clockAnswers,
  correctedMs,
  isDoubted,
  isUnsure,
  type ClockAnswers,
} from '../facts/factTimes';
import type { LogFold, LogKind, LogState } from './logKind';

/** Most facts a log takes; a long double takes about a hundred. */
export const MOST_FACTS = 5_000;
/** More that are taken so that a full log can still be closed and its clock set right. */
const TO_FINISH = 20;

/** How far a lane has come. */
interface LaneEnd {
  seq: number;
  atMs: number;
  /** How far its clock was ahead at that time; null where nobody knew. */
  offsetMs: number | null;
  /** When its last fact is taken to have been, among those of other lanes. */
  inOrderMs: number;
}

/** What a log's facts say of their times, by the server's clock; the same as `facts/factTimes` finds of all of them. */
export interface LogTimes {
  /** How far clocks were ahead, by lane, where somebody has said it. */
  answers: ClockAnswers;
  /** The latest of them, ms; 0 while there are none. */
  lastMs: number;
  isUnsure: boolean;
  isDoubted: boolean;
}

/** Why a fact is not taken. */
export interface LogProblem extends FieldProblem {
  code: 'not-right' | 'log-closed' | 'log-full' | 'facts-missing' | 'place-taken';
}

/**
 * A log as far as it has come. The device asks it before it records, the server before it stores; both ask here, so
 * that no phone holds a fact the server will not take.
 */
export class FoldedLog<
  H extends AnyHeader = AnyHeader,
  F extends AnyFact = AnyFact,
  S extends LogState = LogState,
> {
  private ordered: F[];
  private readonly byId: Map<string, F>;
  private readonly lastOf = new Map<string, LaneEnd>();
  private timed: LogTimes = { answers: new Map(), lastMs: 0, isUnsure: false, isDoubted: false };
  private folded: LogFold<F, S>;

  constructor(
    readonly kind: LogKind<H, F, S>,
    readonly header: H,
    facts: readonly F[] = [],
  ) {
    this.ordered = inOrder(facts);
    this.byId = new Map(this.ordered.map((fact) => [fact.id, fact]));
    this.noteAll();
    this.folded = kind.fold(header, this.ordered);
  }

  /** Its facts, in their order. */
  get facts(): readonly F[] {
    return this.ordered;
  }

  get state(): S {
    return this.folded.state;
  }

  /** The last place of each lane. */
  get lanes(): Record<string, number> {
    return Object.fromEntries([...this.lastOf].map(([lane, { seq }]) => [lane, seq]));
  }

  has(factId: string): boolean {
    return this.byId.has(factId);
  }

  /** The fact of an id, taken back or not. */
  factOf(factId: string): F | undefined {
    return this.byId.get(factId);
  }

  /** What its facts say of their times. */
  get times(): Readonly<LogTimes> {
    return this.timed;
  }

  /** The latest moment of a lane, and how far its clock was ahead then; null while nothing is in it. */
  latestOf(lane: string): Pick<LaneEnd, 'atMs' | 'offsetMs'> | null {
    return this.lastOf.get(lane) ?? null;
  }

  /** The next place in a lane. */
  nextSeq(lane: string): number {
    return (this.lastOf.get(lane)?.seq ?? 0) + 1;
  }

  /** What is wrong with a fact and what would be right; null where it may be added. */
  admit(fact: F): LogProblem | null {
    const problem =
      this.boundProblem(fact) ??
      this.placeProblem(fact) ??
      this.closedProblem(fact) ??
      this.targetProblem(fact);
    if (problem) return problem;
    const own = this.kind.admit(this.folded, fact) ?? this.timeProblem(fact);
    return own && { code: 'not-right', ...own };
  }

  /** Adds a fact that was admitted. */
  add(fact: F): void {
    this.byId.set(fact.id, fact);
    const isLast = this.comesLast(fact);
    this.ordered = [...this.ordered, fact];
    if (isLast) {
      this.folded.add(fact);
      this.note(fact);
      return;
    }
    // Another device's, or what a clock was worth: where each belongs among the others has to be looked for.
    this.ordered = inOrder(this.ordered);
    this.noteAll();
    this.folded = this.kind.fold(this.header, this.ordered);
  }

  /** Whether a fact stands after all that is there, as {@link inOrder} would have it. */
  private comesLast(fact: F): boolean {
    if (fact.kind === 'clock') return false;
    const last = this.ordered.at(-1);
    if (!last || last.lane === fact.lane) return true;
    const lastMs = this.lastOf.get(last.lane)?.inOrderMs ?? 0;
    const ownMs = this.inOrderMs(fact);
    return ownMs > lastMs || (ownMs === lastMs && fact.lane > last.lane);
  }

  /** When a fact is taken to have been among those of other lanes. */
  private inOrderMs(fact: F): number {
    const before = this.lastOf.get(fact.lane)?.inOrderMs ?? -Infinity;
    return Math.max(before, correctedMs(fact, this.timed.answers.get(fact.lane)));
  }

  private noteAll(): void {
    const answers = clockAnswers(this.ordered);
    this.timed = { answers, lastMs: 0, isUnsure: false, isDoubted: false };
    this.lastOf.clear();
    for (const fact of this.ordered) this.note(fact);
  }

  private note(fact: F): void {
    const { lane, seq, atMs, offsetMs } = fact;
    const { answers } = this.timed;
    this.timed.lastMs = Math.max(this.timed.lastMs, correctedMs(fact, answers.get(lane)));
    this.timed.isUnsure ||= isUnsure(fact, answers);
    this.timed.isDoubted ||= isDoubted(fact, answers);
    const before = this.lastOf.get(lane);
    const latest = before && before.atMs > atMs ? before : { atMs, offsetMs };
    this.lastOf.set(lane, {
      seq: Math.max(seq, before?.seq ?? 0),
      atMs: latest.atMs,
      offsetMs: latest.offsetMs,
      inOrderMs: this.inOrderMs(fact),
    });
  }

  private boundProblem(fact: F): LogProblem | null {
    const most =
      fact.kind === 'close' || fact.kind === 'clock' ? MOST_FACTS + TO_FINISH : MOST_FACTS;
    if (this.ordered.length < most) return null;
    return {
      code: 'log-full',
      field: 'seq',
      message: `This ${this.kind.name} is full: it takes ${MOST_FACTS} entries. Finish it and start another.`,
    };
  }

  private placeProblem({ lane, seq }: F): LogProblem | null {
    const next = this.nextSeq(lane);
    if (seq === next) return null;
    return {
      code: seq > next ? 'facts-missing' : 'place-taken',
      field: 'seq',
      message: `The next place in this lane is ${next}.`,
    };
  }

  private closedProblem(fact: F): LogProblem | null {
    if (fact.kind === 'clock' || this.kind.takesLate(this.folded, fact)) return null;
    if (!this.state.closed) return null;
    return {
      code: 'log-closed',
      field: 'kind',
      message: `This ${this.kind.name} is closed: nothing can be added.`,
    };
  }

  private targetProblem(fact: F): LogProblem | null {
    if (fact.kind !== 'retract' || this.byId.has(fact.target)) return null;
    return {
      code: 'not-right',
      field: 'target',
      message: 'There is no such entry to take back.',
    };
  }

  /** Within a lane time goes on; what is corrected keeps its time. */
  private timeProblem(fact: F): FieldProblem | null {
    if (fact.kind === 'retract' || fact.kind === 'clock') return null;
    if ('supersedes' in fact && fact.supersedes !== undefined) return null;
    const lastAtMs = this.lastOf.get(fact.lane)?.atMs ?? 0;
    if (fact.atMs >= lastAtMs) return null;
    const backS = Math.ceil((lastAtMs - fact.atMs) / 1000);
    return {
      field: 'atMs',
      message: `The clock went back by ${backS} s since the mark before. Set it right; then take this again.`,
    };
  }
}
