import { holeConductance } from '../equations/flow';
import type { Twin } from '../twin';

/** How bad a fault is: from just there, 0, to as bad as it gets, 1. */
export type Severity = number;

/** Something that can be wrong with one part of a rig. */
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
  apply: (twin: Twin, severity: Severity) => void;
}

/** A set point moved by this is passed at once, or never: no air is there. */
export const OUT_OF_REACH_PSI = 1_000;

/** What lies between two figures at a severity. */
export const between = (least: number, most: number, severity: Severity) =>
  least + (most - least) * Math.min(1, Math.max(0, severity));

/** A hole of `least` to `most` mm in a place. */
export function leak(
  place: string,
  part: string,
  title: string,
  hard: Fault['hard'],
  least = 0.3,
  most = 1.6,
): Fault {
  return {
    id: `leak: ${place}`,
    at: place,
    part,
    title,
    hard,
    apply: (twin, severity) => twin.leak(place, holeConductance(between(least, most, severity))),
  };
}

/** A seat that does not close, by a share of its bore. */
export function seat(
  way: string,
  part: string,
  title: string,
  hard: Fault['hard'],
  most = 0.03,
): Fault {
  return {
    id: `seat: ${way}`,
    at: way,
    part,
    title,
    hard,
    apply: (twin, severity) => twin.holdOpen(way, between(most / 10, most, severity)),
  };
}

/** A passage that lets little through: from `least` of its bore to `most`. */
export function blocked(
  way: string,
  part: string,
  title: string,
  hard: Fault['hard'],
  least = 0.08,
  most = 0.01,
): Fault {
  return {
    id: `blocked: ${way}`,
    at: way,
    part,
    title,
    hard,
    apply: (twin, severity) => twin.block(way, between(least, most, severity)),
  };
}
