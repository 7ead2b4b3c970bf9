import type { Fault } from '../twin/faults/fault';

/** Severities that a cause is weighed at. */
export const WEIGHED_AT = [0.1, 0.25, 0.4, 0.475, 0.55, 0.625, 0.7, 0.775, 0.85, 0.925, 1] as const;

/**
 * What may be behind what was found, before anything was found: of rigs that somebody asks about, not of all that are
 * tested [common practice, no source].
 */
export const PRIOR = {
  sound: 0.2,
  reader: 0.03,
  unlisted: 0.12,
  pair: 0.03,
} as const;

/** Something that explains what was found. */
export type Cause =
  | { kind: 'fault'; fault: Fault; severity: number }
  | { kind: 'pair'; faults: readonly [Fault, Fault]; severities: readonly [number, number] }
  | { kind: 'sound' }
  /** A dial, or somebody who read it, is at fault. */
  | { kind: 'reader'; which: string }
  /** Something that is not in the list. */
  | { kind: 'unlisted' };

/** Repairs that a shop has made, by the fault that was found: how often. */
export type Repairs = Readonly<Record<string, number>>;

/** A repair of the shop counts as so much of what the trade says of that fault. */
const REPAIR_COUNTS = 0.5;

/** How often each fault is met, against the others; sums to one. */
export function priorsOf(
  faults: readonly Fault[],
  repairs: Repairs = {},
): ReadonlyMap<string, number> {
  const met = faults.map(({ id, prior }) => prior + REPAIR_COUNTS * (repairs[id] ?? 0));
  const all = met.reduce((sum, each) => sum + each, 0);
  return new Map(faults.map(({ id }, n) => [id, met[n]! / all]));
}
