import type { Senses } from '@keen-bleed/contract';
import type { PairKind } from '../bench/pairs';

export type { Senses } from '@keen-bleed/contract';

/** What a hand, ear, eye or gauge does. */
export type CheckAct =
  | 'listen'
  | 'wet'
  | 'read'
  | 'compare'
  | 'time'
  | 'watch'
  | 'drain'
  | 'feel'
  | 'look'
  | 'lamp'
  | 'walk';

/**
 * The state a rig has to be in. Tanks are charged to cut-out first, and settled; a check then lets go of what it needs
 * to.
 */
export interface RigState {
  /** Found by this: checks of one state are done one after the other. */
  id: RigStateId;
  title: string;
  engine: 'off' | 'idle' | 'fast';
  /** Pushed in: springs released. */
  park: 'in' | 'out';
  /** Trailer supply. */
  red: 'in' | 'out';
  pedalPsi: number;
  handPsi: number;
  /** Minutes to bring a rig into it from a charged and parked one, and out again. */
  minutes: number;
}

export type RigStateId =
  | 'parked'
  | 'released'
  | 'applied'
  | 'parked, applied'
  | 'loading'
  | 'unloaded'
  | 'red out'
  | 'hand on'
  | 'supply drained'
  | 'cocks shut';

/** How an answer is given. */
export type AnswerShape =
  | { kind: 'grade'; grades: readonly Option[] }
  | { kind: 'choice'; choices: readonly Option[] }
  | {
      kind: 'number';
      unit: 'psi' | 'psi/min' | 's' | 'mm';
      /** To what a person reads it. */
      resolution: number;
      /** By what the gauge or the hand is off, and by what sound rigs differ: standard deviations. */
      error: number;
      spread: number;
    }
  | {
      kind: 'points';
      /** What the two ports are called. */
      from: string;
      to: string;
      /** What the two should do; where nothing is said the second follows the first. */
      as?: PairKind;
      resolution: number;
      error: number;
      spread: number;
    };

interface Option {
  id: string;
  title: string;
}

/** What was found, in the shape that its check asks for. Points are psi against psi. */
export type CheckAnswer =
  | { kind: 'grade'; grade: string }
  | { kind: 'choice'; choice: string }
  | { kind: 'number'; value: number }
  | {
      kind: 'points';
      points: readonly (readonly [from: number, to: number])[];
      /** The two gauges were compared with each other at zero and at 60 psi. */
      compared?: boolean;
    };

/** One of the places that a walk round a rig passes. */
export interface Spot {
  /** What an answer names it by. */
  id: string;
  title: string;
  unit: number;
  part: string;
  /** Place, or way out where `is` says so, by id. */
  at: string;
  is: 'joints' | 'port';
}

/** What a rod does wrong: it is not back, it does not move at a light pedal, it comes last. */
export type RodsWrong = 'out' | 'idle' | 'late';

/** How it is done on a twin. Places, ways and latches by id; pressures psi. */
export type Doing =
  | { does: 'listen'; way: string }
  | { does: 'wet'; place: string }
  | { does: 'read'; place: string }
  /**
   * Reads two ports at each pressure asked for: going up by pedal or hand, going down as a tank is drained, or as a line is
   * bled and the pedal pressed anew.
   */
  | {
      does: 'compare';
      from: string;
      to: string;
      by: 'pedal' | 'hand' | 'drain' | 'bleed';
      asked: readonly number[];
      /** The drain that lets the first port down. */
      drain?: string;
      /** A tank that is emptied before it begins, and its drain. */
      emptied?: { drain: string; tank: string };
      /** The park brake is released and set once before it is read, so that trapped air is used up. */
      cyclesPark?: true;
      /** On the pedal throughout, psi. */
      heldPsi?: number;
    }
  /** How long the air of an exhaust takes to blow a bubble of an inch. */
  | { does: 'bubble'; way: string }
  /** At which pressure a valve that relieves a place opens, fed slowly, at most to so much. */
  | { does: 'relief'; way: string; place: string; mostPsi: number }
  /** How fast a place falls, read twice so many minutes apart. */
  | { does: 'fall'; place: string; minutes: number }
  /** Opens a drain until its tank is under a pressure, then reads what another place has lost, or holds. */
  | {
      does: 'drained';
      drain: string;
      tank: string;
      underPsi: number;
      place: string;
      pedalPsi: number;
      tells: 'fall' | 'reading';
      /** The park brake is set and released before it is read. */
      cyclesPark?: true;
    }
  /** From the pedal's move until a place passes a pressure. */
  | { does: 'time'; place: string; pastPsi: number; pedal: 'down' | 'up' }
  /** Until a place has come to a pressure after the park brake is released. */
  | { does: 'springs'; place: string; pastPsi: number }
  /** From one pressure to another with the engine fast. */
  | { does: 'build'; place: string; fromPsi: number; toPsi: number }
  /** At which pressure the governor cuts out, or in again while somebody pumps the pedal. */
  | { does: 'governor'; way: 'out' | 'in' }
  /** At which pressure something switches as its tank is drained; 0 where it never does. */
  | { does: 'switches'; latch: string; drains: readonly string[]; place: string }
  /** At which pressure of the pedal the lamp lights. */
  | { does: 'lights'; latch: string; place: string }
  | { does: 'lamp'; lamp: 'stop' | 'warning'; pedalPsi: number }
  | { does: 'drain'; place: string }
  | { does: 'blast'; way: string }
  | { does: 'stroke'; place: string }
  /** How dry the air behind the dryer is, by a wet hand at the supply drain. */
  | { does: 'damp' }
  | { does: 'couplers'; unit: number }
  | { does: 'cock'; way: string; fault: string }
  /** Walks round and names the place where something stands out most. */
  | {
      does: 'walk';
      of: 'air' | 'rods' | 'strokes' | 'water' | 'lamps';
      spots: readonly Spot[];
    }
  /** What air does not show: chances of each choice on a sound rig, and under each fault. */
  | {
      does: 'look';
      sound: Readonly<Record<string, number>>;
      under: Readonly<Record<string, Readonly<Record<string, number>>>>;
    };

/** One thing a hand, ear, eye or gauge does at one place with the rig in one state. */
export interface Check {
  /** Stable within its rig; records name a check by this: unit, act, place. */
  id: string;
  act: CheckAct;
  /** Which unit of the rig it is on, from the front, and its part. */
  unit: number;
  part: string;
  title: string;
  state: RigState;
  how: string;
  cautions: readonly string[];
  tools: readonly string[];
  /** Of the act itself; the state costs its own. */
  minutes: number;
  answer: AnswerShape;
  /** What a sound rig gives, in words. */
  sound: string;
  /** Faults it bears on, by id. */
  bearsOn: readonly string[];
  doing: Doing;
  /** Done on a valve for its own sake: suspects neither propose nor weigh it. */
  onBench?: true;
}

/** House defaults [common practice, no source]. */
export const USUAL_SENSES: Senses = {
  heardQuietScfm: 0.1,
  heardRunningScfm: 0.5,
  missed: 0.1,
  imagined: 0.02,
  soapMisses: 0.05,
  soapOff: 0.2,
  lookWrong: 0.05,
};

/** Ears, soap and eyes that are never wrong: what the physics alone would show. */
export const PERFECT_SENSES: Senses = {
  ...USUAL_SENSES,
  missed: 0,
  imagined: 0,
  soapMisses: 0,
  soapOff: 0,
  lookWrong: 0,
};
