import type { ChainStanding } from './log/chain';
import type { FactStamp } from './log/fact';
import type { LogKindName } from './log/header';
import type { LogShapes } from './log/kinds';
import type { Verdict } from './choices';
import type { Figure } from './outcome';
import type { RuleSet } from './ruleSet';
import type { Unit } from './unit';

/** A failed figure or look that nothing has proven right since. */
export interface OpenFailure {
  /** What failed: `figure:` and its id, or `look:` with step and thing looked at. */
  key: string;
  /** The newest run in which it failed. */
  runId: string;
  /** When it first did, of the failures in a row. */
  sinceMs: number;
  /** The units it stands on, front to rear. */
  unitIds: string[];
  title: string;
  /** The figure, so that its numbers can be shown in any unit; null for a look. */
  figure: Figure | null;
  /** What was found, for a look. */
  said: string | null;
  /** Its rule set takes the vehicle out of service for it. */
  critical?: boolean;
  /** The rule set it failed by; not said by earlier versions. */
  ruleSetId?: string;
}

/** A unit as the yard lists it. */
export interface YardRow {
  unit: Pick<
    Unit,
    'id' | 'number' | 'name' | 'kind' | 'revision' | 'testEveryDays' | 'retiredAtMs'
  >;
  /** The newest closed run that tested it whole, or none. */
  last: {
    runId: string;
    closedAtMs: number;
    verdict: Verdict;
    /** The clock of its device could not be told; a failure then counts as the newest. */
    timeUnsure: boolean;
    headline: string;
    /** The figure the verdict hangs on, so that its numbers can be shown in any unit. */
    decisive: Figure | null;
  } | null;
  /** The newest run since then that tested only what repairs owed, or none; not said by earlier versions. */
  retest?: { runId: string; closedAtMs: number; verdict: Verdict } | null;
  /** The newest whole run that passed: what the next due date is counted from. */
  lastCompleteAtMs: number | null;
  /** A run still open on this unit, or none. */
  open: { runId: string; startedAtMs: number; by: string } | null;
  /** Static leak of the newest complete runs, oldest first, psi/min. */
  leakTrendPsiPerMin: number[];
  /** What has failed on it and was not proven right since, the oldest first. */
  failures: OpenFailure[];
  /** Why it may not leave, each in words; empty where it may. */
  holds: string[];
  /** Open jobs on it. */
  jobs: { id: string; line: string; station: string; owed: string[]; covers: string[] }[];
}

/** A run as a rig sheet lists it. */
export interface RunRow {
  id: string;
  unitId: string;
  /** What ran: a unit's title, or those of a rig, front to rear. */
  rigTitle: string;
  ruleSetTitle: string;
  /** The tanks were drained in it. */
  drained: boolean;
  startedAtMs: number;
  closedAtMs: number | null;
  /** The clock of its device could not be told: among others its place is not sure. */
  timeUnsure: boolean;
  by: string;
  verdict: Verdict | null;
  headline: string | null;
  decisive: Figure | null;
  figures: RunRowFigure[];
  /** It tested only what a repair owed. */
  retest?: boolean;
}

/** A figure of a run, small enough for lists and trends. */
export type RunRowFigure = Pick<Figure, 'id' | 'value' | 'atMost' | 'unit' | 'verdict' | 'limit'>;

/** A fact as the server holds it: with who handed it in. */
export type HeldFact<F extends FactStamp> = F & { receivedAtMs: number };

/** A log with all its facts. */
export interface LogRecord<K extends LogKindName = LogKindName> {
  header: LogShapes[K]['header'];
  facts: HeldFact<LogShapes[K]['fact']>[];
  /** Names of those who wrote in it, by lane. */
  writers: Readonly<Record<string, string>>;
  /** Who opened it. */
  by: string;
  byPersonId: string;
  /** By the server's clock, as far as the device's offset is known; never later than it was received. */
  startedAtMs: number;
  closedAtMs: number | null;
  /** The clock of its device could not be told. */
  timeUnsure: boolean;
  /** Whether what is kept is what was recorded; absent in what an older server said. */
  chain?: ChainStanding;
  /** Other logs of the same kind on the same units at the same time: both records stand. */
  overlapping: { logId: string; by: string; startedAtMs: number; closedAtMs: number | null }[];
}

/** A log as lists show it. */
export interface LogRow {
  id: string;
  kind: LogKindName;
  unitId: string;
  rigId: string | null;
  /** What it is on: a unit's title, or those of a rig, front to rear. */
  title: string;
  /** What it comes to, as far as it has come. */
  headline: string;
  startedAtMs: number;
  closedAtMs: number | null;
  by: string;
  byPersonId: string;
  facts: number;
}

/** The rule sets a shop may run by, and the one it takes when none is picked. */
export interface RuleSetList {
  sets: RuleSet[];
  defaultId: string;
}
