import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import { caughtMark } from '../linked/caughtMark';
import type { GaugeSample } from '../linked/sampleLog';
import { admit } from '../run/admit';
import { padNow } from '../run/awaiting';
import { itemsOf } from '../run/findingsOf';
import { readRun } from '../run/readRun';
import type { RunState } from '../run/runState';
import { psiAt, type Segment, type Trace } from './segments';

type Bare<T> = T extends RunEvent ? Omit<T, 'id' | 'seq'> : never;
/** A fact of a run that a trace tells, without what the store adds to it. */
export type TraceFact = Bare<RunEvent>;

/** Readings of a trace are good to this, psi. */
const RESOLUTION_PSI = 0.1;
const LOG_STEP_S = 0.2;
const NOT_IN_TRACE = 'Not in the recorded trace';
/** Readings taken out of a hold: from four on the estimate tells settling air from a leak. */
const READINGS = 5;
/** Every step takes a few facts; more than this would be a walk in a circle. */
const MOST_FACTS = 200;

/**
 * The facts of a run that a recorded trace tells: levels passed, cut-out, cut-in and holds, each at its time. Steps
 * whose moment does not show in a pressure are skipped and say so; the run is left open where a step may not be.
 *
 * @param startedAtMs time of the trace's first reading
 */
export function factsOf(
  header: Pick<OpenRun, 'unit' | 'towed' | 'ruleSet' | 'leftOut'>,
  trace: Trace,
  segments: readonly Segment[],
  startedAtMs: number,
): TraceFact[] {
  const facts: TraceFact[] = [];
  const events: RunEvent[] = [];
  let state = readRun(header, events);
  const log = logOf(trace, startedAtMs);
  const add = (fact: TraceFact): boolean => {
    const id = `00000000-0000-7000-8000-${String(events.length + 1).padStart(12, '0')}`;
    const event = { ...fact, id, seq: state.lastSeq + 1 };
    if (admit(state, new Set(events.map((each) => each.id)), event)) return false;
    events.push(event);
    facts.push(fact);
    state = readRun(header, events);
    return true;
  };
  for (let guard = 0; state.step && guard < MOST_FACTS; guard += 1) {
    const { step } = state;
    const nowMs = Math.max(state.lastAtMs, startedAtMs);
    const told = (): boolean => {
      switch (step.act.kind) {
        case 'ready': {
          const items = itemsOf(step);
          if (items.length > 0) return false;
          return add({ kind: 'ready', stepId: step.id, gauge: 'master', atMs: startedAtMs });
        }
        case 'look':
          return false;
        case 'marks':
          return addMark(state, log, add);
        case 'hold':
          return addHold(state, trace, segments, startedAtMs, add);
      }
    };
    if (told()) continue;
    if (!add({ kind: 'skip', stepId: step.id, reason: NOT_IN_TRACE, atMs: nowMs })) break;
  }
  return facts;
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
