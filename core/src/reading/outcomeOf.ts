import type { Figure, Finding, Outcome, Verdict } from '@keen-bleed/contract';
import type { RunState } from '../run/runState';
import { CORE_VERSION } from '../version';
import { findingsOf, notDone } from '../run/findingsOf';
import type { FigureContext } from './figureContext';
import { figuresOf } from './figuresOf';
import { headVerdict } from './figureParts';
import { figureTitles, sayFigureLine } from './figureWords';
import { decisiveFigure, decisiveFinding, isOpenAsRead } from './worst';

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
  const undone = notDone(state, context.ruleSet.school);
  const cutShort = state.closed?.how === 'incomplete' || state.step !== null;
  const decisive = decisiveFigure(figures);
  const fails = decisive !== null && headVerdict(decisive) === 'fail';
  const heading = decisiveFinding(findings, decisive);
  const undecided = findings.find(({ standing }) => standing === 'open') ?? null;
  const isBad = findings.some((finding) => finding.standing === 'bad');
  const verdict: Verdict =
    fails || isBad
      ? 'fail'
      : cutShort || undone.length > 0 || skipped.some((each) => each.required)
        ? 'incomplete'
        : decisive || undecided
          ? 'cant-tell'
          : 'pass';
  return {
    coreVersion: CORE_VERSION,
    verdict,
    headline: headline(
      verdict,
      decisive,
      heading ?? (decisive ? null : undecided),
      state,
      skipped,
      undone,
      context,
    ),
    ...sayDial(figures),
    ...(cutShort ? { cutShort: true as const } : {}),
    figures,
    findings,
    skipped,
    notes: state.notes.map(({ stepId, text }) => ({
      stepId,
      title: stepId === null ? 'On the run' : (stepOf(stepId)?.title ?? stepId),
      text,
    })),
  };
}

function headline(
  verdict: Verdict,
  decisive: Figure | null,
  bad: Finding | null,
  state: RunState,
  skipped: Outcome['skipped'],
  undone: readonly string[],
  context: FigureContext,
): string {
  if (verdict === 'fail' && bad) return `${bad.title}: ${bad.said}`;
  if (decisive && verdict !== 'incomplete') return sayFigureLine(decisive, context.sayIn);
  if (verdict === 'cant-tell' && bad) return `${bad.title}: ${bad.said}`;
  if (verdict === 'pass') return 'All figures within their limits';
  if (state.closed?.reason) return `Cut short: ${state.closed.reason}`;
  const first = skipped.find((each) => each.required);
  if (first) return `${first.title} left out: ${first.reason}`;
  if (!state.step && undone[0]) return `${undone[0]}: not done`;
  return state.step ? `Stopped at “${state.step.title}”` : 'Not finished';
}

/** What dial and strokes leave open, said once for all of it. */
function sayDial(figures: readonly Figure[]): Pick<Outcome, 'dial'> {
  const open = figures.filter(isOpenAsRead).map(({ id }) => figureTitles[id].toLowerCase());
  if (open.length === 0) return {};
  const [last, ...others] = open.reverse();
  const which = others.length > 0 ? `${others.reverse().join(', ')} and ${last}` : last;
  return {
    dial: `Read within limits: ${which}. A dash gauge may be 7 % of cut-out off, and a stroke hides where in it a thing happened: to be sure, compare the gauge once with a master gauge and use small strokes.`,
  };
}
