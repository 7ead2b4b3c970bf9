import type { Check, CheckAnswer, Senses } from '@keen-bleed/core/checks';
import type {
  Act,
  CouplerState,
  Device,
  HandBrake,
  KnownPatterns,
  RigUnderTest,
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
  /** How often ear, soap and eye err; as usual where nothing is said. */
  senses?: Senses;
}

/** How bad an openly set fault is. */
export type HowBad = 'slight' | 'plain' | 'bad';

/** A moment of the rig, as the cab shows it and as seeing through shows it. */
export interface BayFrame {
  /** Counts moments as they are told. */
  n: number;
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
  /** What a gauge set at the tank has read since the last moment told: seconds and gauge psi. */
  samples: readonly (readonly [timeS: number, psi: number])[];
  /** By node and by way, in the network's order; gauge psi and scfm. */
  psi: readonly number[];
  scfm: readonly number[];
  /** Valves that meter, and whether they apply, let go, or hold. */
  devices: readonly Device[];
  /** Controls and switches that are high, by id: a knob that is in, a lamp that is lit. */
  high: readonly string[];
}

/** Something on the rig that is found by its id and called by its name. */
export interface Named {
  id: string;
  name: string;
}

/** Something that may be wrong with a part, by its unit and id. */
export interface BayFault {
  id: string;
  /** The part as it is called, and its id. */
  part: string;
  unit: number;
  partId: string;
  title: string;
}

/** What does not change while a rig stands in the Bay, apart from its drawing. */
export interface BayRig {
  exhausts: readonly Named[];
  /** Drains and cocks, each with its unit and part. */
  taps: readonly (Named & { unit: number; part: string | null })[];
  /** Everything that can be checked on it. */
  checks: readonly Check[];
  /** What the driver complains of, by a hidden fault; null where nothing. */
  driverSays: { id: string; title: string } | null;
  hasCouplers: boolean;
  /** What may be wrong with such a rig. */
  faults: readonly BayFault[];
  hasPark: boolean;
  hasTrailer: boolean;
  hasHandValve: boolean;
  /** It is worked from the shop: air, and a valve for its service line. */
  hasShopAir: boolean;
  /** A hand brake valve with numbered ports stands in place of dash controls. */
  hasHandBrake: boolean;
  /** Place whose pressure a gauge set is teed into, by id. */
  gaugePlace: string;
}

/** What came out when the hunt was ended. */
export interface BayEnd {
  was: readonly { part: string; title: string }[];
  right: boolean;
  checks: number;
  /** What the checks took by the catalogue, and the rig's own time. */
  minutes: number;
  rigMinutes: number;
  /** The check that would have told each hidden fault soonest. */
  best: readonly { title: string; state: string; minutes: number }[];
  /** Parts that were changed, or would have been, without need. */
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
  /** Does a check of the catalogue: at once where it only listens, wets or reads, otherwise, or where that is asked for, with the rig brought into its state. */
  check: (id: string, isBrought?: boolean) => CheckAnswer | null;
  /** Fits a sound part in place of one: the tanks are emptied for it, and whatever was wrong with it is gone. */
  mend: (unit: number, partId: string) => void;
  /** What a sound rig of this description gives in some checks. */
  sound: (ids: readonly string[]) => Record<string, CheckAnswer>;
  end: (guesses: readonly string[]) => BayEnd;
  close: () => void;
  /** Takes in what another worker has worked out of rigs plumbed alike, and tells what this one knows. */
  learn: (patterns: KnownPatterns) => void;
  known: () => KnownPatterns;
}
