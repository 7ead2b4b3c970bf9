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
import useSWR, { type SWRResponse } from 'swr';
import type { RequestProblem } from '../wire/api';

type Found<T> = SWRResponse<T, RequestProblem>;

/** Every unit of the shop with its newest runs. */
export const useYard = (): Found<YardRow[]> => useSWR('/api/yard');

/** Every unit, whole: what a phone needs to start a run with no network. */
export const useUnits = (): Found<Unit[]> => useSWR('/api/units');

/** One unit; without network, as the list of all units last had it. */
export const useUnit = (id: string): Found<Unit> => {
  const { data } = useUnits();
  const kept = data?.find((unit) => unit.id === id);
  return useSWR(`/api/units/${id}`, kept ? { fallbackData: kept } : {});
};

/** What is coupled now. */
export const useRigs = (): Found<Rig[]> => useSWR('/api/rigs');

/** The rule sets the shop may run by; those that ship are at hand at once. */
export const useRuleSets = (): Found<RuleSetList> =>
  useSWR('/api/rule-sets', {
    fallbackData: { sets: [...ruleSets], defaultId: defaultRuleSetId },
  });

/** The runs of a unit, newest first. */
export const useUnitRuns = (id: string): Found<RunRow[]> => useSWR(`/api/units/${id}/runs`);

/** A log as the server holds it; pass null where it is not wanted yet. */
export const useLogRecord = <K extends LogKindName>(id: string | null): Found<LogRecord<K>> =>
  useSWR(id === null ? null : `/api/logs/${id}`);

/** All that is open in the shop. */
export const useOpenLogs = (): Found<LogRow[]> => useSWR('/api/logs/open');

/** The visits of a unit, newest first. */
export const useUnitVisits = (id: string): Found<LogRow[]> => useSWR(`/api/units/${id}/visits`);

/** What was found at a unit's parts in its visits, newest first; pass null where it is not wanted yet. */
export const useFound = (id: string | null): Found<FoundAtParts> =>
  useSWR(id === null ? null : `/api/units/${id}/found`);

/** Jobs of the shop: what holds a vehicle first. */
export const useJobs = (): Found<JobRow[]> => useSWR('/api/jobs');

/** What stands against the release of a job, as the server sees it; pass null where it is not asked. */
export const useJobBlocks = (id: string | null): Found<{ blocks: string[] }> =>
  useSWR(id === null ? null : `/api/jobs/${id}/blocks`);

/** What soap’s grades turned out to be in this shop. */
export const useGrades = (): Found<GradesTaught> => useSWR('/api/grades');

/** When the tanks of each unit were drained last. */
export const useDrains = (): Found<DrainRows> => useSWR('/api/drains');

/** What the shop's repairs teach. */
export const useLessons = (): Found<Lessons> => useSWR('/api/lessons');

/** The people of the shop. */
export const usePeople = (): Found<Person[]> => useSWR('/api/people');
