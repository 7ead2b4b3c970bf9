import type {
  Figure,
  FigureId,
  Finding,
  LimitUsed,
  OpenFailure,
  RuleSet,
} from '@keen-bleed/contract';
import { isCriticalFailure } from '../repair/critical';
import { figureTitles } from '../reading/figureWords';
import { headVerdict } from '../reading/figureParts';

/** A closed run, as far as failures are concerned. */
export interface JudgedRun {
  runId: string;
  /** What it is ordered by. */
  atMs: number;
  /** Front to rear. */
  unitIds: readonly string[];
  /** It was not cut short: only such a run takes a failure away. */
  isWhole: boolean;
  figures: readonly Figure[];
  findings: readonly Finding[];
  /** Its rule set: which of its failures take a vehicle out of service. */
  rules?: Pick<RuleSet, 'steps'> & { id?: string | undefined };
}

/** A failure that a lead has closed with a written reason. */
export interface FailureClosing {
  runId: string;
  key: string;
}

/** Figures that say something of the unit in front alone, whatever is coupled. */
const OF_THE_FRONT: ReadonlySet<FigureId> = new Set<FigureId>([
  'cut-out',
  'cut-in',
  'governor-differential',
  'governor-cycle',
  'warning',
  'warning-reset',
  'pop-out-park',
  'stop-lamp',
  'gauge-error',
]);
/** Steps whose looks do so too. */
const STEPS_OF_THE_FRONT: ReadonlySet<string> = new Set([
  'fail-supply',
  'fail-primary',
  'fail-secondary',
  'anti-compounding',
  'warning-parts',
  'warning',
  'pop-out',
  'rebuild',
  'cut-out',
  'stop-lamp',
  'park-stays',
  'safety-valve',
  'tractor-protection',
]);

interface Entry extends OpenFailure {
  /** Judged how sure: an as-read pass does not take it away. */
  isSure: boolean;
  limit: LimitUsed | null;
}

/**
 * What has failed and was not proven right since. A failed figure or look stands on every unit it was found on, until
 * the same one passes in the same state (the same rig; the unit in front, for what says something of that alone) under
 * a limit and a heading no looser. Found again on one unit alone, it is traced to that. What was skipped, cut short or
 * could not be told takes nothing away, nor does uncoupling.
 *
 * @param runs in any order; every run of every unit concerned
 */
export function openFailures(
  runs: readonly JudgedRun[],
  closings: readonly FailureClosing[],
): OpenFailure[] {
  const open = new Map<string, Entry>();
  const closed = new Set(closings.map(({ runId, key }) => `${runId} ${key}`));
  for (const run of [...runs].sort((a, b) => a.atMs - b.atMs)) {
    for (const figure of run.figures) takeFigure(open, run, figure);
    for (const finding of run.findings) takeFinding(open, run, finding);
    takeWhatCame(open, run);
    for (const [at, { runId, key }] of open) if (closed.has(`${runId} ${key}`)) open.delete(at);
  }
  return [...open.values()]
    .map(({ isSure: _isSure, limit: _limit, ...failure }) => failure)
    .sort((a, b) => a.sinceMs - b.sinceMs);
}

function takeFigure(open: Map<string, Entry>, run: JudgedRun, figure: Figure): void {
  const unitIds = OF_THE_FRONT.has(figure.id) ? run.unitIds.slice(0, 1) : run.unitIds;
  const key = `figure:${figure.id}`;
  const at = `${key} ${unitIds.join(' ')}`;
  const verdict = headVerdict(figure);
  if (verdict === 'fail') {
    fail(open, at, {
      key,
      runId: run.runId,
      sinceMs: open.get(at)?.sinceMs ?? run.atMs,
      unitIds: [...unitIds],
      title: figureTitles[figure.id],
      figure,
      said: null,
      ...criticalBy(run, key),
      ...(run.rules?.id === undefined ? {} : { ruleSetId: run.rules.id }),
      isSure: figure.heads !== 'as-read',
      limit: figure.limit,
    });
    return;
  }
  const before = open.get(at);
  if (!before || !run.isWhole || verdict !== 'pass') return;
  const isSureEnough = !before.isSure || figure.verdict === 'pass';
  if (isSureEnough && isNoLooser(figure.limit, before.limit)) open.delete(at);
}

function takeFinding(open: Map<string, Entry>, run: JudgedRun, finding: Finding): void {
  const isFront = STEPS_OF_THE_FRONT.has(finding.stepId);
  const unitIds = isFront ? run.unitIds.slice(0, 1) : run.unitIds;
  const key = `look:${finding.stepId}/${finding.key}`;
  const at = `${key} ${unitIds.join(' ')}`;
  if (finding.standing === 'bad') {
    fail(open, at, {
      key,
      runId: run.runId,
      sinceMs: open.get(at)?.sinceMs ?? run.atMs,
      unitIds: [...unitIds],
      title: finding.title,
      figure: null,
      said: finding.said,
      ...criticalBy(run, key, finding.holds),
      ...(run.rules?.id === undefined ? {} : { ruleSetId: run.rules.id }),
      isSure: false,
      limit: null,
    });
  } else if (finding.standing === 'good' && run.isWhole) {
    open.delete(at);
  }
}

/** What never came once, and came in this run: its step has figures, and nobody says that something stayed away. */
function takeWhatCame(open: Map<string, Entry>, run: JudgedRun): void {
  if (!run.isWhole) return;
  for (const [at, { key, unitIds }] of open) {
    const stepId = /^look:(.+)\/never$/.exec(key)?.[1];
    if (stepId === undefined || unitIds.some((id) => !run.unitIds.includes(id))) continue;
    const came = run.figures.some((each) => each.stepId === stepId && each.value !== null);
    const stayed = run.findings.some((each) => each.stepId === stepId && each.key === 'never');
    if (came && !stayed) open.delete(at);
  }
}

/** Whether its rule set takes the vehicle out of service for it; not said where it does not. */
const criticalBy = (
  { rules }: JudgedRun,
  key: string,
  holds = false,
): Pick<OpenFailure, 'critical'> =>
  rules && isCriticalFailure(rules, key, holds) ? { critical: true } : {};

/** Opens a failure; where it is found on one unit alone, it is traced there, and leaves the rigs it was found on. */
function fail(open: Map<string, Entry>, at: string, entry: Entry): void {
  const [only] = entry.unitIds;
  if (entry.unitIds.length === 1 && only !== undefined) {
    for (const [other, { key, unitIds }] of open) {
      if (key === entry.key && unitIds.length > 1 && unitIds.includes(only)) open.delete(other);
    }
  }
  open.set(at, entry);
}

/** A limit that allows nothing more than another. */
function isNoLooser(limit: LimitUsed | null, than: LimitUsed | null): boolean {
  if (!than) return true;
  if (!limit) return false;
  return (
    (limit.max ?? Infinity) <= (than.max ?? Infinity) &&
    (limit.min ?? -Infinity) >= (than.min ?? -Infinity)
  );
}
