import type { RunRow, RunRowFigure } from '@keen-bleed/contract';

/** One figure of two runs. */
export interface ComparedFigure {
  id: RunRowFigure['id'];
  unit: RunRowFigure['unit'];
  before: RunRowFigure | null;
  after: RunRowFigure | null;
  /** After less before, in the figure's own unit; null where one of them is not there. */
  change: number | null;
  /** The later run's limit, or the earlier one's where it has none. */
  limit: RunRowFigure['limit'];
}

/** Every figure that either run holds, in the order of the later one. */
export function comparedFigures(earlier: RunRow, later: RunRow): ComparedFigure[] {
  const ids = [...new Set([...later.figures, ...earlier.figures].map((figure) => figure.id))];
  return ids.flatMap((id): ComparedFigure[] => {
    const before = earlier.figures.find((figure) => figure.id === id) ?? null;
    const after = later.figures.find((figure) => figure.id === id) ?? null;
    const either = after ?? before;
    if (!either) return [];
    const both = typeof before?.value === 'number' && typeof after?.value === 'number';
    return [
      {
        id,
        unit: either.unit,
        before,
        after,
        change: both ? (after.value ?? 0) - (before.value ?? 0) : null,
        limit: after?.limit ?? before?.limit ?? null,
      },
    ];
  });
}
