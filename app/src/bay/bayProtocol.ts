import type {
  Act,
  CouplerState,
  Device,
  HandBrake,
  Heard,
  KnownPatterns,
  RigUnderTest,
  Soap,
  Wear,
} from './twinTypes';

export type { HandBrake } from './twinTypes';

/** What the Bay is set up with. */
export interface BaySetup {
  rig: RigUnderTest;
  outsideC: number;
  heightM: number;
  /** What the axles carry, 0 empty to 1 laden. */
  load: number;
  /** How many faults to hide, drawn by `seed`; null where faults are set openly, at any time. */
  hidden: number | null;
  seed: number;
}

/** How bad an openly set fault is. */
export type HowBad = 'slight' | 'plain' | 'bad';

/** A moment of the rig, as the cab shows it and as seeing through shows it. */
export interface BayFrame {
  timeS: number;
  rpm: number;
  /** What each gauge of the cab, or of the shop's hoses, is called and shows, psi. */
  needles: readonly { title: string; psi: number }[];
  parkIn: boolean;
  trailerIn: boolean;
  handBrake: HandBrake;
  /** What foot and hand ask for, psi, as they stand. */
  pedalPsi: number;
  handPsi: number;
  /** Drains, cocks and shop air that stand open, by id, and how the couplers are joined. */
  opened: readonly string[];
  coupling: CouplerState;
  speed: number;
  /** Openly set faults, in words. */
  faults: readonly string[];
  warning: boolean;
  stopLamp: boolean;
  /** Heard from the seat: the dryer's blast at cut-out. */
  purging: boolean;
  /** By node and by way, in the network's order; gauge psi and scfm. */
  psi: readonly number[];
  scfm: readonly number[];
  /** Valves that meter, and whether they apply, let go, or hold. */
  devices: readonly Device[];
}

/** Something on the rig that is found by its id and called by its name. */
export interface Named {
  id: string;
  name: string;
}

/** What does not change while a rig stands in the Bay, apart from its drawing. */
export interface BayRig {
  joints: readonly Named[];
  exhausts: readonly Named[];
  /** Drains and cocks. */
  taps: readonly Named[];
  hasCouplers: boolean;
  /** What may be wrong with such a rig. */
  faults: readonly { id: string; part: string; title: string }[];
  hasPark: boolean;
  hasTrailer: boolean;
  hasHandValve: boolean;
  /** It is worked from the shop: air, and a valve for its service line. */
  hasShopAir: boolean;
  /** A hand brake valve with numbered ports stands in place of dash controls. */
  hasHandBrake: boolean;
  /** Place whose pressure a gauge set is teed into, by id, and where it stands in a frame. */
  gaugePlace: string;
  gaugeAt: number;
}

/** What came out when the hunt was ended. */
export interface BayEnd {
  was: readonly { part: string; title: string }[];
  right: boolean;
  checks: number;
  minutes: number;
  /** Parts that would have been changed without need. */
  wrongParts: number;
  /** What the time in the Bay would have worn. */
  wear: Wear;
}

/** What a hand does in the cab or under the rig, and what is set from outside. */
export type BayMove =
  Act | { kind: 'fault'; id: string; howBad: HowBad } | { kind: 'speed'; times: number };

/** The rig in the worker, as the screen calls it. */
export interface BayWorker {
  /** Opens a rig; `onFrame` may give a promise that is kept once the moment is drawn. */
  open: (setup: BaySetup, onFrame: (frame: BayFrame) => unknown) => BayRig;
  move: (move: BayMove) => void;
  soap: (joint: string) => Soap;
  listen: (exhaust: string) => Heard;
  end: (guesses: readonly string[]) => BayEnd;
  close: () => void;
  /** Takes in what another worker has worked out of rigs plumbed alike, and tells what this one knows. */
  learn: (patterns: KnownPatterns) => void;
  known: () => KnownPatterns;
}
