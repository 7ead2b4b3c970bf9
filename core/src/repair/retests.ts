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

/**
 * What has to be done again once a part of each role was worked on [trade: repair and release]: governor → cut-in,
 * cut-out, build-up; dryer and supply parts → cycle time, static; tank or check valve → static, circuit failure; foot
 * valve → applied, both circuits' curves, release; relay → curve, applied, timing; park parts → static with park
 * released, pop-out, holding; chamber → static, applied, stroke, holding; switches → warning or stop lamp.
 */
const BY_ROLE: Readonly<Record<PartRole, Owes>> = {
  governor: owes(['cut-out', 'cut-in', 'build-up']),
  compressor: owes(['build-up', 'cycle', 'static-hold']),
  'pre-cleaner': owes(['cycle', 'static-hold']),
  dryer: owes(['cycle', 'static-hold']),
  'safety-valve': owes(['cycle', 'static-hold', 'safety-valve']),
  accessory: owes(['static-hold']),
  consumer: owes(['static-hold']),
  tank: owes(['static-hold', 'fail-supply']),
  // A drain is a joint of its tank: a hold proves it.
  drain: owes(['static-hold']),
  'check-valve': owes(['static-hold', 'fail-supply']),
  'double-check': owes(['static-hold', 'fail-primary', 'fail-secondary']),
  'foot-valve': owes(['applied-hold'], ['curve', 'residual']),
  'quick-release': owes(['applied-hold'], ['timing']),
  relay: owes(['applied-hold'], ['curve', 'timing']),
  'relay-emergency': owes(['applied-hold', 'breakaway-hold'], ['curve', 'timing']),
  'load-sensing': owes(['applied-hold']),
  'antilock-modulator': owes(['applied-hold'], ['timing']),
  'park-relay': owes(['static-hold', 'pop-out', 'holding']),
  'park-control': owes(['static-hold', 'pop-out', 'holding']),
  'hand-brake-valve': owes(['static-hold', 'park-stays', 'holding', 'hand-brake-test']),
  'modulating-valve': owes(['static-hold', 'pop-out', 'holding', 'fail-primary']),
  'trailer-supply-control': owes(['static-hold', 'pop-out', 'trailer-supply', 'holding']),
  'trailer-control-valve': owes(['applied-hold', 'tractor-protection', 'couplers']),
  'tractor-protection': owes(['applied-hold', 'tractor-protection', 'couplers']),
  'hand-valve': owes(['applied-hold', 'couplers']),
  chambers: owes(['static-hold', 'applied-hold', 'holding'], ['stroke']),
  chamber: owes(['static-hold', 'applied-hold', 'holding'], ['stroke']),
  'low-air-switch': owes(['warning', 'warning-parts', 'rebuild']),
  'stop-lamp-switch': owes(['stop-lamp']),
  gauge: owes(['cut-out', 'static-hold']),
  line: owes(['static-hold'], ['soap']),
  coupler: owes(['couplers', 'static-hold', 'applied-hold']),
  cock: owes(['couplers', 'static-hold', 'applied-hold']),
};

/** What differs from its role: parts of one circuit, and lines by what flows in them. */
const BY_PART: Readonly<Record<string, Owes>> = {
  'primary-tank': owes(['static-hold', 'fail-primary']),
  'secondary-tank': owes(['static-hold', 'fail-secondary']),
  'anti-compounding': owes(['static-hold', 'pop-out', 'holding', 'anti-compounding']),
  'foot-double-check': owes(['applied-hold', 'couplers', 'fail-primary', 'fail-secondary']),
  'hand-double-check': owes(['applied-hold', 'couplers']),
  'discharge-line': owes(['build-up', 'cycle', 'static-hold'], ['soap']),
  'rear-control-line': owes(['applied-hold'], ['curve', 'soap']),
  'trailer-service-line': owes(['applied-hold', 'couplers'], ['soap']),
  'trailer-supply-line': owes(['static-hold', 'couplers'], ['soap']),
  // A trailer's own tank and its check hold it when it breaks away.
  tank: owes(['static-hold', 'breakaway-hold']),
  'tank-check': owes(['static-hold', 'breakaway-hold']),
  'service-line': owes(['applied-hold'], ['soap']),
  'park-line': owes(['static-hold', 'pop-out', 'holding'], ['soap']),
};

/** Steps that a trailer's own parts owe beside their role's, coupled or on the shop's air [trade: trailer extras]. */
const TRAILER_EXTRAS: readonly string[] = ['couplers', 'trailer-supply', 'trailer-alone'];

/** A joint that was tightened, sealed or made again owes the hold that shows it, and soap, and no more. */
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
  const step = stepMakerById(stepId)?.make({ rig: { unit, towed }, ruleSet: roadTest });
  if (!step) return null;
  return {
    id: `step:${stepId}`,
    title: step.title,
    minutes: MINUTES[stepId] ?? STEP_MINUTES,
    stepId,
    check: null,
  };
}

/** The retests that work on a part owes, no more than needed: steps in the order of a run, then checks. */
export function retestsOf({ units, at, repair }: Worked): Retest[] {
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

function owesOf(unit: Unit, part: Part, repair: Repair): Owes {
  const own = BY_PART[part.id] ?? BY_ROLE[part.role];
  const extras = hasCompressor(unit.kind) ? [] : TRAILER_EXTRAS;
  if (JOINTS.has(repair) && JOINTED.has(part.role)) {
    const holds = own.steps.filter((stepId) => stepId.endsWith('-hold'));
    return owes(holds.length > 0 ? holds : ['static-hold'], ['soap']);
  }
  return owes(
    [...own.steps, ...extras.filter((stepId) => !own.steps.includes(stepId))],
    own.checks,
  );
}
