import type { CouplerState } from './couplerState';

/**
 * One thing that is other than on a sound rig as it is described: data that a fault, a drawn rig or a repair is made
 * of. Several on the same spot add up: leaks and seats by what they pass, narrowed ways and sizes by their shares.
 */
export type Effect =
  /** A hole to outside air; sonic conductance, m³/(s·Pa). */
  | { does: 'leak'; place: string; conductance: number }
  /** What a sound rig loses there, thinly spread over its joints: no soap shows it. */
  | { does: 'seep'; place: string; conductance: number }
  /** A way never closes further than by this share of its bore. */
  | { does: 'hold open'; way: string; share: number }
  /** A way passes at most this share. */
  | { does: 'narrow'; way: string; share: number }
  /** Its bore, against the usual. */
  | { does: 'bore'; way: string; times: number }
  /** A way that a sound rig does not have; m³/(s·Pa). */
  | { does: 'pierce'; way: string; conductance: number }
  /** Moves what drives one of a way's openings, psi. */
  | { does: 'shift'; way: string; psi: number; opening?: number }
  /** Moves the set points of a latch, psi. */
  | { does: 'set'; latch: string; lowBy?: number; highBy?: number }
  /** Room for air, against what is entered: water takes some of it. */
  | { does: 'volume'; place: string; times: number }
  /** Stroke of a chamber, against the usual. */
  | { does: 'stroke'; place: string; times: number }
  /** A tank's film and the heat its wall takes, against the usual. */
  | { does: 'wall'; place: string; film: number; heat: number }
  /** What the compressor sweeps against the given, what clearance it has beside its own, what its rings pass, what its intake loses. */
  | {
      does: 'compressor';
      swept?: number;
      extraClearance?: number;
      rings?: number;
      intake?: number;
    }
  /** Share of the vapour that the dryer still takes out, against a sound one. */
  | { does: 'dry'; share: number }
  /** A drain, cock or valve of the shop stands so far open. */
  | { does: 'open'; way: string; share: number }
  /** How a towed unit is coupled. */
  | { does: 'couple'; unit: number; how: CouplerState };
