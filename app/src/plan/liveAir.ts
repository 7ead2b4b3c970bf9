import type { DeviceState } from '@keen-bleed/core/twin';

/** What moves in a rig’s air. */
export interface MovingAir {
  /** By place and by way; gauge psi and scfm. */
  psi: readonly number[];
  scfm: readonly number[];
  /** Valves that meter, by id. */
  devices: readonly { id: string; state: DeviceState }[];
  /** Controls and switches that are high, by id. */
  high: readonly string[];
}

/** A flow under this is not seen, scfm. */
const SEEN_SCFM = 0.02;

/** Thickness of a line by what flows in it: it grows with the logarithm, so that a leak is seen beside a filling. */
export function thickness(scfm: number): number {
  if (Math.abs(scfm) < SEEN_SCFM) return 1.6;
  // In steps of half a pixel: what differs less is not drawn anew.
  return Math.min(6, Math.round(2 * (2 + 1.1 * Math.log2(1 + Math.abs(scfm) * 4))) / 2);
}

export const isMoving = (scfm: number): boolean => Math.abs(scfm) >= SEEN_SCFM;
