import type { FieldProblem, JobFact, JobHeader, Role, Unit } from '@keen-bleed/contract';
import { boardOf, type JobBoard } from '../../../repair/board';
import { mayBeTaken, stateOfJob, type JobState } from '../../../repair/jobState';
import { mismatches } from '../../../repair/match';
import { chamberAt } from '../../../rig/chamberAt';
import { partTitle } from '../../../rig/partList';
import type { LogKind, LogSummary } from '../../logKind';
import { SharedFold } from '../../sharedFold';

export const JOB_VERSION = 1;

type JobFold = SharedFold<JobHeader, JobFact, JobState>;

/**
 * A job: from what was found to a proven release. Everybody of the shop writes in it, on as many phones as there are;
 * what was recorded without network is taken whenever it comes, so nothing is refused for where the job stands by then.
 */
export const jobKind: LogKind<JobHeader, JobFact, JobState, JobFold> = {
  name: 'job',
  version: JOB_VERSION,
  writers: 'shop',
  takesLate: () => true,
  mayNot,
  fold: (header, facts) => new SharedFold(header, facts, stateOfJob),
  admit,
  summary,
  result: () => null,
  upcast: {},
};

/** A technician takes a job up to passed; only a lead releases, fits what does not match, or closes without repair. */
function mayNot(role: Role, fact: JobFact): string | null {
  if (fact.kind === 'released') return 'Only the server releases, when a lead has asked for it.';
  if (role === 'lead') return null;
  if (fact.kind === 'ask-release') return 'Only a lead releases a vehicle.';
  if (fact.kind === 'close') return 'Only a lead closes a job without repair.';
  if ('override' in fact && fact.override !== undefined)
    return 'Only a lead may have a part fitted that does not match.';
  if ('accepted' in fact && fact.accepted !== undefined)
    return 'Only a lead may take a retest that cannot be told as passed.';
  return null;
}

/** Said once, taken back by their own ways. */
const NOT_TAKEN_BACK: Partial<Record<JobFact['kind'], string>> = {
  retested: 'A retest stands as it was made: make it again.',
  released: 'A release is not taken back: reopen the job with what is wrong.',
  close: 'A job that was closed stays so: start another.',
};
/** What can be taken back only straight away, in case of a slip; later it is told what happened since. */
const ONLY_AT_ONCE: Partial<Record<JobFact['kind'], string>> = {
  fitted: 'Say what was fitted since: what came off and went on stays in the record.',
  measure: 'Say that it was undone.',
};

function admit(fold: JobFold, fact: JobFact): FieldProblem | null {
  return admitTarget(fold, fact) ?? admitPart(fold, fact) ?? admitWords(fold, fact);
}

function admitTarget(fold: JobFold, fact: JobFact): FieldProblem | null {
  if (fact.kind === 'retract') {
    const target = fold.factOf(fact.target);
    if (!target) return null;
    const never = NOT_TAKEN_BACK[target.kind];
    if (never !== undefined) return { field: 'target', message: never };
    const once = ONLY_AT_ONCE[target.kind];
    if (once !== undefined && fold.endOf(fact.lane)?.id !== target.id)
      return { field: 'target', message: once };
    return null;
  }
  if (!('supersedes' in fact) || fact.supersedes === undefined) return null;
  return fold.factOf(fact.supersedes)?.kind === fact.kind
    ? null
    : { field: 'supersedes', message: 'The entry to correct is not there.' };
}

function admitPart({ header }: JobFold, fact: JobFact): FieldProblem | null {
  const at = 'at' in fact ? fact.at : null;
  if (!at) return null;
  const unit = header.made.units.find(({ id }) => id === at.unitId);
  if (!unit) return { field: 'at.unitId', message: 'That unit is not part of this job.' };
  if (partTitle(unit, at.partId) === null) {
    return { field: 'at.partId', message: `This unit has no part "${at.partId}".` };
  }
  const adjusts = (fact.kind === 'chosen' || fact.kind === 'fitted') && fact.repair === 'adjusted';
  if (adjusts && chamberAt(unit, fact.at.partId)?.adjuster === 'automatic') {
    return {
      field: 'repair',
      message:
        'An automatic adjuster is not adjusted as a repair: find what makes its stroke long, bushes, linkage, arm, drum or lining.',
    };
  }
  if (fact.kind === 'chosen' && fact.repair === 'replaced' && fact.offered)
    return admitMatch(unit, fact.at.partId, fact.offered, fact, 'offered');
  if (fact.kind === 'fitted' && fact.repair === 'replaced')
    return admitMatch(unit, fact.at.partId, fact.now, fact, 'now');
  return null;
}

/** A part that does not match is not taken, unless a lead has written why it is fitted all the same. */
function admitMatch(
  unit: Unit,
  partId: string,
  offered: Parameters<typeof mismatches>[2],
  { override, adapter }: { override?: string | undefined; adapter?: string | undefined },
  field: string,
): FieldProblem | null {
  if (override !== undefined) return null;
  const [first] = mismatches(unit, partId, offered, { adapter });
  return first === undefined ? null : { field, message: first };
}

/** Whether a calendar has a day: some readers of dates take the 30th of February for the 2nd of March. */
function isDay(day: string): boolean {
  const ms = Date.parse(`${day}T12:00:00Z`);
  return !Number.isNaN(ms) && new Date(ms).toISOString().startsWith(day);
}

function admitWords(fold: JobFold, fact: JobFact): FieldProblem | null {
  if (fact.kind === 'proven' && fact.supersedes !== undefined) {
    const before = fold.factOf(fact.supersedes);
    const isOther =
      before?.kind === 'proven' &&
      (before.at.partId !== fact.at.partId || before.faultId !== fact.faultId);
    if (isOther && fact.because === undefined)
      return { field: 'because', message: 'Say why the earlier conclusion was wrong.' };
  }
  const day =
    fact.kind === 'wanted-by' ? fact.day : fact.kind === 'waiting' ? (fact.until ?? null) : null;
  if (day !== null && !isDay(day))
    return { field: 'day', message: 'Give a day there is, such as 2026-11-30.' };
  if (fact.kind === 'undone' && fold.factOf(fact.measureId)?.kind !== 'measure')
    return { field: 'measureId', message: 'There is no such temporary measure in this job.' };
  if (fact.kind === 'retested' && fact.accepted !== undefined && fact.verdict !== 'cant-tell')
    return {
      field: 'accepted',
      message: 'Only what cannot be told may be taken as passed: a failed retest is made again.',
    };
  if (fact.kind === 'retested' && fact.accepted !== undefined && !mayBeTaken(fact.owedId))
    return {
      field: 'accepted',
      message: 'A service stop is not taken as passed: stop again, or use a roller tester.',
    };
  return null;
}

function summary(header: JobHeader, state: JobState): LogSummary & { board: JobBoard } {
  const board = boardOf(header, state);
  return {
    verdict: null,
    headline: board.line,
    owes: board.holds,
    decisive: null,
    figures: [],
    trend: null,
    drained: false,
    board,
  };
}
