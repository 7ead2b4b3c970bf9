import type { GaugeRole, MarkEvent, RunEvent } from '@keen-bleed/contract';
import type { MarkSpec, Procedure, ProcedureUnit, Step } from '../procedure/procedure';

/** A mark as it stands after every correction. */
export interface LiveMark {
  /** The event that holds the standing reading; a correction names this one. */
  eventId: string;
  stepId: string;
  key: string;
  atMs: number;
  readingPsi: number;
  resolutionPsi: number;
  method: 'read' | 'crossing';
}

/** A hold that has been started and is not over. */
export interface RunningHold {
  startedAtMs: number;
  endsAtMs: number;
  crossings: number;
  /** Its end by itself was taken back: the needle is read instead. */
  endTakenBack: boolean;
}

/** Where a run stands; wholly made from its facts. */
export interface RunState {
  procedure: Procedure;
  unit: ProcedureUnit;
  /** The step that is waited on; null when all are done or skipped. */
  step: Step | null;
  stepIndex: number;
  /** The mark waited for next, in a step of marks or at either end of a hold. */
  awaited: MarkSpec | null;
  hold: RunningHold | null;
  gauge: GaugeRole | null;
  marks: readonly LiveMark[];
  /** What was answered in each step of looking. */
  answers: ReadonlyMap<string, Readonly<Record<string, string>>>;
  skips: ReadonlyMap<string, string>;
  /** When holds ended by themselves. */
  holdsOver: ReadonlyMap<string, number>;
  notes: readonly { stepId: string; text: string }[];
  closed: {
    how: 'complete' | 'incomplete';
    reason: string | null;
    atMs: number;
  } | null;
  /** What undo would take back. */
  undoable: RunEvent | null;
  lastSeq: number;
  lastAtMs: number;
}

/**
 * Folds the facts of a run into where it stands.
 *
 * @param events in any order; events that share an id count once
 */
export function runState(
  procedure: Procedure,
  unit: ProcedureUnit,
  events: readonly RunEvent[],
): RunState {
  const ordered = [...new Map(events.map((event) => [event.id, event])).values()].sort(
    (a, b) => a.seq - b.seq,
  );
  const retracted = new Set(
    ordered.flatMap((event) => (event.kind === 'retract' ? [event.target] : [])),
  );
  const live = ordered.filter((event) => event.kind !== 'retract' && !retracted.has(event.id));
  const superseded = new Set(
    live.flatMap((event) => (event.kind === 'mark' && event.supersedes ? [event.supersedes] : [])),
  );
  const marks = live
    .filter((event): event is MarkEvent => event.kind === 'mark' && !superseded.has(event.id))
    .map(toLiveMark);
  const skips = new Map(
    live.flatMap((event) => (event.kind === 'skip' ? [[event.stepId, event.reason] as const] : [])),
  );
  const ready = live.findLast((event) => event.kind === 'ready');
  const close = live.findLast((event) => event.kind === 'close');
  const holdsOver = new Map(
    live.flatMap((event) =>
      event.kind === 'hold-over' ? [[event.stepId, event.atMs] as const] : [],
    ),
  );
  const answers = new Map(
    live.flatMap((event) =>
      event.kind === 'look' ? [[event.stepId, event.answers] as const] : [],
    ),
  );
  /** Taken back to read the needle, and not to hold on: then time was added after it. */
  const endTakenBack = (stepId: string) => {
    const ends = new Set(
      ordered.flatMap((event) =>
        event.kind === 'hold-over' && event.stepId === stepId ? [event.id] : [],
      ),
    );
    const takenBack = ordered.findLast(
      (event) => event.kind === 'retract' && ends.has(event.target),
    );
    if (!takenBack) return false;
    return !live.some(
      (event) => event.kind === 'extend' && event.stepId === stepId && event.seq > takenBack.seq,
    );
  };
  const extraS = (stepId: string) =>
    live.reduce(
      (sum, event) =>
        event.kind === 'extend' && event.stepId === stepId ? sum + event.seconds : sum,
      0,
    );

  const has = (stepId: string, key: string) =>
    marks.some((mark) => mark.stepId === stepId && mark.key === key);
  const isDone = (step: Step): boolean => {
    if (skips.has(step.id)) return true;
    switch (step.act.kind) {
      case 'ready':
        return live.some((event) => event.kind === 'ready' && event.stepId === step.id);
      case 'marks':
        return step.act.marks.every((spec) => has(step.id, spec.key));
      case 'look':
        return answers.has(step.id);
      case 'hold': {
        const { start, end, other } = step.act;
        const ended = holdsOver.has(step.id) || has(step.id, end.key);
        return has(step.id, start.key) && ended && (!other || has(step.id, other.end.key));
      }
    }
  };

  const openIndex = procedure.steps.findIndex((step) => !isDone(step));
  const stepIndex = openIndex < 0 ? procedure.steps.length : openIndex;
  const step = procedure.steps[stepIndex] ?? null;
  const last = ordered.at(-1);
  return {
    procedure,
    unit,
    step,
    stepIndex,
    awaited: step ? awaitedIn(step, has, holdsOver.has(step.id)) : null,
    hold: step
      ? runningHold(step, marks, extraS(step.id), endTakenBack(step.id), holdsOver.has(step.id))
      : null,
    gauge: ready?.kind === 'ready' ? ready.gauge : null,
    marks,
    answers,
    skips,
    holdsOver,
    notes: live.flatMap((event) =>
      event.kind === 'note' ? [{ stepId: event.stepId, text: event.text }] : [],
    ),
    closed:
      close?.kind === 'close'
        ? { how: close.how, reason: close.reason ?? null, atMs: close.atMs }
        : null,
    undoable: close ? null : (live.at(-1) ?? null),
    lastSeq: last?.seq ?? 0,
    lastAtMs: ordered.reduce((latest, event) => Math.max(latest, event.atMs), 0),
  };
}

function toLiveMark(event: MarkEvent): LiveMark {
  const { id, stepId, key, atMs, readingPsi, resolutionPsi, method } = event;
  return { eventId: id, stepId, key, atMs, readingPsi, resolutionPsi, method };
}

function awaitedIn(
  step: Step,
  has: (stepId: string, key: string) => boolean,
  endedByItself: boolean,
): MarkSpec | null {
  switch (step.act.kind) {
    case 'ready':
    case 'look':
      return null;
    case 'marks':
      return step.act.marks.find((spec) => !has(step.id, spec.key)) ?? null;
    case 'hold': {
      const { start, end, other } = step.act;
      if (!has(step.id, start.key)) return start;
      if (other && !has(step.id, other.start.key)) return other.start;
      if (!has(step.id, end.key) && !endedByItself) return end;
      return other && !has(step.id, other.end.key) ? other.end : null;
    }
  }
}

function runningHold(
  step: Step,
  marks: readonly LiveMark[],
  extraS: number,
  endTakenBack: boolean,
  endedByItself: boolean,
): RunningHold | null {
  if (step.act.kind !== 'hold' || endedByItself) return null;
  const { start, crossing, end, other, seconds } = step.act;
  const markOf = (key: string) =>
    marks.find((mark) => mark.stepId === step.id && mark.key === key) ?? null;
  const started = markOf(start.key);
  // With two gauges the hold has begun once both have been read at its start.
  if (!started || (other && !markOf(other.start.key)) || markOf(end.key)) return null;
  return {
    startedAtMs: started.atMs,
    endsAtMs: started.atMs + (seconds + extraS) * 1000,
    crossings: marks.filter((mark) => mark.stepId === step.id && mark.key === crossing.key).length,
    endTakenBack,
  };
}
