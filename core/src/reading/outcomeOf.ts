import type { Figure, Finding, Outcome, Verdict } from '@keen-bleed/contract';
import type { RunState } from '../run/runState';
import { CORE_VERSION } from '../version';
import { findingsOf } from '../run/findingsOf';
import type { FigureContext } from './figureContext';
import { figuresOf } from './figuresOf';
import { sayFigureLine } from './figureWords';

/** The figure a run's verdict hangs on: the first that fails, else the first that can't be told, else none. */
export function decisiveFigure(figures: readonly Figure[]): Figure | null {
  return (
    figures.find((figure) => figure.verdict === 'fail') ??
    figures.find((figure) => figure.verdict === 'cant-tell') ??
    null
  );
}

/**
 * What a run comes to, from its facts alone. A failed figure or a bad finding outweighs everything; a run cut
 * short or with a required step left out is incomplete; then doubt; only a run with none of these passes.
 */
export function outcomeOf(state: RunState, context: FigureContext): Outcome {
  const figures = figuresOf(state, context);
  const findings = findingsOf(state, context.ruleSet.school);
  const stepOf = (stepId: string) => state.procedure.steps.find((step) => step.id === stepId);
  const skipped = [...state.skips].map(([stepId, reason]) => ({
    stepId,
    title: stepOf(stepId)?.title ?? stepId,
    reason,
    required: stepOf(stepId)?.required ?? true,
  }));
  const cutShort = state.closed?.how === 'incomplete' || state.step !== null;
  const decisive = decisiveFigure(figures);
  const bad = findings.find((finding) => finding.standing === 'bad') ?? null;
  const verdict: Verdict =
    decisive?.verdict === 'fail' || bad
      ? 'fail'
      : cutShort || skipped.some((each) => each.required)
        ? 'incomplete'
        : decisive
          ? 'cant-tell'
          : 'pass';
  return {
    coreVersion: CORE_VERSION,
    verdict,
    headline: headline(verdict, decisive, bad, state, skipped, context),
    figures,
    findings,
    skipped,
    notes: state.notes.map((note) => ({
      ...note,
      title: stepOf(note.stepId)?.title ?? note.stepId,
    })),
  };
}

function headline(
  verdict: Verdict,
  decisive: Figure | null,
  bad: Finding | null,
  state: RunState,
  skipped: Outcome['skipped'],
  context: FigureContext,
): string {
  if (verdict === 'fail' && decisive?.verdict !== 'fail' && bad) {
    return `${bad.title}: ${bad.said}`;
  }
  if (decisive && verdict !== 'incomplete') return sayFigureLine(decisive, context.sayIn);
  if (verdict === 'pass') return 'All figures within their limits';
  if (state.closed?.reason) return `Cut short: ${state.closed.reason}`;
  const first = skipped.find((each) => each.required);
  if (first) return `${first.title} left out: ${first.reason}`;
  return state.step ? `Stopped at “${state.step.title}”` : 'Not finished';
}
