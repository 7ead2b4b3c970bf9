import type { RuleSet, RunHeader, RunMade, Unit } from '@keen-bleed/contract';
import { runMade } from '../log/kinds/run/runMade';
import { RUN_VERSION } from '../log/kinds/run/runKind';
import { RunWalk } from '../log/kinds/run/runWalk';
import type { FigureContext } from '../reading/figureContext';
import { settlingNow } from '../run/awaiting';
import { newUnitDraft } from '../rig/newUnit';
import { roadTest } from '../standards/roadTest';
import { CORE_VERSION } from '../version';

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

const START_MS = 1_760_000_000_000;
const LANE = '00000000-0000-7000-8000-00000000000a';

/** The header of a run on something. */
export const testHeader = (on: Omit<RunMade, 'steps'>): RunHeader => ({
  id: '00000000-0000-7000-8000-0000000000ff',
  kind: 'run',
  v: RUN_VERSION,
  subject: { unitId: on.unit.id, rigId: null, partId: null },
  startedAtMs: START_MS,
  offsetMs: 0,
  coreVersion: CORE_VERSION,
  made: runMade(on),
});

/** A run walked by hand in a test, by the walker everything uses. */
export class Walk extends RunWalk {
  readonly context: FigureContext;

  constructor(
    readonly unit: Unit = testUnit(),
    { towed = [], ruleSet = shortTest, leftOut = ['drain'] }: WalkOptions = {},
  ) {
    let made = 0;
    super(testHeader({ unit, towed: [...towed], ruleSet, leftOut: [...leftOut] }), {
      startMs: START_MS,
      lane: LANE,
      nextId: () => `00000000-0000-7000-8000-${String((made += 1)).padStart(12, '0')}`,
    });
    this.context = { unit, towed, ruleSet, sayIn: unit.gauge.unit };
  }

  /** Marks that nothing moves the air any more, and waits as the pad asks. */
  settle(psi?: number): this {
    this.mark(psi);
    return this.wait((settlingNow(this.state, this.nowMs)?.leftMs ?? 0) / 1000);
  }

  /** Settles, and starts the hold where the needle stands then. */
  startHold(psi?: number): this {
    return this.settle(psi).mark(psi);
  }

  /** Holds from a reading as long as is asked, with the needle falling evenly, and reads it at the end. */
  held(fromPsi: number, psiPerMin: number): this {
    this.startHold(fromPsi);
    const seconds = ((this.state.hold?.endsAtMs ?? this.nowMs) - this.nowMs) / 1000;
    return this.wait(seconds).mark(fromPsi - (psiPerMin * seconds) / 60);
  }

  /** Walks a whole healthy run of a truck up to the hold's end. */
  untilHoldOver(leakPsiPerMin = 1): this {
    this.ready('primary')
      .wait(5)
      .mark()
      .wait(28)
      .mark()
      .wait(20)
      .mark(126)
      .wait(20)
      .mark(106)
      .wait(60);
    return this.held(120, leakPsiPerMin);
  }
}
