import type {
  DrainRows,
  FoundAtParts,
  GradesTaught,
  Person,
  Rig,
  RuleSetList,
  JobRow,
  Lessons,
  LogKindName,
  LogRecord,
  LogRow,
  RunRow,
  Unit,
  YardRow,
} from '@keen-bleed/contract';
import { defaultRuleSetId, ruleSets } from '@keen-bleed/core';
import { useAsked, type Found } from './useAsked';

/** Every unit of the shop with its newest runs. */
export const useYard = (): Found<YardRow[]> => useAsked('/api/v1/yard');

/** Every unit, whole: what a phone needs to start a run with no network. */
export const useUnits = (): Found<Unit[]> => useAsked('/api/v1/units');

/** One unit; without network, as the list of all units last had it. */
export const useUnit = (id: string): Found<Unit> => {
  const { data } = useUnits();
  const kept = data?.find((unit) => unit.id === id);
  return useAsked(`/api/v1/units/${id}`, kept ? { fallbackData: kept } : {});
};

/** What is coupled now. */
export const useRigs = (): Found<Rig[]> => useAsked('/api/v1/rigs');

/** The rule sets the shop may run by; those that ship are at hand at once. */
export const useRuleSets = (): Found<RuleSetList> =>
  useAsked('/api/v1/rule-sets', {
    fallbackData: { sets: [...ruleSets], defaultId: defaultRuleSetId },
  });

/** The runs of a unit, newest first. */
export const useUnitRuns = (id: string): Found<RunRow[]> => useAsked(`/api/v1/units/${id}/runs`);

/** A log as the server holds it; pass null where it is not wanted yet. */
export const useLogRecord = <K extends LogKindName>(id: string | null): Found<LogRecord<K>> =>
  useAsked(id === null ? null : `/api/v1/logs/${id}`) as unknown as Found<LogRecord<K>>;

/** All that is open in the shop. */
export const useOpenLogs = (): Found<LogRow[]> => useAsked('/api/v1/logs/open');

/** The visits of a unit, newest first. */
export const useUnitVisits = (id: string): Found<LogRow[]> =>
  useAsked(`/api/v1/units/${id}/visits`);

/** What was found at a unit's parts in its visits, newest first; pass null where it is not wanted yet. */
export const useFound = (id: string | null): Found<FoundAtParts> =>
  useAsked(id === null ? null : `/api/v1/units/${id}/found`);

/** Jobs of the shop: what holds a vehicle first. */
export const useJobs = (): Found<JobRow[]> => useAsked('/api/v1/jobs');

/** What stands against the release of a job, as the server sees it; pass null where it is not asked. */
export const useJobBlocks = (id: string | null): Found<{ blocks: string[] }> =>
  useAsked(id === null ? null : `/api/v1/jobs/${id}/blocks`);

/** What soap’s grades turned out to be in this shop. */
export const useGrades = (): Found<GradesTaught> => useAsked('/api/v1/grades');

/** When the tanks of each unit were drained last. */
export const useDrains = (): Found<DrainRows> => useAsked('/api/v1/drains');

/** What the shop's repairs teach. */
export const useLessons = (): Found<Lessons> => useAsked('/api/v1/lessons');

/** The people of the shop. */
export const usePeople = (): Found<Person[]> => useAsked('/api/v1/people');
