import type { PressureUnit } from '@keen-bleed/contract';
import { sayPressure } from '../units/say';
import type { LiveMark, RunState } from './runState';

/** Something about the marks that cannot well be, and what to do about it. */
export interface Doubt {
  stepId: string;
  what: string;
  remedy: string;
}

interface Rule {
  low: readonly [stepId: string, key: string];
  high: readonly [stepId: string, key: string];
  what: string;
  remedy: string;
}

const WRONG_NEEDLE = 'Look which gauge was read; correct the mark or take it back.';

/** Pairs of which the first must lie under the second, whatever the limits say. */
const rules: readonly Rule[] = [
  {
    low: ['cut-in', 'cut-in'],
    high: ['cut-out', 'cut-out'],
    what: 'Cut-in was marked above cut-out',
    remedy: WRONG_NEEDLE,
  },
  {
    low: ['warning', 'on'],
    high: ['cut-in', 'cut-in'],
    what: 'The warning was marked above cut-in',
    remedy: WRONG_NEEDLE,
  },
  {
    low: ['warning', 'on'],
    high: ['cut-out', 'cut-out'],
    what: 'The warning was marked above cut-out',
    remedy: WRONG_NEEDLE,
  },
  {
    low: ['pop-out', 'park'],
    high: ['cut-in', 'cut-in'],
    what: 'The yellow knob popped above cut-in',
    remedy: WRONG_NEEDLE,
  },
  {
    low: ['pop-out', 'park'],
    high: ['warning', 'on'],
    what: 'The yellow knob popped before the warning came',
    remedy:
      'If that is so, the driver has no warning: check the switch. If not, correct the marks.',
  },
  {
    low: ['pop-out', 'trailer'],
    high: ['warning', 'on'],
    what: 'The red knob popped before the warning came',
    remedy:
      'If that is so, the driver has no warning: check the switch. If not, correct the marks.',
  },
  {
    low: ['warning', 'on'],
    high: ['rebuild', 'off'],
    what: 'The warning went off below where it came on',
    remedy: WRONG_NEEDLE,
  },
  {
    low: ['applied-hold', 'start'],
    high: ['static-hold', 'start'],
    what: 'With the pedal down the needle stands higher than before it',
    remedy: 'See that the engine is off and that both were read on the same gauge.',
  },
  {
    low: ['reserve', 'after-eight'],
    high: ['cut-out', 'cut-out'],
    what: 'Eight strokes took no air',
    remedy: 'See that the engine is off and the supply closed; then do the strokes again.',
  },
];

/**
 * What the marks so far say that cannot well be. Nothing is refused for it: the fact stays what was read, and
 * the technician is told at once.
 */
export function doubtsOf(state: RunState, sayIn: PressureUnit): Doubt[] {
  const find = ([stepId, key]: readonly [string, string]): LiveMark | null =>
    state.marks.find((mark) => mark.stepId === stepId && mark.key === key) ?? null;
  const found: Doubt[] = [];
  for (const rule of rules) {
    const low = find(rule.low);
    const high = find(rule.high);
    if (!low || !high || low.readingPsi < high.readingPsi + 1e-6) continue;
    if (found.some((doubt) => doubt.stepId === low.stepId)) continue;
    const numbers = `${sayPressure(low.readingPsi, sayIn)} against ${sayPressure(high.readingPsi, sayIn)}`;
    found.push({ stepId: low.stepId, what: `${rule.what}: ${numbers}.`, remedy: rule.remedy });
  }
  const more = [tooQuick(state), tooHigh(state, sayIn), staticOverApplied(state, sayIn)];
  return [...found, ...more.flatMap((each) => each ?? [])];
}

/** No compressor fills this fast: both marks were one press, s. */
const QUICKEST_BUILD_UP_S = 3;
/** Examiners fail a cut-out above this, and the safety valve is not far, psi [trade]. */
const HIGHEST_PSI = 140;
/** By so much a pedal that is down may seem to lose less than one that is up, psi/min. House value. */
const SEEMS_LESS_PSI_PER_MIN = 2;

const markOf = ({ marks }: RunState, stepId: string, key: string) =>
  marks.find((mark) => mark.stepId === stepId && mark.key === key) ?? null;

function tooQuick(state: RunState): Doubt | null {
  const from = markOf(state, 'build-up', 'from');
  const to = markOf(state, 'build-up', 'to');
  if (!from || !to || (to.atMs - from.atMs) / 1000 >= QUICKEST_BUILD_UP_S) return null;
  return {
    stepId: 'build-up',
    what: 'The build-up took next to no time.',
    remedy: 'Was the pad pressed twice? Fan down and take both marks again.',
  };
}

function tooHigh(state: RunState, sayIn: PressureUnit): Doubt | null {
  const top = markOf(state, 'cut-out', 'cut-out');
  if (!top || top.readingPsi <= HIGHEST_PSI) return null;
  return {
    stepId: 'cut-out',
    what: `It climbed to ${sayPressure(top.readingPsi, sayIn)} and should have cut out before.`,
    remedy:
      'If it climbs on, stop the engine: governor or unloader, and the safety valve blows next.',
  };
}

/** What leaks with the pedal up leaks with it down as well: far less of it then cannot be. */
function staticOverApplied(state: RunState, sayIn: PressureUnit): Doubt | null {
  const rate = (stepId: string) => {
    const start = markOf(state, stepId, 'start');
    const last = state.marks.filter((mark) => mark.stepId === stepId).at(-1);
    const endMs = state.holdsOver.get(stepId) ?? last?.atMs ?? 0;
    if (!start || !last || endMs - start.atMs < 30_000) return null;
    return ((start.readingPsi - last.readingPsi) * 60_000) / (endMs - start.atMs);
  };
  const released = rate('static-hold');
  const applied = state.step?.id === 'applied-hold' ? null : rate('applied-hold');
  if (released === null || applied === null) return null;
  if (released < applied + SEEMS_LESS_PSI_PER_MIN) return null;
  return {
    stepId: 'applied-hold',
    what: `With the pedal down it fell by ${sayPressure(applied, sayIn)} a minute, with the pedal up by ${sayPressure(released, sayIn)}.`,
    remedy:
      'A leak with the pedal up is there with it down too: hold both again on the same gauge.',
  };
}
