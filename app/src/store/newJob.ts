import type { OpenFailure, Unit } from '@keen-bleed/contract';
import { sayFailure } from '@keen-bleed/core';
import type { NewJob } from './startJob';

const MOST = { found: 300, title: 200 } as const;
const cut = (text: string, most: number) =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;

/** Failures as a job keeps them: each is closed by the same thing passing again. */
export const covered = (failures: readonly OpenFailure[]): NewJob['failures'] =>
  failures.slice(0, 30).map((failure) => ({
    runId: failure.runId,
    key: failure.key,
    title: cut(failure.title, MOST.title),
    value: failure.figure?.value ?? null,
    critical: failure.critical ?? false,
  }));

/** The rule set by which the first of some failures failed, where that is said. */
const ruleSetOf = (failures: readonly OpenFailure[]): Pick<NewJob, 'ruleSetId'> => {
  const ruleSetId = failures.find((each) => each.ruleSetId !== undefined)?.ruleSetId;
  return ruleSetId === undefined ? {} : { ruleSetId };
};

/** A job born of an open failure; what it was found on with others stays on all of them until it is traced. */
export function jobOfFailure(
  failure: OpenFailure,
  units: readonly [Unit, ...Unit[]],
  rigId: string | null,
): NewJob {
  const ids = new Set(units.map(({ id }) => id));
  const foundOn = failure.unitIds.filter((id) => ids.has(id));
  return {
    units,
    rigId,
    foundOn: foundOn.length > 0 ? foundOn : [units[0].id],
    bornOf: { kind: 'failure', runId: failure.runId, key: failure.key },
    found: cut(sayFailure(failure, units[0].gauge.unit), MOST.found),
    ...(failure.ruleSetId === undefined ? {} : { ruleSetId: failure.ruleSetId }),
    failures: covered([failure]),
    suspected: null,
  };
}

/** A job born of a suspect, with what stands open on its units. */
export function jobOfSuspect(
  suspect: {
    faults: readonly { id: string; part: string; title: string; unit: number; partId: string }[];
    chance: number;
  },
  units: readonly [Unit, ...Unit[]],
  rigId: string | null,
  failures: readonly OpenFailure[],
): NewJob {
  const [first] = suspect.faults;
  const unitId = units[first?.unit ?? 0]?.id ?? units[0].id;
  return {
    units,
    rigId,
    foundOn: [unitId],
    bornOf: {
      kind: 'suspect',
      faultIds: suspect.faults.slice(0, 12).map(({ id }) => id),
      chance: suspect.chance,
    },
    found: cut(
      `${first?.part ?? ''}: ${first?.title ?? ''}, ${Math.round(100 * suspect.chance)} in 100`,
      MOST.found,
    ),
    ...ruleSetOf(failures),
    failures: covered(failures),
    suspected: first ? { unitId, partId: first.partId, chance: suspect.chance } : null,
  };
}

/** A job of something that was found in a visit. */
export function jobOfEntry(
  entry: { id: string; text: string; unitId: string },
  logId: string,
  units: readonly [Unit, ...Unit[]],
  rigId: string | null,
): NewJob {
  return {
    units,
    rigId,
    foundOn: [entry.unitId],
    bornOf: { kind: 'entry', logId, factId: entry.id },
    found: cut(entry.text, MOST.found),
    failures: [],
    suspected: null,
  };
}

/** A job that somebody opens in their own words. */
export const jobByHand = (
  found: string,
  units: readonly [Unit, ...Unit[]],
  rigId: string | null,
): NewJob => ({
  units,
  rigId,
  foundOn: [units[0].id],
  bornOf: { kind: 'hand' },
  found: cut(found, MOST.found),
  failures: [],
  suspected: null,
});
