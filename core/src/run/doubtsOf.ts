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
    remedy: 'See that the engine is off and the supply shut; then do the strokes again.',
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
  return found;
}
