import type { LogKindName, Outcome, RunHeader } from '@keen-bleed/contract';
import { markRows } from '../../reading/markRows';
import type { RunState } from '../../run/runState';
import { FoldedLog } from '../foldedLog';
import { anyLogKind } from '../logKinds';
import { outcomeOfRun } from '../kinds/run/runKind';
import type { JobState } from '../../repair/jobState';
import type { VisitState } from '../kinds/visit/visitKind';
import { upToDate, type OldLog } from '../upToDate';

/** A record as some version kept it, and what it said then. */
export interface Golden extends OldLog {
  kind: LogKindName;
  coreVersion: string;
  /** What was asked, answered and marked: no later version may read it otherwise. */
  means: unknown;
  /** What that version judged; a later one may judge otherwise, under a version of its own. */
  judged: unknown;
}

/** What a record means: what was asked, found and marked, with nothing judged. */
export function meaningOf(kind: LogKindName, old: OldLog): { means: unknown; judged: unknown } {
  const { header, facts } = upToDate(anyLogKind(kind), old);
  const log = new FoldedLog(anyLogKind(kind), header as never, facts as never);
  if (kind === 'visit') {
    const { entries, closed } = log.state as VisitState;
    return {
      means: { entries, closed },
      judged: anyLogKind('visit').summary(log.header, log.state),
    };
  }
  if (kind === 'job') {
    const { told, earlier, refused } = log.state as JobState;
    return {
      means: { told, earlier, refused },
      judged: anyLogKind('job').summary(log.header, log.state),
    };
  }
  const state = log.state as RunState;
  const outcome: Outcome = outcomeOfRun(log.header as RunHeader, state);
  return {
    means: {
      gauge: state.gauge,
      closed: state.closed,
      findings: outcome.findings,
      skipped: outcome.skipped,
      notes: outcome.notes,
      marks: markRows(state, log.facts as never).map(
        ({ seq, deviceTimeUtc, step, mark, readingPsi, method, state: stands }) => ({
          seq,
          deviceTimeUtc,
          step,
          mark,
          readingPsi,
          method,
          state: stands,
        }),
      ),
    },
    judged: outcome,
  };
}
