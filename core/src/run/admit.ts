import { answeredIn, NOT_DONE } from './findingsOf';
import type { FieldProblem, Gauge, RunFact } from '@keen-bleed/contract';
import { rounded } from '../units/say';
import { fromPsi } from '../units/pressure';
import { WATCHED_WITHIN_MS } from './awaiting';
import { isOvertaken } from './runLog';
import type { RunState } from './runState';

/**
 * What a run knows to be wrong with a fact. The app asks before it records, the server before it stores; both ask
 * here, so a phone never holds a fact the server will not take. What every log asks stands in `log/foldedLog`.
 *
 * @returns null where it may be added, otherwise the field that is wrong and what would be right
 */
export function admit(state: RunState, fact: RunFact): FieldProblem | null {
  // It will not count, so nothing in it can be wrong for the run; refusing it would lose it.
  if (isOvertaken(state.takeOvers, fact)) return null;
  if ('stepId' in fact && !state.procedure.steps.some((step) => step.id === fact.stepId)) {
    return {
      field: 'stepId',
      message: `This run asks for no step "${fact.stepId}".`,
    };
  }
  switch (fact.kind) {
    case 'mark':
      return markProblem(state, fact);
    case 'skip': {
      const step = state.procedure.steps.find((each) => each.id === fact.stepId);
      if (step?.maySkip !== false) return null;
      return { field: 'stepId', message: `“${step.title}” cannot be skipped.` };
    }
    case 'look':
      return lookProblem(state, fact);
    case 'stop':
      return stopProblem(state, fact);
    case 'hold-over':
      return holdOverProblem(state, fact);
    case 'about':
      if (fact.odometer || fact.place) return null;
      return { field: 'odometer', message: 'Enter the odometer reading, the place, or both.' };
    default:
      return null;
  }
}

function lookProblem(
  state: RunState,
  fact: Extract<RunFact, { kind: 'look' }>,
): FieldProblem | null {
  const step = state.procedure.steps.find((each) => each.id === fact.stepId);
  const items = step ? answeredIn(step) : [];
  if (items.length === 0) {
    return { field: 'stepId', message: 'Nothing is asked in this step.' };
  }
  for (const item of items) {
    const answer = fact.answers[item.key];
    if (answer !== NOT_DONE && !item.options.some((option) => option.value === answer)) {
      const allowed = item.options.map((option) => option.value).join(', ');
      return {
        field: `answers.${item.key}`,
        message: `“${item.ask}” must be answered by one of: ${allowed}.`,
      };
    }
  }
  const extra = Object.keys(fact.answers).find((key) => !items.some((item) => item.key === key));
  return extra === undefined
    ? null
    : { field: `answers.${extra}`, message: `This step does not ask after "${extra}".` };
}

function stopProblem(
  state: RunState,
  { stepId, measured, went }: Extract<RunFact, { kind: 'stop' }>,
): FieldProblem | null {
  const act = state.procedure.steps.find((each) => each.id === stepId)?.act;
  if (act?.kind !== 'stop' || !act.measures.includes(measured.by)) {
    return { field: 'stepId', message: 'No stop is measured so in this step.' };
  }
  const [first] = act.items;
  if (measured.by === 'roller')
    return went === null
      ? null
      : { field: 'went', message: 'On rollers nothing is driven: leave out how it went.' };
  if (went !== null && first?.options.some(({ value }) => value === went)) return null;
  const allowed = (first?.options ?? []).map(({ value }) => value).join(', ');
  return { field: 'went', message: `How it stopped must be one of: ${allowed}.` };
}

/** Slack for a fact that is made a moment before the clock it goes by, ms. */
const EARLY_BY_MS = 1_000;

function holdOverProblem(
  state: RunState,
  fact: Extract<RunFact, { kind: 'hold-over' }>,
): FieldProblem | null {
  if (state.step?.id !== fact.stepId || !state.hold) {
    return { field: 'stepId', message: 'No hold is running in this step.' };
  }
  if (fact.atMs < state.hold.endsAtMs - EARLY_BY_MS) {
    return { field: 'atMs', message: 'The hold is not over yet. Let it run, or stop the run.' };
  }
  if (fact.atMs > state.hold.endsAtMs + WATCHED_WITHIN_MS) {
    return {
      field: 'atMs',
      message: 'Nobody saw the hold end: read the needle and mark where it stands.',
    };
  }
  return null;
}

function markProblem(
  state: RunState,
  fact: Extract<RunFact, { kind: 'mark' }>,
): FieldProblem | null {
  const { gauge } = state.unit;
  const topPsi = topOf(gauge);
  if (fact.readingPsi < 0 || fact.readingPsi > topPsi + 1e-6) {
    const shown = rounded(fromPsi(fact.readingPsi, gauge.unit), 1);
    return {
      field: 'readingPsi',
      message: `${shown} ${gauge.unit} is off the gauge: it reads 0 to ${gauge.top} ${gauge.unit}.`,
    };
  }
  if (!keysOf(state, fact.stepId).includes(fact.key)) {
    return {
      field: 'key',
      message: `This step takes no mark called "${fact.key}".`,
    };
  }
  if (fact.supersedes === undefined) return null;
  const corrected = state.marks.find((mark) => mark.factId === fact.supersedes);
  if (!corrected) {
    return {
      field: 'supersedes',
      message: 'The mark to correct is not there, or was corrected already.',
    };
  }
  if (corrected.atMs !== fact.atMs || corrected.key !== fact.key) {
    return {
      field: 'supersedes',
      message: 'A correction keeps the time and the place of the mark it corrects.',
    };
  }
  return null;
}

function topOf(gauge: Gauge): number {
  return gauge.top / fromPsi(1, gauge.unit);
}

function keysOf(state: RunState, stepId: string): string[] {
  const act = state.procedure.steps.find((step) => step.id === stepId)?.act;
  if (!act || act.kind === 'ready' || act.kind === 'look' || act.kind === 'stop') return [];
  if (act.kind === 'marks') return act.marks.map((spec) => spec.key);
  return [
    ...(act.settle ? [act.settle.key] : []),
    act.start.key,
    act.crossing.key,
    act.reading.key,
    act.end.key,
    ...(act.other ? [act.other.start.key, act.other.end.key] : []),
  ];
}
