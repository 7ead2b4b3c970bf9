import type { RunRow, RunRowFigure } from '@keen-bleed/contract';
import { trendsOf } from './trendsOf';

const limit = { id: 'l', min: null, max: 2, source: 's', tag: 'std' as const };
const figure = (
  id: RunRowFigure['id'],
  value: number | null,
  verdict: RunRowFigure['verdict'],
  unit: RunRowFigure['unit'] = 'psi/min',
): RunRowFigure => ({
  id,
  value,
  atMost: null,
  verdict,
  unit,
  limit: verdict ? limit : null,
});
const run = (closedAtMs: number | null, figures: RunRowFigure[]): RunRow => ({
  id: String(closedAtMs),
  unitId: 'u',
  rigTitle: 'Tipper 7',
  ruleSetTitle: 'Road test',
  drained: false,
  timeUnsure: false,
  startedAtMs: 0,
  closedAtMs,
  by: 'x',
  verdict: null,
  headline: null,
  decisive: null,
  figures,
});

describe('trends of a unit', () => {
  it('go from the oldest closed run to the newest, leaving out open runs and figures not read', () => {
    const runs = [
      run(null, [figure('static-leak', 9, 'fail')]),
      run(30, [figure('static-leak', 3, 'fail')]),
      run(20, [figure('static-leak', null, 'cant-tell')]),
      run(10, [figure('static-leak', 1, 'pass')]),
    ];
    const [trend] = trendsOf(runs, 'psi');
    expect(trend?.points.map((point) => [point.atMs, point.value])).toEqual([
      [10, 1],
      [30, 3],
    ]);
    expect(trend).toMatchObject({ min: null, max: 2 });
  });

  it('show what fails first and what has no limit last', () => {
    const figures = (leak: RunRowFigure['verdict']) => [
      figure('build-up-rate', 0.5, null, 'psi/s'),
      figure('cut-out', 126, 'pass', 'psi'),
      figure('static-leak', 3, leak),
    ];
    const trends = trendsOf([run(2, figures('fail')), run(1, figures('pass'))], 'psi');
    expect(trends.map((trend) => trend.id)).toEqual(['static-leak', 'cut-out', 'build-up-rate']);
  });

  it('speak the reader’s unit, limits too, and leave seconds alone', () => {
    const figures = [
      figure('cut-out', 100, 'pass', 'psi'),
      figure('build-up-time', 30, 'pass', 's'),
    ];
    const trends = trendsOf([run(2, figures), run(1, figures)], 'kPa');
    expect(trends[0]?.points[0]?.value).toBeCloseTo(689.5, 1);
    expect(trends[0]?.max).toBeCloseTo(13.8, 1);
    expect(trends[1]?.points[0]?.value).toBe(30);
  });

  it('need two values', () => {
    expect(trendsOf([run(1, [figure('static-leak', 1, 'pass')])], 'psi')).toEqual([]);
  });
});
