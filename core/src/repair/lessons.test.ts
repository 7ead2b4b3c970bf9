import { mean } from 'simple-statistics';
import type { JobLesson } from './board';
import { lessonsOf, taught } from './lessons';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const part = (partId: string, change: object = {}) => ({
  ...{ unitId: 'u1', partId, title: partId.toUpperCase(), repair: 'replaced', needless: false },
  ...change,
});
const job = (
  releasedMs: number,
  change: Partial<JobLesson> = {},
  openedMs = releasedMs - HOUR_MS,
) => ({
  openedMs,
  learns: {
    ...{ releasedMs, worked: [], suspect: null, readings: [], faultId: null },
    ...change,
  },
});
const lessons = (...jobs: { openedMs: number; learns: JobLesson | null }[]) =>
  lessonsOf(taught(jobs, (id) => `unit ${id}`));
const reading = (change: object = {}) => ({
  ...{ title: 'Static leak', unit: 'psi/min', before: 4, after: 1, expected: 0.5 },
  ...change,
});

describe('what released jobs teach', () => {
  it('is nothing of a job that was not released', () => {
    expect(lessons({ openedMs: 0, learns: null })).toEqual({
      ...{ released: 0, meanHours: null, suspects: { asked: 0, right: 0 } },
      ...{ parts: [], repeats: [], readings: [], faults: [] },
    });
  });

  it('is how long they took, from opened to released', () => {
    const hours = [2, 5, 11];
    const said = lessons(...hours.map((each) => job(100 * HOUR_MS, {}, (100 - each) * HOUR_MS)));
    expect(said.released).toBe(3);
    expect(said.meanHours).toBeCloseTo(mean(hours), 9);
  });

  it('is how often the first suspect was the part, of those that had one', () => {
    const suspect = (right: boolean) => ({ suspect: { partId: 'relay', chance: 0.5, right } });
    expect(lessons(job(1, suspect(true)), job(2, suspect(false)), job(3)).suspects).toEqual({
      asked: 2,
      right: 1,
    });
  });

  it('is which parts are worked on, the most of all first, else by name, and which needlessly', () => {
    const { parts } = lessons(
      job(1, { worked: [part('valve'), part('relay', { needless: true })] }),
      job(2, { worked: [part('relay', { unitId: 'u2' })] }),
      job(3, { worked: [part('dryer')] }),
    );
    expect(parts).toEqual([
      { title: 'RELAY', worked: 2, needless: 1 },
      { title: 'DRYER', worked: 1, needless: 0 },
      { title: 'VALVE', worked: 1, needless: 0 },
    ]);
  });

  it('is the same part of the same unit again within half a year, the last two of them apart', () => {
    const at = (days: number, ...worked: ReturnType<typeof part>[]) =>
      job(days * DAY_MS, { worked });
    const one = part('relay');
    expect(lessons(at(0, one), at(183, one)).repeats).toEqual([
      { unitId: 'u1', unit: 'unit u1', part: 'RELAY', times: 2, days: 183 },
    ]);
    expect(lessons(at(0, one), at(184, one)).repeats).toEqual([]);
    expect(lessons(at(300, one), at(0, one), at(310, one)).repeats).toMatchObject([
      { times: 3, days: 10 },
    ]);
    expect(lessons(at(0, one)).repeats).toEqual([]);
    expect(lessons(at(0, one), at(5, part('relay', { unitId: 'u2' }))).repeats).toEqual([]);
    expect(lessons(at(0, one), at(5, part('dryer'))).repeats).toEqual([]);
    expect(lessons(at(0, one), at(5, part('relay', { needless: true }))).repeats).toEqual([]);
  });

  it('is what retests read, by what was read and its unit, the most first; what was not read is left out', () => {
    const { readings } = lessons(
      job(1, { readings: [reading({ title: 'Cut-out', unit: 'psi' })] }),
      job(2, { readings: [reading(), reading({ before: null, after: 3, expected: null })] }),
      job(3, { readings: [reading({ unit: 'psi', before: null, after: null })] }),
    );
    expect(readings[0]).toEqual({
      ...{ title: 'Static leak', unit: 'psi/min', count: 2, before: 4, after: 2, expected: 0.5 },
    });
    expect(readings).toHaveLength(3);
    expect(readings[2]).toMatchObject({ unit: 'psi', before: null, after: null });
  });

  it('is how often each fault was the one', () => {
    const { faults } = lessons(
      ...['leak: tank', 'governor high', 'leak: tank'].map((faultId) => job(1, { faultId })),
      job(2),
    );
    expect(faults).toEqual([
      { faultId: 'leak: tank', times: 2 },
      { faultId: 'governor high', times: 1 },
    ]);
  });
});
