import type { Effect } from '../effects';
import { effectsAt, type GradedEffect } from '../graded';

/** How bad a fault is: from hardly there, 0, to as bad as it gets, 1. */
export type Severity = number;

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

/** What a fault does at a severity. */
export const effectsOf = ({ does }: Pick<Fault, 'does'>, severity: Severity): Effect[] =>
  effectsAt(does, Math.min(1, Math.max(0, severity)));
