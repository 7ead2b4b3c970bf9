import type { Repair, Unit } from '@keen-bleed/contract';
import { stepMakerById } from '../procedure/stepMakers';
import { hasCompressor } from '../rig/hasCompressor';
import { partById } from '../rig/partList';
import type { Part, PartRole } from '../rig/partsOf';
import { roadTest } from '../standards/roadTest';

/** A retest that a repair owes: a step of a run, or a check of the catalogue. */
export interface Retest {
  /** Stable: `step:static-hold`, or `check:0/rear-relay/curve`. */
  id: string;
  title: string;
  /** About how long it takes [common practice, no source]. */
  minutes: number;
  /** The step of a run that it is; null for a check. */
  stepId: string | null;
  /** What is checked at which part; null for a step. */
  check: { unit: number; partId: string; what: RetestCheck } | null;
}

/** What is checked at a part: its curve at two ports, how fast it applies and lets go, its rest, its pushrod, its joints. */
export type RetestCheck = 'curve' | 'timing' | 'residual' | 'stroke' | 'soap';

interface Owes {
  steps: readonly string[];
  checks: readonly RetestCheck[];
}

const owes = (steps: readonly string[], checks: readonly RetestCheck[] = []): Owes => ({
  steps,
  checks,
});

/** What lies between tank and drum: a leak shows in one hold or the other, and only a stop proves the brake itself. */
const BRAKE = ['static-hold', 'applied-hold', 'service-stop'] as const;
/** What holds a parked vehicle. */
const PARK = ['static-hold', 'pop-out', 'holding', 'anti-compounding'] as const;

/**
 * What has to be done again once a part of each role was worked on [trade: repair and release; what work owes]:
 * anything between tank and drum → both holds and a service stop; governor → build-up, cut-in, cut-out, cycle; dryer →
 * cut-out, purge, cycle; supply check → tanks drained singly; foot valve and relay → curve, release; park parts → static
 * with park released, pop-out, tugs, anti-compounding; chamber → stroke; dash gauge → comparison; switches → warning or
 * stop lamp.
 */
const BY_ROLE: Readonly<Record<PartRole, Owes>> = {
  governor: owes(['build-up', 'cut-out', 'cut-in', 'cycle']),
  compressor: owes(['build-up', 'cut-out', 'cycle', 'static-hold']),
  'pre-cleaner': owes(['cycle', 'static-hold']),
  dryer: owes(['cut-out', 'purge', 'cycle', 'static-hold']),
  'safety-valve': owes(['cycle', 'static-hold', 'safety-valve']),
  accessory: owes(['static-hold']),
  consumer: owes(['static-hold']),
  tank: owes(['static-hold', 'fail-supply']),
  // A drain is a joint of its tank: a hold proves it.
  drain: owes(['static-hold']),
  'check-valve': owes(['static-hold', 'fail-supply']),
  'double-check': owes(['static-hold', 'fail-primary', 'fail-secondary']),
  'foot-valve': owes([...BRAKE, 'stop-lamp'], ['curve', 'residual']),
  'quick-release': owes(BRAKE, ['timing']),
  relay: owes(BRAKE, ['curve', 'timing']),
  'relay-emergency': owes([...BRAKE, 'breakaway-hold', 'breakaway-held'], ['curve', 'timing']),
  'load-sensing': owes(BRAKE, ['curve']),
  'antilock-modulator': owes(BRAKE, ['timing']),
  'park-relay': owes(PARK),
  'park-control': owes([...PARK, 'park-stays']),
  'hand-brake-valve': owes([
    ...['static-hold', 'park-stays', 'holding', 'hand-brake-test', 'anti-compounding'],
  ]),
  'modulating-valve': owes(['static-hold', 'pop-out', 'holding', 'fail-primary']),
  'trailer-supply-control': owes([
    ...['static-hold', 'pop-out', 'couplers', 'trailer-supply', 'tractor-protection', 'holding'],
  ]),
  'trailer-control-valve': owes([...BRAKE, 'tractor-protection', 'couplers', 'holding']),
  'tractor-protection': owes([...BRAKE, 'pop-out', 'tractor-protection', 'couplers', 'holding']),
  'hand-valve': owes([...BRAKE, 'couplers', 'holding']),
  chambers: owes(BRAKE, ['stroke']),
  chamber: owes(BRAKE, ['stroke']),
  'low-air-switch': owes(['warning', 'warning-parts', 'rebuild']),
  'stop-lamp-switch': owes(['stop-lamp']),
  gauge: owes(['gauge-comparison', 'static-hold']),
  line: owes(['static-hold'], ['soap']),
  coupler: owes([...BRAKE, 'couplers']),
  cock: owes([...BRAKE, 'couplers']),
};

/** What differs from its role: parts of one circuit, and lines by what flows in them. */
const BY_PART: Readonly<Record<string, Owes>> = {
  'primary-tank': owes([...BRAKE, 'fail-primary']),
  'secondary-tank': owes([...BRAKE, 'fail-secondary']),
  'dash-feed': owes(['static-hold', 'pop-out', 'holding'], ['soap']),
  // It passes service air to the spring side: a leak in it shows with the pedal down.
  'anti-compounding': owes([...BRAKE, 'pop-out', 'holding', 'anti-compounding']),
  'foot-double-check': owes([...BRAKE, 'couplers', 'fail-primary', 'fail-secondary']),
  'hand-double-check': owes([...BRAKE, 'couplers', 'holding']),
  'discharge-line': owes(['build-up', 'cut-out', 'cycle', 'static-hold'], ['soap']),
  'rear-control-line': owes(BRAKE, ['curve', 'soap']),
  'trailer-service-line': owes([...BRAKE, 'couplers'], ['soap']),
  'trailer-supply-line': owes(['static-hold', 'couplers', 'holding'], ['soap']),
  // A trailer's own tank and its check feed its brakes, and hold it when it breaks away.
  tank: owes([...BRAKE, 'breakaway-hold', 'breakaway-held']),
  'tank-check': owes([...BRAKE, 'breakaway-hold', 'breakaway-held']),
  'service-line': owes(BRAKE, ['soap']),
  'supply-line': owes(['static-hold', 'holding'], ['soap']),
  'spring-line': owes(['static-hold', 'holding'], ['soap']),
  'park-line': owes(PARK, ['soap']),
};

/** Steps that a trailer's own parts owe beside their role's, coupled or on the shop's air [trade: trailer extras]. */
const TRAILER_EXTRAS: readonly string[] = ['couplers', 'trailer-supply', 'trailer-alone'];

/**
 * A joint that was tightened, sealed or made again owes the holds that show it, and soap; on the way to a brake the
 * stop as well.
 */
const JOINTS: ReadonlySet<Repair> = new Set<Repair>(['reseated', 'remade']);
const JOINTED: ReadonlySet<PartRole> = new Set<PartRole>([
  'line',
  'tank',
  'drain',
  'chamber',
  'chambers',
  'coupler',
  'accessory',
  'consumer',
  'dryer',
]);
const PROVES_A_JOINT: ReadonlySet<string> = new Set(BRAKE);

/** What a unit without a compressor cannot be tested in by itself: it is coupled to any tractor for it. */
const ONLY_COUPLED: ReadonlySet<string> = new Set(['applied-hold', 'service-stop', 'holding']);

const MINUTES: Readonly<Record<string, number>> = {
  'static-hold': 6,
  'applied-hold': 4,
  cycle: 8,
  'build-up': 3,
  'fail-supply': 6,
  'fail-primary': 6,
  'fail-secondary': 6,
  'breakaway-hold': 16,
  'trailer-alone': 4,
  holding: 3,
  'service-stop': 3,
  'anti-compounding': 8,
};
const STEP_MINUTES = 2;

const CHECKS: Readonly<Record<RetestCheck, { title: string; minutes: number }>> = {
  curve: { title: 'Curve', minutes: 6 },
  timing: { title: 'Apply and release time', minutes: 6 },
  residual: { title: 'Nothing left after release', minutes: 4 },
  stroke: { title: 'Pushrod stroke', minutes: 3 },
  soap: { title: 'Soap', minutes: 2 },
};

/** Units front to rear, and the part that was worked on. */
export interface Worked {
  units: readonly Unit[];
  at: { unitId: string; partId: string };
  repair: Repair;
}

/** A retest of a step, or null where this rig has nothing to do it with. */
export function retestOfStep(units: readonly Unit[], stepId: string): Retest | null {
  const known = stepsOf(units);
  const before = known.get(stepId);
  if (before !== undefined) return before;
  const made = makeRetestOfStep(units, stepId);
  known.set(stepId, made);
  return made;
}

/** A job is folded again with every fact, always on the same units: their steps are made once. */
const made = new WeakMap<readonly Unit[], Map<string, Retest | null>>();
function stepsOf(units: readonly Unit[]): Map<string, Retest | null> {
  const known = made.get(units) ?? new Map<string, Retest | null>();
  made.set(units, known);
  return known;
}

function makeRetestOfStep(units: readonly Unit[], stepId: string): Retest | null {
  const [unit, ...towed] = units;
  if (!unit) return null;
  const maker = stepMakerById(stepId);
  const step = maker?.make({ rig: { unit, towed }, ruleSet: roadTest });
  const isCoupledFor = !step && !hasCompressor(unit.kind) && ONLY_COUPLED.has(stepId);
  if (!step && !isCoupledFor) return null;
  return {
    id: `step:${stepId}`,
    title: step ? step.title : `${maker?.title ?? stepId}, coupled to a tractor`,
    minutes: MINUTES[stepId] ?? STEP_MINUTES,
    stepId,
    check: null,
  };
}

/** The retests that work on a part owes, no more than needed: steps in the order of a run, then checks. */
export function retestsOf(worked: Worked): readonly Retest[] {
  const { units, at, repair } = worked;
  const key = `${at.unitId} ${at.partId} ${repair}`;
  const byWork = madeOfWork.get(units) ?? new Map<string, readonly Retest[]>();
  madeOfWork.set(units, byWork);
  const known = byWork.get(key) ?? retestsOfWork(worked);
  byWork.set(key, known);
  return known;
}

/** The same part may be worked on many times in a job, and a job is folded again with every fact. */
const madeOfWork = new WeakMap<readonly Unit[], Map<string, readonly Retest[]>>();

function retestsOfWork({ units, at, repair }: Worked): Retest[] {
  const index = units.findIndex(({ id }) => id === at.unitId);
  const unit = units[index];
  const part = unit && partById(unit, at.partId);
  if (!unit || !part) return [];
  const owed = owesOf(unit, part, repair);
  const steps = owed.steps.flatMap((stepId) => retestOfStep(units, stepId) ?? []);
  // A truck's lines to a trailer carry air only where one is coupled.
  const isIdle = units.length === 1 && unit.kind !== 'tractor' && part.id.startsWith('trailer-');
  const checks = (isIdle ? [] : owed.checks).map((what): Retest => ({
    id: `check:${index}/${part.id}/${what}`,
    title: `${CHECKS[what].title}: ${part.title.toLowerCase()}`,
    minutes: CHECKS[what].minutes,
    stepId: null,
    check: { unit: index, partId: part.id, what },
  }));
  return [...steps, ...checks];
}

/** A check of the part, or of the valve that its group stands for. */
const CURVED: ReadonlySet<string> = new Set([
  'foot-valve',
  'rear-relay',
  'relay',
  'rear-control-line',
  'load-sensing',
  'front-load-sensing',
]);

/** What only makes or dries air, or takes it behind a valve that keeps the brakes theirs. */
const APART: ReadonlySet<PartRole> = new Set<PartRole>([
  ...(['pre-cleaner', 'dryer', 'drain', 'accessory', 'consumer'] as const),
]);

/**
 * Whether a vehicle is held for its retest after such work. Everything that was worked on holds it, but for what was
 * only cleaned and feeds no brake by itself: a cleaned dryer is retested, and the vehicle may go meanwhile.
 */
export function holdsUntilRetested({ units, at, repair }: Worked): boolean {
  if (repair !== 'cleaned') return true;
  const unit = units.find(({ id }) => id === at.unitId);
  const part = unit && partById(unit, at.partId);
  return !part || !APART.has(part.role);
}

function owesOf(unit: Unit, part: Part, repair: Repair): Owes {
  const own = BY_PART[part.id] ?? BY_ROLE[part.role];
  const isTowed = !hasCompressor(unit.kind);
  if (JOINTS.has(repair) && JOINTED.has(part.role)) {
    const proves = own.steps.filter((stepId) => PROVES_A_JOINT.has(stepId));
    return owes(
      proves.length > 0 ? proves : ['static-hold'],
      // Behind its protection valve an accessory is no place of its own: the hold shows it.
      part.role === 'accessory' || part.role === 'consumer' ? [] : ['soap'],
    );
  }
  const also = [
    // A chamber with a spring parks; so does whatever stands on a trailer.
    ...(isSprung(unit, part) ? ['holding'] : []),
    ...(isTowed ? TRAILER_EXTRAS : []),
    // The tug on a trailer’s own brakes is its own.
    ...(isTowed && own.steps.includes('service-stop') ? ['holding'] : []),
  ];
  return owes(
    [
      ...own.steps,
      ...also.filter((stepId, at) => !own.steps.includes(stepId) && also.indexOf(stepId) === at),
    ],
    own.checks.filter((what) => what !== 'curve' || CURVED.has(part.id)),
  );
}

/** Whether a part is a chamber with a spring brake. */
function isSprung(unit: Unit, { id, role }: Part): boolean {
  if (role !== 'chamber' && role !== 'chambers') return false;
  if (!unit.chambers.some(({ springBrake }) => springBrake)) return false;
  return !hasCompressor(unit.kind) || id.startsWith('rear-');
}
