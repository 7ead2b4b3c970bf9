import { roadTest, usualGauge } from '@keen-bleed/core';
import { runHeaderOf } from '../store/startRun';
import { act, renderHook } from '@testing-library/react-native';
import { madeUpUnit } from '../test/madeUpUnit';
import { byEye, gaugeSet, sampled } from './practiceGauge';
import { usePractice } from './usePractice';

const unit = madeUpUnit();
const header = runHeaderOf(
  { unit, towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] },
  1_760_000_000_000,
);

describe('a run for practice', () => {
  it('takes facts by the clock it is given, in their order, and refuses what does not fit', async () => {
    let nowMs = header.startedAtMs;
    const clock = () => nowMs;
    const { result } = renderHook(() => usePractice(header, clock));
    const tell = async (
      fact: Parameters<NonNullable<typeof result.current>['run']['record']>[0],
    ) => {
      let problem: string | null = 'not told';
      await act(async () => {
        problem = (await result.current?.run.record(fact)) ?? null;
      });
      return problem;
    };
    const mark = (key: string, readingPsi: number) =>
      tell({
        kind: 'mark',
        stepId: 'build-up',
        key,
        readingPsi,
        resolutionPsi: 1,
        method: 'crossing',
      });
    expect(await tell({ kind: 'ready', stepId: 'no such step', gauge: 'primary' })).toContain(
      'no step',
    );
    expect(await tell({ kind: 'ready', stepId: 'prepare', gauge: 'primary' })).toBeNull();
    nowMs += 16_000;
    expect(await mark('from', 85)).toBeNull();
    nowMs += 21_000;
    expect(await mark('to', 100)).toBeNull();
    const { state } = result.current!.run;
    expect(state.marks.map(({ atMs }) => atMs - header.startedAtMs)).toEqual([16_000, 37_000]);
    expect(state.step?.id).toBe('cut-out');
  });

  it('is none until there is something to run', () => {
    const { result } = renderHook(() => usePractice(null, () => 0));
    expect(result.current).toBeNull();
  });
});

describe('the gauge of a run for practice', () => {
  it('sends ten times a second at most, by its own clock', () => {
    let log = sampled([], 1_000, 80);
    for (let ms = 1_033; ms <= 2_000; ms += 33) log = sampled(log, ms, 80 + ms / 1_000);
    expect(log.length).toBeLessThanOrEqual(10);
    for (const [i, { atMs, seq }] of log.entries()) {
      expect(seq).toBe(i + 1);
      if (i > 0) expect(atMs - log[i - 1]!.atMs).toBeGreaterThanOrEqual(100);
    }
  });

  it('is finer than an eye, which reads to the half division and catches nothing by itself', () => {
    const log = sampled([], 0, 87.66);
    expect(gaugeSet(log, 87.66)).toMatchObject({
      psi: 87.7,
      asRole: 'simulated',
    });
    expect(byEye(usualGauge.psi, 87.66)).toMatchObject({
      psi: 88,
      resolutionPsi: 1,
      asRole: null,
      log: [],
    });
  });
});
