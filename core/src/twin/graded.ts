import type { Effect } from './effects';

/** A figure that goes with another: evenly, or by equal ratios; `from` at 0, `to` at 1, and on beyond. */
export interface Range {
  from: number;
  to: number;
  on: 'line' | 'log';
}

/** An effect whose figures may go with one other: a fault's severity, or what was drawn for a rig. */
type Graded<E> = E extends unknown
  ? { [K in keyof E]: E[K] extends number | undefined ? E[K] | Range : E[K] }
  : never;
export type GradedEffect = Graded<Effect>;

const at = ({ from, to, on }: Range, x: number): number =>
  on === 'line' ? from + (to - from) * x : from * (to / from) ** x;

const isRange = (value: unknown): value is Range => typeof value === 'object' && value !== null;

/** Effects with their figures where the other one is `x`. */
export const effectsAt = (does: readonly GradedEffect[], x: number): Effect[] =>
  does.map(
    (effect) =>
      Object.fromEntries(
        Object.entries(effect).map(([key, value]) => [key, isRange(value) ? at(value, x) : value]),
      ) as unknown as Effect,
  );

/** What lies between two figures, evenly. */
export const line = (from: number, to: number): Range => ({ from, to, on: 'line' });

/** What goes from one figure to another by equal ratios. */
export const ratios = (from: number, to: number): Range => ({ from, to, on: 'log' });
