import type { GaugeRole, Verdict } from './choices';
import type { RunEvent } from './event';
import type { Figure, Outcome } from './outcome';
import type { OpenRun } from './run';
import type { RuleSet } from './ruleSet';
import type { Unit } from './unit';

/** A unit as the yard lists it. */
export interface YardRow {
  unit: Pick<
    Unit,
    'id' | 'number' | 'name' | 'kind' | 'revision' | 'testEveryDays' | 'retiredAtMs'
  >;
  /** The newest closed run, or none. */
  last: {
    runId: string;
    closedAtMs: number;
    verdict: Verdict;
    headline: string;
    /** The figure the verdict hangs on, so that its numbers can be shown in any unit. */
    decisive: Figure | null;
  } | null;
  /** The newest complete run: what the next due date is counted from. */
  lastCompleteAtMs: number | null;
  /** A run still open on this unit, or none. */
  open: { runId: string; startedAtMs: number; by: string } | null;
  /** Static leak of the newest complete runs, oldest first, psi/min. */
  leakTrendPsiPerMin: number[];
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
  by: string;
  verdict: Verdict | null;
  headline: string | null;
  decisive: Figure | null;
  figures: RunRowFigure[];
}

/** A figure of a run, small enough for lists and trends. */
export type RunRowFigure = Pick<Figure, 'id' | 'value' | 'atMost' | 'unit' | 'verdict' | 'limit'>;

/** A run with all its facts. */
export interface RunRecord {
  header: OpenRun;
  by: string;
  byPersonId: string;
  closedAtMs: number | null;
  gauge: GaugeRole | null;
  events: RunEvent[];
  outcome: Outcome | null;
  /** Other runs of the same units at the same time: two phones were at work, and both records stand. */
  overlapping: { runId: string; by: string; startedAtMs: number; closedAtMs: number | null }[];
}

/** The rule sets a shop may run by, and the one it takes when none is picked. */
export interface RuleSetList {
  sets: RuleSet[];
  defaultId: string;
}
