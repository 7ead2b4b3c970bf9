import type {
  ChosenFact,
  FittedFact,
  JobFact,
  JobHeader,
  MeasureFact,
  ProvenFact,
  RefusedFact,
  ReleasedFact,
  RetestedFact,
  WaitingFact,
} from '@keen-bleed/contract';
import { clockAnswers, correctedMs } from '../facts/factTimes';
import { standing } from '../facts/standing';
import { stepMakers } from '../procedure/stepMakers';
import { stepOfFailure } from '../procedure/stepOfFailure';
import { isAfterWork } from './afterWork';
import { holdsUntilRetested, retestOfStep, retestsOf, type Retest } from './retests';
import type { Station } from './words';

type FactOf<K extends JobFact['kind']> = Extract<JobFact, { kind: K }>;

/** A retest that is owed, and the last that was made of it since the work that owes it. */
export interface Owed extends Retest {
  done: RetestedFact | null;
  /** When the last work that owes it was done, by the server’s clock. */
  workMs: number;
  /** Units that were worked on: a run proves it only with all of them in it. */
  workedOn: readonly string[];
  /** It passed, or a lead took it as passed. */
  passed: boolean;
  /** What it leaves open may be taken as passed by a lead, with a reason. */
  mayTake: boolean;
  /** The vehicle is held until it has passed. */
  holds: boolean;
}

/** A temporary measure, and whether it was undone. */
export interface MeasureTaken {
  measure: MeasureFact;
  undone: FactOf<'undone'> | null;
}

/** Where a job stands, from its facts alone. */
export interface JobState {
  /** When it was released, or closed without repair, by the clock of the device that did. */
  closed: { atMs: number } | null;
  header: JobHeader;
  station: Station;
  /** What is held to be at fault now. */
  proven: ProvenFact | null;
  /** Conclusions that were superseded, the oldest first. */
  earlier: readonly ProvenFact[];
  chosen: ChosenFact | null;
  waiting: WaitingFact | null;
  /** Every repair that was done, in order; parts that were changed on an earlier conclusion are among them. */
  fitted: readonly FittedFact[];
  refused: readonly RefusedFact[];
  owed: readonly Owed[];
  measures: readonly MeasureTaken[];
  reopened: FactOf<'reopened'> | null;
  owner: FactOf<'owner'> | null;
  wantedBy: string | null;
  notes: readonly FactOf<'note'>[];
  /** A lead has asked for release, and nothing was done since. */
  asked: FactOf<'ask-release'> | null;
  released: ReleasedFact | null;
  /** It was released, and something came in that the release did not know: the hold stands again. */
  overtaken: boolean;
  /** Closed without repair. */
  given: FactOf<'close'> | null;
  /** Everything that may be taken back or corrected. */
  known: ReadonlyMap<string, JobFact>;
  /** The last fact of each lane. */
  tails: ReadonlyMap<string, string>;
  /** What stands, in order, for the story of the job. */
  told: readonly JobFact[];
}

/** What does not touch whether a vehicle may go. */
const OF_NO_WEIGHT: ReadonlySet<JobFact['kind']> = new Set<JobFact['kind']>([
  'note',
  'owner',
  'wanted-by',
  'clock',
  'ask-release',
  'released',
  'refused',
  'waiting',
]);

/** Where a job stands by its facts, which are in their order. */
export function stateOfJob(header: JobHeader, facts: readonly JobFact[]): JobState {
  const live = standing(facts);
  const place = new Map(live.map((fact, at) => [fact.id, at]));
  const at = (fact: JobFact | null) => (fact ? (place.get(fact.id) ?? -1) : -1);
  const byKind = grouped(live, ({ kind }) => kind);
  const all = <K extends JobFact['kind']>(kind: K) =>
    (byKind.get(kind) ?? []).filter((fact): fact is FactOf<K> => fact.kind === kind);
  const last = <K extends JobFact['kind']>(kind: K, after = -1): FactOf<K> | null =>
    all(kind).findLast((fact) => at(fact) > after) ?? null;

  const reopened = last('reopened');
  const proven = last('proven', at(reopened));
  const earlier = earlierConclusions(facts, proven, live);
  // A conclusion that replaced another begins anew: what was chosen or fitted before it was for the other.
  const from = Math.max(at(reopened), proven?.supersedes === undefined ? -1 : at(proven));
  const fitted = all('fitted');
  const fittedNow = fitted.filter((fact) => at(fact) > from);
  const chosen = last('chosen', from);
  const waiting = last('waiting', Math.max(from, at(fittedNow.at(-1) ?? null)));
  const undoing = new Map(all('undone').map((fact) => [fact.measureId, fact]));
  const measures = all('measure').map((measure): MeasureTaken => ({
    measure,
    undone: undoing.get(measure.id) ?? null,
  }));
  const owed = owedBy(header, facts, live, fitted, measures);
  const allPassed = fittedNow.length > 0 && owed.every(({ passed }) => passed);
  const isUndone = measures.every(({ undone }) => undone !== null);
  const station: Station =
    allPassed && isUndone
      ? 'release'
      : fittedNow.length > 0
        ? owed.some(({ done }) => done !== null)
          ? 'retest'
          : 'fitted'
        : chosen
          ? 'part'
          : proven
            ? 'proven'
            : 'found';
  const release = releaseOf(facts, live);
  const given = last('close');
  const isGiven =
    given !== null &&
    isUndone &&
    release.released === null &&
    (owed.every(({ passed }) => passed) || wasGivenBefore(header, owed));
  const asked = last('ask-release');
  const lastOfWeight = live.findLastIndex(({ kind }) => !OF_NO_WEIGHT.has(kind));
  const ending = release.released ?? (isGiven ? given : null);
  return {
    header,
    station,
    proven,
    earlier,
    chosen,
    waiting,
    fitted,
    refused: all('refused'),
    owed,
    measures,
    reopened,
    owner: last('owner'),
    wantedBy: last('wanted-by')?.day ?? null,
    notes: all('note'),
    asked: asked && at(asked) > lastOfWeight && !release.released ? asked : null,
    ...release,
    given: isGiven ? given : null,
    known: new Map(facts.map((fact) => [fact.id, fact])),
    tails: tailsOf(facts),
    told: live.filter(({ kind }) => kind !== 'clock'),
    closed: ending ? { atMs: ending.atMs } : null,
  };
}

/** Cores whose jobs owed less: what was closed by them stays closed, though more would be owed today. */
const OWED_LESS: ReadonlySet<string> = new Set(['0.2.0', '0.3.0', '0.4.0']);

/** A job of before, closed without repair once all that it owed then had passed. */
const wasGivenBefore = ({ coreVersion }: JobHeader, owed: readonly Owed[]): boolean =>
  OWED_LESS.has(coreVersion) &&
  owed.some(({ passed }) => passed) &&
  owed.every(({ passed, done }) => passed || done === null);

/** Conclusions that stood once: superseded by another, or set aside when a retest did not do what it should. */
function earlierConclusions(
  facts: readonly JobFact[],
  now: ProvenFact | null,
  live: readonly JobFact[],
): ProvenFact[] {
  const takenBack = new Set(
    facts.flatMap((fact) => (fact.kind === 'retract' ? [fact.target] : [])),
  );
  const replaced = new Set(
    live.flatMap((fact) =>
      fact.kind === 'proven' && fact.because !== undefined && fact.supersedes
        ? [fact.supersedes]
        : [],
    ),
  );
  const stands = new Set(live.map(({ id }) => id));
  return facts.filter(
    (fact): fact is ProvenFact =>
      fact.kind === 'proven' &&
      fact.id !== now?.id &&
      !takenBack.has(fact.id) &&
      // One whose words were put right is not another conclusion.
      (stands.has(fact.id) || replaced.has(fact.id)),
  );
}

/** What a retest is owed since. */
type Since = { retest: Retest; workedOn: Set<string> } & Pick<Owed, 'workMs' | 'holds'>;

/**
 * The retests owed: those of every part that was worked on, of every failure the job is to close once something was
 * fitted, and of every temporary measure that was undone. A retest counts when it was made after the last work that
 * owes it.
 */
function owedBy(
  { made }: JobHeader,
  facts: readonly JobFact[],
  live: readonly JobFact[],
  fitted: readonly FittedFact[],
  measures: readonly MeasureTaken[],
): Owed[] {
  const answers = clockAnswers(facts);
  const timeOf = (fact: JobFact) => correctedMs(fact, answers.get(fact.lane));
  // Work by a clock that was never compared may be as late as it came in: a retest of before must not prove it.
  const workedAt = (fact: JobFact) =>
    fact.offsetMs === null && !answers.has(fact.lane)
      ? (fact.receivedAtMs ?? timeOf(fact))
      : timeOf(fact);
  const since = new Map<string, Since>();
  const owe = (retest: Retest | null, by: JobFact, unitId: string | undefined, holds = true) => {
    if (!retest) return;
    const owed = since.get(retest.id) ?? { retest, workMs: 0, holds: false, workedOn: new Set() };
    owed.workMs = Math.max(workedAt(by), owed.workMs);
    owed.holds ||= holds;
    if (unitId) owed.workedOn.add(unitId);
    since.set(retest.id, owed);
  };
  for (const fact of fitted) {
    const worked = { units: made.units, at: fact.at, repair: fact.repair };
    const holds = holdsUntilRetested(worked);
    for (const retest of retestsOf(worked)) owe(retest, fact, fact.at.unitId, holds);
    for (const { key } of made.failures) {
      const stepId = stepOfFailure(key);
      if (stepId !== null) owe(retestOfStep(made.units, stepId), fact, fact.at.unitId, holds);
    }
  }
  for (const { measure, undone } of measures) {
    if (!undone) continue;
    for (const stepId of MEASURE_STEPS[measure.measure])
      owe(retestOfStep(made.units, stepId), undone, measure.at?.unitId);
  }
  const inTurn = [...since.values()].sort((a, b) => turnOf(a.retest) - turnOf(b.retest));
  const tests = grouped(
    live.filter((fact): fact is RetestedFact => fact.kind === 'retested'),
    ({ owedId }) => owedId,
  );
  return inTurn.map(({ retest, workMs, holds, workedOn }): Owed => {
    const since = { workMs, holds, workedOn: [...workedOn] };
    const own = (tests.get(retest.id) ?? []).filter((fact) =>
      isAfterWork(workMs, fact.testedAtMs ?? timeOf(fact)),
    );
    const done = own.at(-1) ?? null;
    const undecided = new Set(
      own.flatMap(({ verdict, logId, factId }) =>
        verdict === 'cant-tell' ? [`${logId} ${factId ?? ''}`] : [],
      ),
    ).size;
    // A check that is unlike a good rig is measured again before anybody accepts it; kept by an earlier version it stands.
    const mayTake =
      done?.verdict === 'cant-tell' &&
      mayBeTaken(retest.id) &&
      (retest.check === null || done.testedAtMs === undefined || undecided >= MEASURED_TWICE);
    const passed =
      done !== null && (done.verdict === 'pass' || (mayTake && done.accepted !== undefined));
    return { ...retest, ...since, done, passed, mayTake };
  });
}

/**
 * Whether a lead may take a retest that could not be told as passed. No reason in words stops a vehicle: a service stop
 * passes by eye, phone or roller tester, or the vehicle stays held.
 *
 * @param owedId the retest's id, such as `step:service-stop`
 */
export const mayBeTaken = (owedId: string): boolean => owedId !== 'step:service-stop';

/** So often a check is measured before what it leaves open may be accepted. */
const MEASURED_TWICE = 2;

/** Steps stand as in a run, and checks after them. */
const turnOf = ({ stepId }: Retest): number =>
  stepId === null ? stepMakers.length : stepMakers.findIndex(({ id }) => id === stepId);

/** What each temporary measure owes once it is undone: what it stood in for, and that nothing blows [trade]. */
const MEASURE_STEPS: Readonly<Record<MeasureFact['measure'], readonly string[]>> = {
  'caged-spring': ['static-hold', 'holding'],
  'shop-air': ['static-hold', 'pop-out', 'holding'],
  'capped-line': ['static-hold', 'applied-hold', 'service-stop'],
  'closed-cock': ['static-hold', 'applied-hold', 'service-stop', 'couplers'],
  blocked: ['static-hold', 'applied-hold', 'service-stop'],
};

/** A release stands as long as nothing of weight has come in that it did not know. */
function releaseOf(
  facts: readonly JobFact[],
  live: readonly JobFact[],
): Pick<JobState, 'released' | 'overtaken'> {
  const releases = live.filter((fact): fact is ReleasedFact => fact.kind === 'released');
  // The last place of weight in each lane: a release that knew it knew those before.
  const weighed = new Map<string, number>();
  for (const { kind, lane, seq } of facts) {
    if (!OF_NO_WEIGHT.has(kind)) weighed.set(lane, Math.max(seq, weighed.get(lane) ?? 0));
  }
  const stands = releases.find(({ knew }) =>
    [...weighed].every(([lane, seq]) => seq <= (knew[lane] ?? 0)),
  );
  return { released: stands ?? null, overtaken: !stands && releases.length > 0 };
}

/** Facts by a key, each group in their order. */
function grouped<F>(facts: readonly F[], keyOf: (fact: F) => string): Map<string, F[]> {
  const groups = new Map<string, F[]>();
  for (const fact of facts) {
    const group = groups.get(keyOf(fact));
    if (group) group.push(fact);
    else groups.set(keyOf(fact), [fact]);
  }
  return groups;
}

function tailsOf(facts: readonly JobFact[]): Map<string, string> {
  const tails = new Map<string, { seq: number; id: string }>();
  for (const { lane, seq, id } of facts) {
    if (seq > (tails.get(lane)?.seq ?? 0)) tails.set(lane, { seq, id });
  }
  return new Map([...tails].map(([lane, { id }]) => [lane, id]));
}
