import type { AnyFact, AnyHeader, FieldProblem } from '@keen-bleed/contract';
import { inOrder } from '../facts/factOrder';
import type { LogFold, LogKind, LogState } from './logKind';

/** Most facts a log takes; a long double takes about a hundred. */
export const MOST_FACTS = 5_000;
/** More that are taken so that a full log can still be closed and its clock set right. */
const TO_FINISH = 20;

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
  private readonly ids: Set<string>;
  private readonly lastOf = new Map<string, { seq: number; atMs: number }>();
  private folded: LogFold<F, S>;

  constructor(
    readonly kind: LogKind<H, F, S>,
    readonly header: H,
    facts: readonly F[] = [],
  ) {
    this.ordered = inOrder(facts);
    this.ids = new Set(this.ordered.map(({ id }) => id));
    for (const fact of this.ordered) this.note(fact);
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
    return this.ids.has(factId);
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
    const own = this.kind.admit(this.state, fact) ?? this.timeProblem(fact);
    return own && { code: 'not-right', ...own };
  }

  /** Adds a fact that was admitted. */
  add(fact: F): void {
    const last = this.ordered.at(-1);
    this.ids.add(fact.id);
    if (last && last.lane !== fact.lane) {
      // Another device's: where it belongs among the others has to be looked for.
      this.ordered = inOrder([...this.ordered, fact]);
      this.folded = this.kind.fold(this.header, this.ordered);
    } else {
      this.ordered = [...this.ordered, fact];
      this.folded.add(fact);
    }
    this.note(fact);
  }

  private note({ lane, seq, atMs }: F): void {
    const before = this.lastOf.get(lane);
    this.lastOf.set(lane, {
      seq: Math.max(seq, before?.seq ?? 0),
      atMs: Math.max(atMs, before?.atMs ?? 0),
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
    if (!this.state.closed || fact.kind === 'clock') return null;
    if (this.kind.takesLate(this.state, fact)) return null;
    return {
      code: 'log-closed',
      field: 'kind',
      message: `This ${this.kind.name} is closed: nothing can be added.`,
    };
  }

  private targetProblem(fact: F): LogProblem | null {
    if (fact.kind !== 'retract' || this.ids.has(fact.target)) return null;
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
