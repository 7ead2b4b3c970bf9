import type { Effect } from '../effects';

/** How bad a fault is: from hardly there, 0, to as bad as it gets, 1. */
export type Severity = number;

/** A figure that goes with the severity: evenly, or by equal ratios. */
export interface Range {
  from: number;
  to: number;
  on: 'line' | 'log';
}

/** An effect whose figures may go with the severity. */
type Graded<E> = E extends unknown
  ? { [K in keyof E]: E[K] extends number | undefined ? E[K] | Range : E[K] }
  : never;

/** What a fault does, before its severity is known. */
export type GradedEffect = Graded<Effect>;

/** Something that can be wrong with one part of a rig. Data: it says what changes, and changes nothing itself. */
export interface Fault {
  id: string;
  /** The place, way or latch it is on, by id; 'compressor' for the compressor itself. */
  at: string;
  /** The part, by what it does. Only ever shown. */
  part: string;
  /** What is wrong with it. */
  title: string;
  /** How hard it is to find: 1 shows on the dash at once, 3 only by a check made for it. */
  hard: 1 | 2 | 3;
  /** It is on one side of an axle only: a twin in which left and right are alike cannot have it. */
  oneSide?: true;
  /** How often it is met, against other faults: 1 for an ordinary one [common practice, no source]. */
  prior: number;
  does: readonly GradedEffect[];
}

const atSeverity = ({ from, to, on }: Range, severity: Severity): number => {
  const share = Math.min(1, Math.max(0, severity));
  return on === 'line' ? from + (to - from) * share : from * (to / from) ** share;
};

const isRange = (value: unknown): value is Range => typeof value === 'object' && value !== null;

/** What a fault does at a severity. */
export const effectsOf = ({ does }: Pick<Fault, 'does'>, severity: Severity): Effect[] =>
  does.map(
    (effect) =>
      Object.fromEntries(
        Object.entries(effect).map(([key, value]) => [
          key,
          isRange(value) ? atSeverity(value, severity) : value,
        ]),
      ) as unknown as Effect,
  );

/** What lies between two figures, evenly. */
export const line = (from: number, to: number): Range => ({ from, to, on: 'line' });
