import { itemsOf } from './findingsOf';
import type { FieldProblem, Gauge, RunEvent } from '@keen-bleed/contract';
import { rounded } from '../units/say';
import { fromPsi } from '../units/pressure';
import { WATCHED_WITHIN_MS } from './awaiting';
import type { RunState } from './runState';

/**
 * Whether a fact may be added to a run. The app asks before it records, the server before it stores; both
 * ask here, so a phone never holds a fact the server will not take.
 *
 * @param known the ids of the events the state was made from
 * @returns null where it may, otherwise the field that is wrong and what would be right
 */
export function admit(
  state: RunState,
  known: ReadonlySet<string>,
  event: RunEvent,
): FieldProblem | null {
  if (state.closed)
    return {
      field: 'kind',
      message: 'This run is closed: nothing can be added.',
    };
  if (event.seq !== state.lastSeq + 1) {
    return {
      field: 'seq',
      message: `The next place in this run is ${state.lastSeq + 1}.`,
    };
  }
  if ('stepId' in event && !state.procedure.steps.some((step) => step.id === event.stepId)) {
    return {
      field: 'stepId',
      message: `This procedure has no step "${event.stepId}".`,
    };
  }
  switch (event.kind) {
    case 'retract':
      return known.has(event.target)
        ? null
        : { field: 'target', message: 'There is no such event to take back.' };
    case 'mark':
      return markProblem(state, event);
    case 'skip': {
      const step = state.procedure.steps.find((each) => each.id === event.stepId);
      if (step?.maySkip === false) {
        return {
          field: 'stepId',
          message: `“${step.title}” cannot be skipped.`,
        };
      }
      return timeProblem(state, event.atMs);
    }
    case 'look':
      return lookProblem(state, event) ?? timeProblem(state, event.atMs);
    case 'hold-over':
      return holdOverProblem(state, event) ?? timeProblem(state, event.atMs);
    default:
      return timeProblem(state, event.atMs);
  }
}

function lookProblem(
  state: RunState,
  event: Extract<RunEvent, { kind: 'look' }>,
): FieldProblem | null {
  const step = state.procedure.steps.find((each) => each.id === event.stepId);
  const items = step ? itemsOf(step) : [];
  if (items.length === 0) {
    return { field: 'stepId', message: 'Nothing is asked in this step.' };
  }
  for (const item of items) {
    const answer = event.answers[item.key];
    if (!item.options.some((option) => option.value === answer)) {
      const allowed = item.options.map((option) => option.value).join(', ');
      return {
        field: `answers.${item.key}`,
        message: `“${item.ask}” must be answered by one of: ${allowed}.`,
      };
    }
  }
  const extra = Object.keys(event.answers).find((key) => !items.some((item) => item.key === key));
  return extra === undefined
    ? null
    : { field: `answers.${extra}`, message: `This step does not ask after "${extra}".` };
}

/** Slack for a fact that is made a moment before the clock it goes by, ms. */
const EARLY_BY_MS = 1_000;

function holdOverProblem(
  state: RunState,
  event: Extract<RunEvent, { kind: 'hold-over' }>,
): FieldProblem | null {
  if (state.step?.id !== event.stepId || !state.hold) {
    return { field: 'stepId', message: 'No hold is running in this step.' };
  }
  if (event.atMs < state.hold.endsAtMs - EARLY_BY_MS) {
    return { field: 'atMs', message: 'The hold is not over yet. Let it run, or stop the run.' };
  }
  if (event.atMs > state.hold.endsAtMs + WATCHED_WITHIN_MS) {
    return {
      field: 'atMs',
      message: 'Nobody saw the hold end: read the needle and mark where it stands.',
    };
  }
  return null;
}

function markProblem(
  state: RunState,
  event: Extract<RunEvent, { kind: 'mark' }>,
): FieldProblem | null {
  const { gauge } = state.unit;
  const topPsi = topOf(gauge);
  if (event.readingPsi < 0 || event.readingPsi > topPsi + 1e-6) {
    const shown = rounded(fromPsi(event.readingPsi, gauge.unit), 1);
    return {
      field: 'readingPsi',
      message: `${shown} ${gauge.unit} is off the gauge: it reads 0 to ${gauge.top} ${gauge.unit}.`,
    };
  }
  if (!keysOf(state, event.stepId).includes(event.key)) {
    return {
      field: 'key',
      message: `This step takes no mark called "${event.key}".`,
    };
  }
  if (event.supersedes === undefined) return timeProblem(state, event.atMs);
  const corrected = state.marks.find((mark) => mark.eventId === event.supersedes);
  if (!corrected) {
    return {
      field: 'supersedes',
      message: 'The mark to correct is not there, or was corrected already.',
    };
  }
  if (corrected.atMs !== event.atMs || corrected.key !== event.key) {
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
  if (!act || act.kind === 'ready' || act.kind === 'look') return [];
  if (act.kind === 'marks') return act.marks.map((spec) => spec.key);
  return [
    act.start.key,
    act.crossing.key,
    act.reading.key,
    act.end.key,
    ...(act.other ? [act.other.start.key, act.other.end.key] : []),
  ];
}

function timeProblem(state: RunState, atMs: number): FieldProblem | null {
  if (atMs >= state.lastAtMs) return null;
  const backS = Math.ceil((state.lastAtMs - atMs) / 1000);
  return {
    field: 'atMs',
    message: `The clock went back by ${backS} s since the mark before. Set it right; then take this again.`,
  };
}
