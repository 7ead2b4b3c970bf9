import type { RunFact, RunHeader } from '@keen-bleed/contract';
import { caughtMark } from '../linked/caughtMark';
import type { GaugeSample } from '../linked/sampleLog';
import { RunWalk, type Did } from '../log/kinds/run/runWalk';
import type { NewFact } from '../facts/newFact';
import { padNow } from '../run/awaiting';
import { itemsOf } from '../run/findingsOf';
import type { RunState } from '../run/runState';
import { psiAt, type Segment, type Trace } from './segments';

/** A fact of a run that a trace tells, at its time. */
export type TraceFact = NewFact<RunFact> & { atMs: number };

/** Readings of a trace are good to this, psi. */
const RESOLUTION_PSI = 0.1;
const LOG_STEP_S = 0.2;
const NOT_IN_TRACE = 'Not in the recorded trace';
/** Readings taken out of a hold: from four on the estimate tells settling air from a leak. */
const READINGS = 5;

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
    ready: (_, step) =>
      tell(
        itemsOf(step).length === 0 &&
          add({ kind: 'ready', stepId: step.id, gauge: 'master', atMs: startedAtMs }),
      ),
    look: () => tell(false),
    marks: ({ state }) => tell(addMark(state, log, add)),
    hold: ({ state }) => tell(addHold(state, trace, segments, startedAtMs, add)),
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

/** A hold from the trace's next level stretch: its start, a reading at its end. */
function addHold(
  state: RunState,
  trace: Trace,
  segments: readonly Segment[],
  startedAtMs: number,
  add: (fact: TraceFact) => boolean,
): boolean {
  const { step } = state;
  if (step?.act.kind !== 'hold') return false;
  const afterS = (state.lastAtMs - startedAtMs) / 1000;
  const { seconds, start, reading } = step.act;
  const level = segments.find(
    (each) => each.kind === 'hold' && each.toS - Math.max(each.fromS, afterS) >= seconds + 1,
  );
  if (!level) return false;
  // The last of a long stretch: by then the air has cooled, or the pedal's first drop is over.
  const fromS = Math.max(level.fromS, afterS, level.toS - seconds - 1);
  const mark = (key: string, s: number): TraceFact => ({
    kind: 'mark',
    stepId: step.id,
    key,
    readingPsi: rounded(psiAt(trace, s)),
    resolutionPsi: RESOLUTION_PSI,
    method: 'read',
    atMs: Math.ceil(startedAtMs + s * 1000),
  });
  if (!add(mark(start.key, fromS))) return false;
  for (let n = 1; n < READINGS; n += 1) add(mark(reading.key, fromS + (n * seconds) / READINGS));
  const over = Math.ceil(startedAtMs + (fromS + seconds) * 1000) + 1;
  return add({ kind: 'hold-over', stepId: step.id, atMs: over });
}
