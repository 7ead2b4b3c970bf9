import type { Gauge } from '@keen-bleed/contract';
import { lineBelowPsi, nearestLinePsi, nearestReadingPsi } from '../gauge/graduation';
import { waitNeededS } from '../leak/holdPlan';
import { STANDARD_ATMOSPHERE_PSI } from '../units/pressure';
import type { MarkSpec, Proposal } from '../procedure/procedure';
import { heatAtStart } from './heatBefore';
import type { LiveMark, RunState } from './runState';

/**
 * A hold ends by its clock, with no touch: where no line was crossed that is known as well. But somebody has
 * to have been looking, so one that a sleeping phone finds over later than this asks for a reading, ms.
 */
export const WATCHED_WITHIN_MS = 5_000;

/** What the pad stands for at one moment. */
export interface PadNow {
  spec: MarkSpec;
  proposedPsi: number;
  method: 'read' | 'crossing';
  /** In a running hold: what is marked instead where the needle is set between two lines. */
  between: MarkSpec | null;
}

/** A running hold at one moment. */
export interface HoldNow {
  leftMs: number;
  /** The clock has run out. */
  over: boolean;
  /** It has run out under somebody's eyes: a `hold-over` fact may be recorded. */
  endsByItself: boolean;
}

/** The clock of the running hold, from timestamps alone, so that a sleeping phone does not stretch it. */
export function holdNow(state: RunState, nowMs: number): HoldNow | null {
  if (!state.hold) return null;
  const leftMs = Math.max(0, state.hold.endsAtMs - nowMs);
  const over = leftMs === 0;
  return {
    leftMs,
    over,
    endsByItself:
      over && !state.hold.endTakenBack && nowMs <= state.hold.endsAtMs + WATCHED_WITHIN_MS,
  };
}

/** Air that stands until heat hides no leak, at one moment. */
export interface SettlingNow {
  leftMs: number;
  /** When a hold may begin. */
  untilMs: number;
}

/** The wait before a hold: it counts from when nothing moved the air any more; null where none runs. */
export function settlingNow(state: RunState, nowMs: number): SettlingNow | null {
  if (!settlesAt.has(state)) settlesAt.set(state, settlesAtMs(state));
  const untilMs = settlesAt.get(state) ?? null;
  return untilMs === null ? null : { leftMs: Math.max(0, untilMs - nowMs), untilMs };
}

/** What one state comes to; a clock on the screen asks twice a second. */
const settlesAt = new WeakMap<RunState, number | null>();

function settlesAtMs(state: RunState): number | null {
  const { step, procedure, marks } = state;
  if (step?.act.kind !== 'hold' || !step.act.settle || state.hold) return null;
  const { act } = step;
  const of = (key: string) => marks.find((mark) => mark.stepId === step.id && mark.key === key);
  const settled = of(step.act.settle.key);
  if (!settled || of(act.start.key) || act.limitPsiPerMin === undefined) return null;
  const heat = heatAtStart(procedure, marks, { ...step, act });
  if (!heat) return null;
  return settled.atMs + waitNeededS(heat, act.limitPsiPerMin) * 1000;
}

/** What a press of the pad would mark at `nowMs`; null where the step waits for no mark. */
export function padNow(state: RunState, nowMs: number): PadNow | null {
  const { step } = state;
  if (!step) return null;
  const hold = holdNow(state, nowMs);
  if (hold && !hold.over && step.act.kind === 'hold') {
    const line = lineBelowPsi(lastReadingPsi(state) ?? 0, state.unit.gauge);
    if (line === null) return null;
    return {
      spec: step.act.crossing,
      proposedPsi: line,
      method: 'crossing',
      between: step.act.reading,
    };
  }
  if (!state.awaited) return null;
  return {
    spec: state.awaited,
    proposedPsi: proposedPsi(state, state.awaited),
    method: state.awaited.at === 'passing' ? 'crossing' : 'read',
    between: null,
  };
}

function proposedPsi(state: RunState, spec: MarkSpec): number {
  return nearestReadingPsi(resolve(state, spec.proposal), state.unit.gauge);
}

function resolve(state: RunState, proposal: Proposal): number {
  switch (proposal.from) {
    case 'level':
      return proposal.psi;
    case 'governor':
      return state.unit.governor
        ? state.unit.governor[proposal.field] * (proposal.share ?? 1)
        : proposal.otherwisePsi;
    case 'mark': {
      const mark = state.marks.find(
        (each) => each.stepId === proposal.stepId && each.key === proposal.key,
      );
      return mark ? mark.readingPsi + (proposal.addPsi ?? 0) : resolve(state, proposal.otherwise);
    }
    case 'latest':
      return newestOf(state.marks)?.readingPsi ?? resolve(state, proposal.otherwise);
    case 'after-pedal': {
      const full = resolve(state, proposal.of) + STANDARD_ATMOSPHERE_PSI;
      return full * proposal.ratio - STANDARD_ATMOSPHERE_PSI;
    }
    case 'last':
      return lastReadingPsi(state) ?? 0;
  }
}

/** The newest reading of the step that is waited on. */
function lastReadingPsi(state: RunState): number | null {
  return newestOf(state.marks.filter((mark) => mark.stepId === state.step?.id))?.readingPsi ?? null;
}

function newestOf(marks: readonly LiveMark[]): LiveMark | null {
  return marks.reduce<LiveMark | null>(
    (newest, mark) => (newest === null || mark.atMs >= newest.atMs ? mark : newest),
    null,
  );
}

/** What a press marks with the needle set to `needlePsi`: a line that is crossed, or a place between lines. */
export function markAt(
  pad: PadNow,
  needlePsi: number,
  gauge: Gauge,
): Pick<PadNow, 'spec' | 'method'> {
  const onLine = Math.abs(needlePsi - nearestLinePsi(needlePsi, gauge)) < 1e-6;
  return pad.between && !onLine
    ? { spec: pad.between, method: 'read' }
    : { spec: pad.spec, method: pad.method };
}
