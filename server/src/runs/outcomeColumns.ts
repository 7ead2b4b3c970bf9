import type { Outcome } from '@keen-bleed/contract';
import { decisiveFigure } from '@keen-bleed/core';
import type { runs } from '../db/schema';

/** The columns of a run that hold what was computed from its facts; all can be computed again. */
export function outcomeColumns(
  outcome: Outcome,
): Pick<
  typeof runs.$inferInsert,
  | 'outcome'
  | 'verdict'
  | 'headline'
  | 'decisive'
  | 'figures'
  | 'staticLeak'
  | 'drained'
  | 'coreVersion'
> {
  return {
    outcome,
    verdict: outcome.verdict,
    headline: outcome.headline,
    // A bad finding is decisive without a number; its headline says it.
    decisive: outcome.verdict === 'fail' ? failed(outcome) : decisiveFigure(outcome.figures),
    figures: outcome.figures.map(({ id, value, atMost, unit, verdict, limit }) => ({
      id,
      value,
      atMost,
      unit,
      verdict,
      limit,
    })),
    staticLeak: outcome.figures.find((figure) => figure.id === 'static-leak')?.value ?? null,
    drained: outcome.findings.some((finding) => finding.key === 'water'),
    coreVersion: outcome.coreVersion,
  };
}

function failed(outcome: Outcome) {
  const decisive = decisiveFigure(outcome.figures);
  return decisive?.verdict === 'fail' ? decisive : null;
}
