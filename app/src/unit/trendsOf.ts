import type { FigureId, PressureUnit, RunRow, RunRowFigure } from '@keen-bleed/contract';
import { fromPsi } from '@keen-bleed/core';
import type { TrendPoint } from '../trend/TrendLine';

/** A figure's values over the runs of a unit, in the unit of pressure they are shown in. */
export interface Trend {
  id: FigureId;
  figureUnit: RunRowFigure['unit'];
  points: TrendPoint[];
  min: number | null;
  max: number | null;
}

const isPressure = (figureUnit: RunRowFigure['unit']) => figureUnit.startsWith('psi');

/** What needs looking at stands first; figures without a limit stand last. */
const rankOf: Readonly<Record<string, number>> = {
  fail: 0,
  'cant-tell': 1,
  pass: 2,
};
const rank = (trend: Trend) => rankOf[trend.points.at(-1)?.verdict ?? ''] ?? 3;

/** One trend for each figure that at least two closed runs hold, those that fail first. */
export function trendsOf(runs: readonly RunRow[], unit: PressureUnit): Trend[] {
  const closed = runs
    .filter((run) => run.closedAtMs !== null)
    .sort((a, b) => (a.closedAtMs ?? 0) - (b.closedAtMs ?? 0));
  const ids = [
    ...new Set([...closed].reverse().flatMap((run) => run.figures.map((figure) => figure.id))),
  ];
  const trends = ids.flatMap((id): Trend[] => {
    const found = closed.flatMap((run) =>
      run.figures.filter((figure) => figure.id === id).map((figure) => ({ run, figure })),
    );
    const newest = found.at(-1)?.figure;
    if (!newest) return [];
    const shown = (value: number) => (isPressure(newest.unit) ? fromPsi(value, unit) : value);
    const points = found.flatMap(({ run, figure }) =>
      figure.value === null || run.closedAtMs === null
        ? []
        : [
            {
              atMs: run.closedAtMs,
              // What is only bounded is drawn where its bound is, as a bound.
              value: shown(figure.atMost ?? figure.value),
              isBound: figure.atMost !== null,
              verdict: figure.verdict,
            },
          ],
    );
    if (points.length < 2) return [];
    const bound = (value: number | null | undefined) =>
      value === null || value === undefined ? null : shown(value);
    return [
      {
        id,
        figureUnit: newest.unit,
        points,
        min: bound(newest.limit?.min),
        max: bound(newest.limit?.max),
      },
    ];
  });
  return trends.sort((a, b) => rank(a) - rank(b));
}
