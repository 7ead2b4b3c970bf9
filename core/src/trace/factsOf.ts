import type { RunFact, RunHeader } from '@keen-bleed/contract';
import { caughtMark } from '../linked/caughtMark';
import type { GaugeSample } from '../linked/sampleLog';
import { RunWalk, type Did } from '../log/kinds/run/runWalk';
import type { NewFact } from '../facts/newFact';
import { padNow, settlingNow } from '../run/awaiting';
import { itemsOf, NOT_DONE } from '../run/findingsOf';
import type { RunState } from '../run/runState';
import { psiAt, type Segment, type Trace } from './segments';

/** A fact of a run that a trace tells, at its time. */
export type TraceFact = NewFact<RunFact> & { atMs: number };

/** Readings of a trace are good to this, psi. */
const RESOLUTION_PSI = 0.1;
const LOG_STEP_S = 0.2;
const NOT_IN_TRACE = 'Not in the recorded trace';
/** Readings taken out of a hold. */
const READINGS = 8;

/**
 * The facts of a run that a recorded trace tells: levels passed, cut-out, cut-in and holds, each at its time. Steps
 * whose moment does not show in a pressure are skipped and say so; the run is left open where a step may not be.
 *
 * @param startedAtMs time of the trace's first reading
 */
export function factsOf(
  header: RunHeader,
  trace: Trace,
  segments: readonly Segment[],
  startedAtMs: number,
): TraceFact[] {
  const log = logOf(trace, startedAtMs);
  let made = 0;
  const walk = new RunWalk(header, {
    startMs: startedAtMs,
    lane: header.id,
    nextId: () => `00000000-0000-7000-8000-${String((made += 1)).padStart(12, '0')}`,
  });
  /** The walk's clock is the newest moment that was found. */
  const tell = (told: boolean): Did => {
    walk.nowMs = Math.max(walk.state.lastAtMs, startedAtMs);
    return told ? 'done' : { skip: NOT_IN_TRACE };
  };
  const add = (fact: TraceFact) => walk.tryAdd(fact) === null;
  walk.through({
    ready: (_, step) => {
      const atMs = startedAtMs;
      const answers = Object.fromEntries(itemsOf(step).map(({ key }) => [key, NOT_DONE]));
      // Nobody looked at anything; the rest of the step is there for a hold to be read by.
      if (itemsOf(step).length > 0) add({ kind: 'look', stepId: step.id, answers, atMs });
      return tell(add({ kind: 'ready', stepId: step.id, gauge: 'master', atMs }));
    },
    look: () => tell(false),
    stop: () => tell(false),
    marks: ({ state }) => tell(addMark(state, log, add)),
    hold: (on) => tell(addHold(on.state, trace, segments, startedAtMs, add, () => on.state)),
  });
  return walk.facts.map(
    ({ id: _id, lane: _lane, seq: _seq, offsetMs: _o, v: _v, ...fact }) => fact,
  );
}

function logOf({ seconds, psi }: Trace, startedAtMs: number): GaugeSample[] {
  const trace = { seconds, psi };
  const end = seconds.at(-1) ?? 0;
  return Array.from({ length: Math.floor(end / LOG_STEP_S) + 1 }, (_, seq) => ({
    seq,
    atMs: Math.round(startedAtMs + seq * LOG_STEP_S * 1000),
    psi: psiAt(trace, seq * LOG_STEP_S),
  }));
}

const rounded = (psi: number) => Math.round(psi / RESOLUTION_PSI) * RESOLUTION_PSI;

function addMark(
  state: RunState,
  log: readonly GaugeSample[],
  add: (fact: TraceFact) => boolean,
): boolean {
  const { step } = state;
  const pad = padNow(state, state.lastAtMs);
  if (!pad || !step) return false;
  const caught = caughtMark(pad, log, state.lastAtMs);
  if (!caught) return false;
  return add({
    kind: 'mark',
    stepId: step.id,
    key: pad.spec.key,
    readingPsi: rounded(caught.psi),
    resolutionPsi: RESOLUTION_PSI,
    method: pad.method,
    atMs: caught.atMs,
  });
}

/** What a stretch must at least last to be a hold that is reported, s. */
const LEAST_HOLD_S = 20;
/** A static hold begins this near to what was reached before it, psi; an applied one at least so far under it. */
const NEAR_PSI = 20;
const PEDAL_TAKES_PSI = 3;

/**
 * A hold from the trace's next level stretch, if level and what came before it agree with what is asked: its settling,
 * its start, readings, its end. One that is too short ends where the stretch does, and is judged as that; another
 * stretch never stands in for it.
 */
function addHold(
  state: RunState,
  trace: Trace,
  segments: readonly Segment[],
  startedAtMs: number,
  add: (fact: TraceFact) => boolean,
  now: () => RunState,
): boolean {
  const { step } = state;
  if (step?.act.kind !== 'hold') return false;
  const afterS = (state.lastAtMs - startedAtMs) / 1000;
  const { seconds, settle, start, reading, end } = step.act;
  const level = segments.find(
    (each) => each.kind === 'hold' && each.toS - Math.max(each.fromS, afterS) >= LEAST_HOLD_S,
  );
  if (!level) return false;
  const settleS = Math.max(level.fromS, afterS);
  const before = state.marks.at(-1)?.readingPsi;
  const isApplied = settle?.proposal.from === 'after-pedal';
  const standsPsi = psiAt(trace, settleS);
  if (before !== undefined) {
    const agrees = isApplied
      ? before - standsPsi >= PEDAL_TAKES_PSI
      : Math.abs((levelBefore(state) ?? standsPsi) - standsPsi) <= NEAR_PSI;
    if (!agrees) return false;
  }
  const mark = (key: string, s: number): TraceFact => ({
    kind: 'mark',
    stepId: step.id,
    key,
    readingPsi: rounded(psiAt(trace, s)),
    resolutionPsi: RESOLUTION_PSI,
    method: 'read',
    atMs: Math.ceil(startedAtMs + s * 1000),
  });
  let fromS = settleS;
  if (settle) {
    if (!add(mark(settle.key, settleS))) return false;
    const waitS = (settlingNow(now(), state.lastAtMs)?.untilMs ?? 0) - startedAtMs;
    // Heat is waited for as far as the stretch is long enough for it.
    fromS = Math.min(Math.max(waitS / 1000, settleS), Math.max(settleS, level.toS - seconds - 1));
  }
  const lastS = Math.min(level.toS, fromS + seconds);
  if (!add(mark(start.key, fromS + 0.01))) return false;
  for (let n = 1; n < READINGS; n += 1) {
    add(mark(reading.key, fromS + (n * (lastS - fromS)) / READINGS));
  }
  if (lastS - fromS < seconds) return add(mark(end.key, lastS));
  const over = Math.ceil(startedAtMs + (fromS + 0.01 + seconds) * 1000) + 1;
  return add({ kind: 'hold-over', stepId: step.id, atMs: over });
}

/** Where the needle stood at cut-out, if it was marked. */
function levelBefore({ marks, procedure }: RunState): number | null {
  const top = marks.find(
    ({ stepId, key }) =>
      procedure.steps
        .find(({ id }) => id === stepId)
        ?.reckon.some(
          (each) => each.kind === 'level' && each.figure === 'cut-out' && each.key === key,
        ) ?? false,
  );
  return top?.readingPsi ?? null;
}
