import type { RuleSet, RunEvent, Unit } from '@keen-bleed/contract';
import { admit } from '../run/admit';
import { holdNow, markAt, padNow } from '../run/awaiting';
import { itemsOf } from '../run/findingsOf';
import { procedureFor } from '../procedure/procedureFor';
import { runState, type RunState } from '../run/runState';
import { halfDivisionPsi } from '../gauge/graduation';
import type { FigureContext } from '../reading/figureContext';
import { newUnitDraft } from '../rig/newUnit';
import { roadTest } from '../standards/roadTest';

/** A fact without its identity, place and time. */
type Fact<T = RunEvent> = T extends RunEvent
  ? Omit<T, 'id' | 'seq' | 'atMs'> & { atMs?: number }
  : never;

/** A truck to test with. */
export function testUnit(change: Partial<Unit> = {}): Unit {
  return {
    id: '00000000-0000-7000-8000-000000000001',
    revision: 1,
    retiredAtMs: null,
    ...newUnitDraft('truck', 2015),
    number: '7',
    name: 'Tipper',
    ...change,
  };
}

/** A unit with the usual equipment of its kind, called by its kind and number. */
export const unitOf = (kind: Unit['kind'], number: string, change: Partial<Unit> = {}): Unit =>
  testUnit({
    ...newUnitDraft(kind, 2015),
    id: `00000000-0000-7000-8000-0000000000${number}`,
    number,
    name: kind,
    ...change,
  });

/** The road test's limits with the governor and the static hold alone, for tests of these. */
export const shortTest: RuleSet = {
  ...roadTest,
  id: 'short-test',
  title: 'Governor and leak',
  steps: ['prepare', 'charge', 'build-up', 'cut-out', 'cut-in', 'static-hold'].map((stepId) => ({
    stepId,
    need: 'must',
  })),
};

/** What a walk is made on, where it is not a truck alone by the short test. */
export interface WalkOptions {
  towed?: readonly Unit[];
  ruleSet?: RuleSet;
  leftOut?: readonly string[];
}

/** A run walked by hand in a test: it holds the facts, the clock and the state. */
export class Walk {
  events: RunEvent[] = [];
  nowMs = 1_760_000_000_000;
  state: RunState;

  readonly context: FigureContext;

  constructor(
    readonly unit: Unit = testUnit(),
    { towed = [], ruleSet = shortTest, leftOut = ['drain'] }: WalkOptions = {},
  ) {
    this.context = { unit, towed, ruleSet, sayIn: unit.gauge.unit };
    this.state = runState(procedureFor({ unit, towed }, ruleSet, leftOut), unit, []);
  }

  /** Adds a fact as the app would; throws what `admit` has against it. */
  add(fact: Fact): RunEvent {
    const event = {
      atMs: this.nowMs,
      ...fact,
      id: idOf(this.events.length + 1),
      seq: this.state.lastSeq + 1,
    };
    const problem = admit(this.state, new Set(this.events.map((each) => each.id)), event);
    if (problem) throw new Error(`${problem.field}: ${problem.message}`);
    this.events.push(event);
    this.state = runState(this.state.procedure, this.unit, this.events);
    return event;
  }

  wait(seconds: number): this {
    this.nowMs += seconds * 1000;
    return this;
  }

  ready(): this {
    if (this.state.step && itemsOf(this.state.step).length > 0) this.look();
    this.add({ kind: 'ready', stepId: this.state.step?.id ?? '', gauge: 'primary' });
    return this;
  }

  /** Presses the pad with the needle at `psi`, or where it is proposed. */
  mark(psi?: number): this {
    const pad = padNow(this.state, this.nowMs);
    if (!pad || !this.state.step) throw new Error('the pad waits for nothing');
    const readingPsi = psi ?? pad.proposedPsi;
    const { spec, method } = markAt(pad, readingPsi, this.unit.gauge);
    this.add({
      kind: 'mark',
      stepId: this.state.step.id,
      key: spec.key,
      readingPsi,
      resolutionPsi: halfDivisionPsi(this.unit.gauge),
      method,
    });
    return this;
  }

  /** Answers what the step asks: as usually found, but for what is given. */
  look(but: Record<string, string> = {}): this {
    const { step } = this.state;
    if (!step || itemsOf(step).length === 0) throw new Error('nothing is asked');
    const usual = itemsOf(step).map((item) => [item.key, item.options[0]?.value ?? '']);
    const answers = { ...(Object.fromEntries(usual) as Record<string, string>), ...but };
    this.add({ kind: 'look', stepId: step.id, answers });
    return this;
  }

  /** Lets the running hold end by its clock, as the app would. */
  holdOver(): this {
    const endsAtMs = this.state.hold?.endsAtMs ?? this.nowMs;
    this.nowMs = Math.max(this.nowMs, endsAtMs);
    this.add({ kind: 'hold-over', stepId: this.state.step?.id ?? '' });
    return this;
  }

  /** Walks a whole healthy run of a truck up to the hold's end. */
  untilHoldOver(leakPsi = 1): this {
    this.ready()
      .wait(5)
      .mark()
      .wait(28)
      .mark()
      .wait(20)
      .mark(126)
      .wait(20)
      .mark(106)
      .wait(60)
      .mark(120)
      .wait(60);
    return this.mark(120 - leakPsi);
  }

  hold() {
    return holdNow(this.state, this.nowMs);
  }
}

function idOf(number: number): string {
  return `00000000-0000-7000-8000-${String(number).padStart(12, '0')}`;
}
