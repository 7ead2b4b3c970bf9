import type { Gauge } from '@keen-bleed/contract';
import { toPsi, type RunState } from '@keen-bleed/core';

/** How far the ladder looks above and below the start of a hold, in divisions of the dial. */
const HOLD_SIGHT = { above: 3, below: 7 };

/** The part of the scale in sight: the whole dial, or, in a running hold, the lines the needle may cross. */
export function rangeInSight(state: RunState, gauge: Gauge): readonly [number, number] {
  const whole = [0, toPsi(gauge.top, gauge.unit)] as const;
  const { hold, step } = state;
  if (!hold || step?.act.kind !== 'hold') return whole;
  const startKey = step.act.start.key;
  const here = state.marks.filter((mark) => mark.stepId === step.id);
  const start = here.find((mark) => mark.key === startKey)?.readingPsi;
  if (start === undefined) return whole;
  const lowest = Math.min(...here.map((mark) => mark.readingPsi));
  const division = toPsi(gauge.division, gauge.unit);
  return [
    Math.max(0, Math.min(start - HOLD_SIGHT.below * division, lowest - 3 * division)),
    Math.min(whole[1], start + HOLD_SIGHT.above * division),
  ];
}
