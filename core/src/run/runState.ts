import type {
  AboutFact,
  GaugeRole,
  MarkFact,
  RunFact,
  StopFact,
  TakeOverFact,
} from '@keen-bleed/contract';
import type { MarkSpec, Procedure, ProcedureUnit, Step } from '../procedure/procedure';

/** A mark as it stands after every correction. */
export interface LiveMark {
  /** The fact that holds the standing reading; a correction names this one. */
  factId: string;
  stepId: string;
  key: string;
  atMs: number;
  readingPsi: number;
  resolutionPsi: number;
  method: 'read' | 'crossing';
  /** How often it was taken; the reading is their mean. */
  takes: number;
  /** Nobody set the needle: the suggested value stands there, and it is no reading. */
  suggested: boolean;
}

/** A hold that has been started and is not over. */
export interface RunningHold {
  startedAtMs: number;
  endsAtMs: number;
  crossings: number;
  /** Its end by itself was taken back: the needle is read instead. */
  endTakenBack: boolean;
}

/** A note, and the step it was written in; null where it was added afterwards. */
export interface RunNote {
  factId: string;
  stepId: string | null;
  text: string;
}

/** What is told of the vehicle and the place at a run. */
export type About = Pick<AboutFact, 'odometer' | 'place'>;

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
  /** Service stops that were measured, by step. */
  stops: ReadonlyMap<string, StopFact>;
  skips: ReadonlyMap<string, string>;
  /** When holds ended by themselves. */
  holdsOver: ReadonlyMap<string, number>;
  notes: readonly RunNote[];
  /** What was read off the vehicle and where it stood; the last that was said of each. */
  about: About;
  /** Who went on with it on another device, in their order; the last one writes. */
  takeOvers: readonly TakeOverFact[];
  /** Facts that are kept and do not count: written elsewhere after it was taken over, or after it was closed. */
  setAside: readonly RunFact[];
  closed: {
    how: 'complete' | 'incomplete';
    reason: string | null;
    atMs: number;
  } | null;
  /** What undo would take back. */
  undoable: RunFact | null;
  lastAtMs: number;
}

/** Everything that stands after some facts; made new for each replay. */
interface Standing {
  live: RunFact[];
  marks: LiveMark[];
  /** `step/key` of every mark that stands. */
  marked: Set<string>;
  ready: Map<string, GaugeRole>;
  answers: Map<string, Readonly<Record<string, string>>>;
  stops: Map<string, StopFact>;
  skips: Map<string, string>;
  holdsOver: Map<string, number>;
  extraS: Map<string, number>;
  /** Holds whose end by itself was taken back to read the needle, and not to hold on: then time was added after it. */
  endsTakenBack: Set<string>;
  notes: RunNote[];
  about: About;
  closed: RunState['closed'];
  lastAtMs: number;
}

const nothing = (): Standing => ({
  live: [],
  marks: [],
  marked: new Set(),
  ready: new Map(),
  answers: new Map(),
  stops: new Map(),
  skips: new Map(),
  holdsOver: new Map(),
  extraS: new Map(),
  endsTakenBack: new Set(),
  notes: [],
  about: {},
  closed: null,
  lastAtMs: 0,
});

/**
 * Folds the facts of a run, one after the other. A mark costs the same whether it is the tenth or the thousandth; only
 * what takes an earlier fact back, or corrects it, goes through all of them again.
 */
export class RunFold {
  private readonly byId = new Map<string, RunFact>();
  /** What a replay goes through: what was taken back is left out for good. */
  private counting: RunFact[] = [];
  private readonly takenBack = new Set<string>();
  private readonly corrections: MarkFact[] = [];
  private now = nothing();
  private cached: RunState | null = null;

  /** @param facts in their order */
  constructor(
    private readonly procedure: Procedure,
    private readonly unit: ProcedureUnit,
    facts: readonly RunFact[] = [],
  ) {
    for (const fact of facts) this.know(fact);
    this.replay();
  }

  add(fact: RunFact): void {
    this.know(fact);
    this.cached = null;
    if (fact.kind === 'retract' || (fact.kind === 'mark' && fact.supersedes)) this.replay();
    else this.take(fact);
  }

  get isClosed(): boolean {
    return this.now.closed !== null;
  }

  get state(): RunState {
    this.cached ??= this.stand();
    return this.cached;
  }

  private know(fact: RunFact): void {
    this.byId.set(fact.id, fact);
    this.counting.push(fact);
    this.now.lastAtMs = Math.max(this.now.lastAtMs, fact.atMs);
    if (fact.kind === 'retract') this.takenBack.add(fact.target);
    if (fact.kind === 'mark' && fact.supersedes) this.corrections.push(fact);
  }

  private replay(): void {
    const { lastAtMs } = this.now;
    this.now = { ...nothing(), lastAtMs };
    this.cached = null;
    const stands = (fact: RunFact) => !this.takenBack.has(fact.id);
    const corrected = new Set(
      this.corrections.filter(stands).map(({ supersedes }) => supersedes ?? ''),
    );
    this.counting = this.counting.filter((fact) =>
      fact.kind === 'retract' ? this.heldOver(fact) !== null : stands(fact),
    );
    for (const fact of this.counting) {
      const heldOver = fact.kind === 'retract' ? this.heldOver(fact) : null;
      if (heldOver) this.now.endsTakenBack.add(heldOver.stepId);
      else this.take(fact, corrected.has(fact.id));
    }
  }

  /** The end of a hold by itself that this takes back. */
  private heldOver({ target }: Extract<RunFact, { kind: 'retract' }>) {
    const fact = this.byId.get(target);
    return fact?.kind === 'hold-over' ? fact : null;
  }

  private take(fact: RunFact, isCorrected = false): void {
    const { now } = this;
    if (fact.kind === 'clock' || fact.kind === 'retract' || fact.kind === 'take-over') return;
    if (fact.kind === 'about') {
      // No act of the test: undo passes it by, and a newer one replaces it.
      const { odometer, place } = fact;
      now.about = { ...now.about, ...(odometer && { odometer }), ...(place && { place }) };
      return;
    }
    now.live.push(fact);
    switch (fact.kind) {
      case 'ready':
        now.ready.set(fact.stepId, fact.gauge);
        break;
      case 'mark':
        if (isCorrected) break;
        now.marks.push(toLiveMark(fact));
        now.marked.add(`${fact.stepId}/${fact.key}`);
        break;
      case 'look':
        now.answers.set(fact.stepId, fact.answers);
        now.stops.delete(fact.stepId);
        break;
      case 'stop':
        now.stops.set(fact.stepId, fact);
        now.answers.delete(fact.stepId);
        break;
      case 'skip':
        now.skips.set(fact.stepId, fact.reason);
        break;
      case 'note':
        now.notes.push({ factId: fact.id, stepId: fact.stepId ?? null, text: fact.text });
        break;
      case 'extend':
        now.extraS.set(fact.stepId, (now.extraS.get(fact.stepId) ?? 0) + fact.seconds);
        now.endsTakenBack.delete(fact.stepId);
        break;
      case 'hold-over':
        now.holdsOver.set(fact.stepId, fact.atMs);
        break;
      case 'close':
        now.closed = { how: fact.how, reason: fact.reason ?? null, atMs: fact.atMs };
        break;
    }
  }

  private stand(): RunState {
    const { procedure, unit, now } = this;
    const open = procedure.steps.findIndex((step) => !isDone(step, now));
    const stepIndex = open < 0 ? procedure.steps.length : open;
    const step = procedure.steps[stepIndex] ?? null;
    const gauge = [...now.ready.values()].at(-1) ?? null;
    return {
      procedure,
      unit,
      step,
      stepIndex,
      awaited: step ? awaitedIn(step, now) : null,
      hold: step ? runningHold(step, now) : null,
      gauge,
      marks: [...now.marks],
      answers: new Map(now.answers),
      stops: new Map(now.stops),
      skips: new Map(now.skips),
      holdsOver: new Map(now.holdsOver),
      notes: [...now.notes],
      about: { ...now.about },
      takeOvers: [],
      setAside: [],
      closed: now.closed,
      undoable: now.closed ? null : (now.live.at(-1) ?? null),
      lastAtMs: now.lastAtMs,
    };
  }
}

/**
 * Folds the facts of a run into where it stands.
 *
 * @param facts in their order
 */
export function runState(
  procedure: Procedure,
  unit: ProcedureUnit,
  facts: readonly RunFact[],
): RunState {
  return new RunFold(procedure, unit, facts).state;
}

function isDone(step: Step, now: Standing): boolean {
  if (now.skips.has(step.id)) return true;
  const has = (key: string) => now.marked.has(`${step.id}/${key}`);
  switch (step.act.kind) {
    case 'ready':
      return now.ready.has(step.id);
    case 'marks':
      return now.answers.has(step.id) || step.act.marks.every((spec) => has(spec.key));
    case 'look':
      return now.answers.has(step.id);
    case 'stop':
      return now.answers.has(step.id) || now.stops.has(step.id);
    case 'hold': {
      const { start, end, other } = step.act;
      const ended = now.holdsOver.has(step.id) || has(end.key);
      return has(start.key) && ended && (!other || has(other.end.key));
    }
  }
}

function toLiveMark(fact: MarkFact): LiveMark {
  const { id, stepId, key, atMs, readingPsi, resolutionPsi, method } = fact;
  const { takes = 1, suggested = false } = fact;
  return { factId: id, stepId, key, atMs, readingPsi, resolutionPsi, method, takes, suggested };
}

function awaitedIn(step: Step, now: Standing): MarkSpec | null {
  const has = (key: string) => now.marked.has(`${step.id}/${key}`);
  switch (step.act.kind) {
    case 'ready':
    case 'look':
    case 'stop':
      return null;
    case 'marks':
      return step.act.marks.find((spec) => !has(spec.key)) ?? null;
    case 'hold': {
      const { settle, start, end, other } = step.act;
      if (!has(start.key)) return settle && !has(settle.key) ? settle : start;
      if (other && !has(other.start.key)) return other.start;
      if (!has(end.key) && !now.holdsOver.has(step.id)) return end;
      return other && !has(other.end.key) ? other.end : null;
    }
  }
}

function runningHold(step: Step, now: Standing): RunningHold | null {
  if (step.act.kind !== 'hold' || now.holdsOver.has(step.id)) return null;
  const { start, crossing, end, other, seconds } = step.act;
  const markOf = (key: string) =>
    now.marks.find((mark) => mark.stepId === step.id && mark.key === key) ?? null;
  const started = markOf(start.key);
  // With two gauges the hold has begun once both have been read at its start.
  if (!started || (other && !markOf(other.start.key)) || markOf(end.key)) return null;
  return {
    startedAtMs: started.atMs,
    endsAtMs: started.atMs + (seconds + (now.extraS.get(step.id) ?? 0)) * 1000,
    crossings: now.marks.filter((mark) => mark.stepId === step.id && mark.key === crossing.key)
      .length,
    endTakenBack: now.endsTakenBack.has(step.id),
  };
}
