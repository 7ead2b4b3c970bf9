import type { LatchRole } from '../network/network';
import type { Act } from './act';

/** Something that is waited for. */
export type Until =
  /** A needle passes a pressure on its way up, or down, psi. */
  | { needle: string; over: number }
  | { needle: string; under: number }
  /** A knob pops, a lamp goes on or off, the governor cuts out or in. */
  | { latch: string; high: boolean }
  /** The first, or all, of a kind. */
  | { some: LatchRole; high: boolean };

/** What is looked at, or listened to, and under which name it is written down. */
export type Sight =
  /** A needle, psi, as this reader reads it from this gauge. */
  | { key: string; sees: 'needle'; place: string }
  /** The clock, s from the start. */
  | { key: string; sees: 'clock' }
  /** A lamp or a knob: 1 where a latch of the kind is high. */
  | { key: string; sees: 'some'; role: LatchRole }
  /** What comes out of an exhaust, scfm: for an ear to grade. */
  | { key: string; sees: 'exhaust'; way: string };

/** One step of a routine. */
export type RoutineStep =
  | { step: 'act'; acts: readonly Act[] }
  /** Waits for so long, or to a moment from the start, s. */
  | { step: 'wait'; s: number }
  | { step: 'at'; s: number }
  /** Waits for something, and no longer than `mostS`. */
  | { step: 'until'; until: Until; mostS: number }
  /** Notes what is seen, as long after it as this reader takes. */
  | { step: 'see'; sees: readonly Sight[] }
  | { step: 'repeat'; steps: readonly RoutineStep[]; until: Until; most: number };

/** What is done to a rig, and what is watched when: data, played by `RoutinePlayer`. */
export type Routine = readonly RoutineStep[];

/** What was seen. */
export interface Sighting {
  key: string;
  atS: number;
  value: number;
}
