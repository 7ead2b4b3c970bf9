import type { Lessons } from '@keen-bleed/contract';
import type { JobBoard, JobLesson } from './board';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** The same part again within this counts as a repeat, ms: half a year. */
const REPEAT_WITHIN_MS = 183 * DAY_MS;

/** A released job. */
export interface TaughtJob {
  openedMs: number;
  unitTitle: (unitId: string) => string;
  lesson: JobLesson;
}

/** Released jobs among boards. */
export const taught = (
  boards: readonly Pick<JobBoard, 'openedMs' | 'learns'>[],
  unitTitle: (unitId: string) => string,
): TaughtJob[] =>
  boards.flatMap(({ openedMs, learns }) =>
    learns ? [{ openedMs, unitTitle, lesson: learns }] : [],
  );

const mean = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((sum, each) => sum + each, 0) / values.length;

const known = (values: readonly (number | null)[]): number[] =>
  values.filter((each): each is number => each !== null);

/**
 * What released jobs teach: how long they took, whether the first suspect was the part, which parts are changed, which
 * needlessly, which again, and what retests read beside what was expected. Nothing in it is of a person.
 */
export function lessonsOf(jobs: readonly TaughtJob[]): Lessons {
  const worked = jobs.flatMap(({ lesson, unitTitle }) =>
    lesson.worked.map((each) => ({
      ...each,
      atMs: lesson.releasedMs,
      unit: unitTitle(each.unitId),
    })),
  );
  const asked = jobs.flatMap(({ lesson }) => (lesson.suspect ? [lesson.suspect] : []));
  const count = <T>(all: readonly T[], key: (each: T) => string) => {
    const groups = new Map<string, T[]>();
    for (const each of all) groups.set(key(each), [...(groups.get(key(each)) ?? []), each]);
    return [...groups.values()];
  };
  const readings = jobs.flatMap(({ lesson }) => lesson.readings);
  return {
    released: jobs.length,
    meanHours: mean(jobs.map(({ openedMs, lesson }) => (lesson.releasedMs - openedMs) / HOUR_MS)),
    suspects: { asked: asked.length, right: asked.filter(({ right }) => right).length },
    parts: count(worked, ({ title }) => title)
      .map((group) => ({
        title: group[0]?.title ?? '',
        worked: group.length,
        needless: group.filter(({ needless }) => needless).length,
      }))
      .sort((a, b) => b.worked - a.worked || a.title.localeCompare(b.title)),
    repeats: count(
      worked.filter(({ needless }) => !needless),
      ({ unitId, partId }) => `${unitId} ${partId}`,
    ).flatMap((group) => {
      const sorted = [...group].sort((a, b) => a.atMs - b.atMs);
      const last = sorted.at(-1);
      const before = sorted.at(-2);
      if (!last || !before || last.atMs - before.atMs > REPEAT_WITHIN_MS) return [];
      return [
        {
          unitId: last.unitId,
          unit: last.unit,
          part: last.title,
          times: sorted.length,
          days: Math.round((last.atMs - before.atMs) / DAY_MS),
        },
      ];
    }),
    readings: count(readings, ({ title, unit }) => `${title} ${unit}`)
      .map((group) => ({
        title: group[0]?.title ?? '',
        unit: group[0]?.unit ?? '',
        count: group.length,
        before: mean(known(group.map(({ before }) => before))),
        after: mean(known(group.map(({ after }) => after))),
        expected: mean(known(group.map(({ expected }) => expected))),
      }))
      .sort((a, b) => b.count - a.count),
    faults: count(
      jobs.flatMap(({ lesson }) => lesson.faultId ?? []),
      (faultId) => faultId,
    ).map((group) => ({ faultId: group[0] ?? '', times: group.length })),
  };
}
