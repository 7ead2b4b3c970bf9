import type {
  AnyFact,
  AnyHeader,
  Figure,
  FieldProblem,
  LogKindName,
  Role,
  RunRowFigure,
  Verdict,
} from '@keen-bleed/contract';

/** What a log comes to, small enough for lists. */
export interface LogSummary {
  /** Null where nothing is judged. */
  verdict: Verdict | null;
  headline: string;
  /** What has still to be done about it, in words. */
  owes: readonly string[];
  /** The figure the verdict hangs on. */
  decisive: Figure | null;
  figures: readonly RunRowFigure[];
  /** The number the yard follows from one log to the next: static leak, psi/min. */
  trend: number | null;
  /** The tanks were drained in it. */
  drained: boolean;
  /** A job as its board shows it. */
  board?: unknown;
}

/** Facts folded so far; more can be added, each after those that are there. */
export interface LogFold<F, S> {
  add: (fact: F) => void;
  readonly state: S;
}

/** What every kind's state says of its log. */
export interface LogState {
  /** When it was closed, by the clock of the device that closed it. */
  closed: { atMs: number } | null;
}

/** A kind of log: how its facts are folded, taken, judged, and brought up from earlier versions. */
export interface LogKind<
  H extends AnyHeader = AnyHeader,
  F extends AnyFact = AnyFact,
  S extends LogState = LogState,
  Fold extends LogFold<F, S> = LogFold<F, S>,
> {
  name: LogKindName;
  /** Version of the shape of its header and facts. */
  version: number;
  /** Whether only the person who opened it adds to it, or everybody of the shop who may record. */
  writers: 'opener' | 'shop';
  /** Whether a fact that comes after it was closed is still taken: others may not have heard of the closing. */
  takesLate(fold: Fold, fact: F): boolean;
  /** Folds facts that stand in order. */
  fold: (header: H, facts: readonly F[]) => Fold;
  /** What a role may not record, in words; null where it may. The server's own facts nobody sends. */
  mayNot?: (role: Role, fact: F) => string | null;
  /** What only this kind knows to be wrong with a fact; null where it may be added. */
  admit(fold: Fold, fact: F): FieldProblem | null;
  summary: (header: H, state: S) => LogSummary;
  /** All that was computed, to be kept with the core's version; null where nothing is. */
  result: (header: H, state: S) => unknown;
  /** Migrations: number n takes what stands in version n to version n + 1. */
  upcast: Readonly<Record<number, Migration>>;
}

/** One step from a version to the next. What comes in is no longer described by any type. */
export interface Migration {
  header: (old: Record<string, unknown>, facts: readonly Record<string, unknown>[]) => unknown;
  fact: (old: Record<string, unknown>, header: { id: string }) => unknown;
}
