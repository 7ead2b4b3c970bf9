import type { GaugeRole, RunFact, RunHeader } from '@keen-bleed/contract';
import { halfDivisionPsi } from '../../../gauge/graduation';
import { holdNow, markAt, padNow, type HoldNow } from '../../../run/awaiting';
import { itemsOf } from '../../../run/findingsOf';
import type { RunState } from '../../../run/runState';
import { FoldedLog, type LogProblem } from '../../foldedLog';
import type { NewFact } from '../../../facts/newFact';
import { runKind } from './runKind';
import type { Step } from '../../../procedure/procedure';

/** What became of a step: it was done, it is left out for a reason, or the walk ends there. */
export type Did = 'done' | 'stop' | { skip: string };

/** Somebody, or something, that does the steps of a run, by the kind of what is asked. */
export type Hands = {
  [K in Step['act']['kind']]: (
    walk: RunWalk,
    step: Step & { act: Extract<Step['act'], { kind: K }> },
  ) => Did;
};

/** Who walks, and from when. */
export interface WalkStart {
  startMs: number;
  lane: string;
  /** Ids for the facts, one after the other. */
  nextId: () => string;
}

/** A few facts a step: more than this would be a walk in a circle. */
const MOST_STEPS = 200;

/**
 * Walks a run's procedure as the application lets a person walk it, with every fact admitted before it counts. The
 * demo world, recorded traces and tests all make their runs by this.
 */
export class RunWalk {
  readonly log: FoldedLog<RunHeader, RunFact, RunState>;
  nowMs: number;

  constructor(
    header: RunHeader,
    private readonly start: WalkStart,
  ) {
    this.log = new FoldedLog(runKind, header);
    this.nowMs = start.startMs;
  }

  get state(): RunState {
    return this.log.state;
  }

  get facts(): readonly RunFact[] {
    return this.log.facts;
  }

  /** Adds a fact if it is admitted; gives what is wrong with it otherwise. */
  tryAdd(fact: NewFact<RunFact>): LogProblem | null {
    const made = {
      atMs: Math.round(this.nowMs),
      ...fact,
      id: this.start.nextId(),
      lane: this.start.lane,
      seq: this.log.nextSeq(this.start.lane),
      offsetMs: 0,
      v: runKind.version,
    } as RunFact;
    const problem = this.log.admit(made);
    if (!problem) this.log.add(made);
    return problem;
  }

  /** Adds a fact. @throws what is wrong with it */
  add(fact: NewFact<RunFact>): RunFact {
    const problem = this.tryAdd(fact);
    if (problem) throw new Error(`${problem.field}: ${problem.message}`);
    return this.facts.at(-1)!;
  }

  wait(seconds: number): this {
    this.nowMs += seconds * 1000;
    return this;
  }

  /** Makes the rig safe and picks the gauge, having looked at what is asked on the way. */
  ready(gauge?: GaugeRole, found: Readonly<Record<string, string>> = {}): this {
    const { step } = this.state;
    if (step?.act.kind !== 'ready') throw new Error('the run is ready');
    if (itemsOf(step).length > 0) this.lookFor(found);
    this.add({ kind: 'ready', stepId: step.id, gauge: gauge ?? step.act.gauges[0] ?? 'primary' });
    return this;
  }

  /** Presses the pad with the needle set to `psi`, or to where it is proposed; `takes` where it is a mean. */
  mark(psi?: number, takes = 1): this {
    const pad = padNow(this.state, this.nowMs);
    const { step, unit } = this.state;
    if (!pad || !step) throw new Error('the pad waits for nothing');
    const readingPsi = psi ?? pad.proposedPsi;
    const { spec, method } = markAt(pad, readingPsi, unit.gauge);
    this.add({
      kind: 'mark',
      stepId: step.id,
      key: spec.key,
      readingPsi,
      resolutionPsi: halfDivisionPsi(unit.gauge),
      method,
      ...(takes > 1 ? { takes } : {}),
    });
    return this;
  }

  /** Answers what the step asks: as usually found, but for what is given. */
  look(but: Readonly<Record<string, string>> = {}): this {
    const { step } = this.state;
    if (!step || itemsOf(step).length === 0) throw new Error('nothing is asked');
    const usual = itemsOf(step).map(({ key, options }) => [key, options[0]?.value ?? ''] as const);
    this.add({ kind: 'look', stepId: step.id, answers: { ...Object.fromEntries(usual), ...but } });
    return this;
  }

  /** Answers what the step asks by what was found in the whole run; what is not asked here is passed over. */
  lookFor(found: Readonly<Record<string, string>>): this {
    const asked = this.state.step ? itemsOf(this.state.step) : [];
    return this.look(
      Object.fromEntries(
        asked.flatMap(({ key, options }) => {
          const value = found[key];
          return options.some((option) => option.value === value) ? [[key, value ?? '']] : [];
        }),
      ),
    );
  }

  /** Lets the running hold end by its clock, as the app would. */
  holdOver(): this {
    this.nowMs = Math.max(this.nowMs, this.state.hold?.endsAtMs ?? this.nowMs);
    this.add({ kind: 'hold-over', stepId: this.state.step?.id ?? '' });
    return this;
  }

  hold(): HoldNow | null {
    return holdNow(this.state, this.nowMs);
  }

  /** Goes from step to step with `hands`, until none is left or they stop. */
  through(hands: Hands): this {
    for (let n = 0; this.state.step && n < MOST_STEPS; n += 1) {
      const { step } = this.state;
      // The kind of the act picks the hand that takes it.
      const did = (hands[step.act.kind] as (walk: RunWalk, step: Step) => Did)(this, step);
      if (did === 'stop') break;
      if (did === 'done') continue;
      if (this.tryAdd({ kind: 'skip', stepId: step.id, reason: did.skip })) break;
    }
    return this;
  }
}
