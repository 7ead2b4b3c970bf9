import { useMemo } from 'react';
import type { LiveRun } from '../store/useRun';

/** What a run's figures are computed in the light of, the same object as long as its header is. */
export function useFigureContext(header: LiveRun['header']) {
  return useMemo(
    () => ({
      unit: header.made.unit,
      towed: header.made.towed,
      ruleSet: header.made.ruleSet,
      sayIn: header.made.unit.gauge.unit,
    }),
    [header],
  );
}
