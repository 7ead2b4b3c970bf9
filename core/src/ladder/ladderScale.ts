import type { Gauge } from '@keen-bleed/contract';
import { fromPsi } from '../units/pressure';
import { rounded } from '../units/say';

/** Steps between rungs that read well, in any unit of pressure. */
const RUNG_STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 25, 50, 100, 200, 500];
/** From this gap, px, the dial's lines are seen one by one, and a rung has to be one of them. */
const SEEN_LINE_PX = 12;
const RUNG_GAP_PX = 40;
const TICK_GAP_PX = 5;
/** Room above the top rung and under the lowest, so that a flag at either end is whole. */
export const LADDER_MARGIN = 14;

/** A rung or a tick of the ladder. */
export interface LadderLine {
  psi: number;
  y: number;
  /** Number beside it; ticks have none. */
  label: string | null;
}

/** How pressures lie on a ladder. */
export interface LadderScale {
  y: (psi: number) => number;
  psi: (y: number) => number;
  lines: readonly LadderLine[];
}

const isMultiple = (value: number, of: number) =>
  Math.abs(value / of - Math.round(value / of)) < 1e-6;

/**
 * Lays a gauge's scale out over a height: rungs with numbers, ticks at the dial's own lines between them.
 *
 * @param gauge the dial; its lines are the ticks
 * @param rangePsi lowest and highest pressure in sight
 * @param height px from top to bottom, margins included
 * @param margin px above the top rung and under the lowest
 */
export function ladderScale(
  gauge: Gauge,
  rangePsi: readonly [number, number],
  height: number,
  margin = LADDER_MARGIN,
): LadderScale {
  const perPsi = fromPsi(1, gauge.unit);
  const [low, high] = rangePsi;
  const pxPerPsi = (height - 2 * margin) / (high - low);
  const pxPerUnit = pxPerPsi / perPsi;
  const yOf = (psi: number) => height - margin - (psi - low) * pxPerPsi;
  const isLine = (step: number) =>
    gauge.division * pxPerUnit < SEEN_LINE_PX || isMultiple(step, gauge.division);
  const rung =
    RUNG_STEPS.find((step) => step * pxPerUnit >= RUNG_GAP_PX && isLine(step)) ??
    10 * gauge.division;
  const tick =
    [1, 2, 5, 10]
      .map((lines) => lines * gauge.division)
      .find((step) => step * pxPerUnit >= TICK_GAP_PX) ?? rung;
  const at = (step: number): number[] => {
    const first = Math.ceil((low * perPsi) / step - 1e-6);
    const last = Math.floor((high * perPsi) / step + 1e-6);
    return Array.from(
      { length: Math.max(0, last - first + 1) },
      (_, index) => (first + index) * step,
    );
  };
  const isRung = (value: number) => isMultiple(value, rung);
  const line = (value: number, label: string | null): LadderLine => ({
    psi: value / perPsi,
    y: yOf(value / perPsi),
    label,
  });
  return {
    y: yOf,
    psi: (y) => low + (height - margin - y) / pxPerPsi,
    lines: [
      ...at(tick)
        .filter((value) => !isRung(value))
        .map((value) => line(value, null)),
      ...at(rung).map((value) => line(value, rounded(value, 1))),
    ],
  };
}

/**
 * Moves labels that would lie on each other apart, keeping their order and staying near their places.
 *
 * @param places wanted heights, px
 * @param gap least distance between two, px
 * @param bottom lowest place there is, px
 */
export function spreadApart(places: readonly number[], gap: number, bottom: number): number[] {
  const order = places.map((_, index) => index).sort((a, b) => (places[a] ?? 0) - (places[b] ?? 0));
  const placed = [...places];
  let before = -Infinity;
  for (const index of order) {
    before = Math.max(placed[index] ?? 0, before + gap);
    placed[index] = before;
  }
  // What was pushed out at the bottom is pushed back up, and the rest gives way.
  let below = bottom;
  for (const index of order.reverse()) {
    below = Math.min(placed[index] ?? 0, below);
    placed[index] = below;
    below -= gap;
  }
  return placed;
}
