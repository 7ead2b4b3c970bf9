import type { RuleSet, RunMade } from '@keen-bleed/contract';
import { procedureFor } from '../procedure/procedureFor';
import { hasCompressor } from '../rig/hasCompressor';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { ruleSetFor } from '../standards/ruleSets';
import type { Retest } from './retests';

/** A run of just what is owed. */
export interface RetestRun {
  on: Omit<RunMade, 'steps'>;
  /** About how long it takes, with making safe and charging. */
  minutes: number;
  /** Retests that this rig cannot do as it stands, by title: what is to be coupled for them. */
  missing: string[];
}

/** Getting ready, in minutes: chocks and gauge [common practice, no source]. */
const READY_MINUTES = 1;
/** Charging to cut-out, in minutes [common practice, no source]. */
const FILL_MINUTES = 2;

/** What makes the air that a later step needs. */
const CHARGES: ReadonlySet<string> = new Set(['cut-out', 'charge', 'fill', 'rebuild']);
/** What needs full tanks. */
const NEEDS_AIR: ReadonlySet<string> = new Set([
  ...['gauge-comparison', 'couplers', 'trailer-supply', 'coupling-supply', 'static-hold'],
  ...['applied-hold', 'tractor-protection', 'breakaway-hold', 'warning', 'pop-out', 'reserve'],
  ...['holding', 'service-stop', 'hand-brake-test', 'stop-lamp', 'safety-valve', 'fail-supply'],
  ...['fail-primary', 'fail-secondary', 'anti-compounding', 'cut-in'],
]);
/** What leaves the tanks low. */
const EMPTIES: ReadonlySet<string> = new Set([
  ...['warning', 'warning-parts', 'pop-out', 'park-stays', 'reserve', 'ninth-stroke'],
  ...['fail-primary', 'fail-secondary'],
]);

/**
 * The run that retests what jobs owe, as it can be done: by the rule set in which it failed, with the air made where a
 * step needs it, and nothing that is not owed.
 *
 * @param rig the units as they are now, with what was fitted
 * @param owed what has not passed yet
 * @param ruleSetId the rule set of the failure; the shop's usual one where it is null or gone
 * @returns null where nothing owed is a step of a run
 */
export function retestRun(
  rig: RigUnderTest,
  owed: readonly Pick<Retest, 'title' | 'minutes' | 'stepId'>[],
  jobIds: readonly string[],
  { sets, defaultId }: { sets: readonly RuleSet[]; defaultId: string },
  ruleSetId: string | null = null,
): RetestRun | null {
  const steps = owed.flatMap(({ stepId, ...each }) =>
    stepId === null ? [] : [{ ...each, stepId }],
  );
  if (steps.length === 0) return null;
  const ruleSet = sets.find(({ id }) => id === ruleSetId) ?? ruleSetFor(rig.unit, sets, defaultId);
  const wanted = [...new Set(steps.map(({ stepId }) => stepId))];
  const asked = (also: readonly string[]) => {
    const kept = new Set([...also, 'prepare']);
    const leftOut = ruleSet.steps.flatMap(({ stepId }) => (kept.has(stepId) ? [] : [stepId]));
    // What the rule set switches off, or does not know, is asked for all the same.
    const beside = also.filter(
      (stepId) => !ruleSet.steps.some((each) => each.stepId === stepId && each.need !== 'off'),
    );
    return { leftOut, also: beside };
  };
  const made = ({ leftOut, also }: ReturnType<typeof asked>) =>
    procedureFor(rig, ruleSet, leftOut, { also }).steps.map(({ id }) => id);
  const alone = made(asked(wanted));
  const charging = airFor(rig, alone);
  const last = asked([...wanted, ...charging]);
  const done = new Set(made(last));
  const found = steps.filter(({ stepId }) => done.has(stepId));
  if (found.length === 0) return null;
  return {
    on: {
      unit: rig.unit,
      towed: [...rig.towed],
      ruleSet,
      leftOut: last.leftOut,
      retestOf: [...jobIds],
      ...(last.also.length > 0 ? { also: last.also } : {}),
    },
    missing: steps.filter((step) => !found.includes(step)).map(({ title }) => title),
    minutes:
      READY_MINUTES +
      FILL_MINUTES * charging.length +
      found.reduce((sum, { minutes }) => sum + minutes, 0),
  };
}

/** The steps that make the air which those asked for need, and do not make themselves. */
function airFor({ unit }: RigUnderTest, steps: readonly string[]): string[] {
  if (!hasCompressor(unit.kind)) return steps.includes('static-hold') ? ['charge'] : [];
  const first = steps.findIndex((stepId) => NEEDS_AIR.has(stepId));
  const isCharged = steps.slice(0, Math.max(0, first)).some((stepId) => CHARGES.has(stepId));
  const emptied = steps.findIndex((stepId) => stepId === 'warning' || stepId === 'pop-out');
  const isNeededAfter =
    emptied >= 0 &&
    steps.slice(emptied).some((stepId) => NEEDS_AIR.has(stepId) && !EMPTIES.has(stepId));
  return [
    ...(first >= 0 && !isCharged ? ['fill'] : []),
    ...(isNeededAfter && !steps.includes('rebuild') ? ['rebuild'] : []),
  ];
}
