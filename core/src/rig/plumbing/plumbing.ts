import type { Part, PartRole } from '../partsOf';

/** A port of a part, by the ids of both. */
export interface PortAt {
  part: string;
  port: string;
}

/** Where a part sits, seen from above: rows from the front of its unit, columns from −3 at its left to 3 at its right. */
export interface PartPlace {
  row: number;
  column: number;
}

/** The trade's three colours of air. */
export type LineCircuit = 'supply' | 'service' | 'park';

/** A line from port to port. */
export interface PlumbedLine {
  /** Stable within its unit; records name a line by this. */
  id: string;
  title: string;
  from: PortAt;
  to: PortAt;
  circuit: LineCircuit;
  /** It moves with an axle or a coupling: a hose, not a pipe. */
  moves: boolean;
  /** Inside bore, mm; null where nobody measured it. */
  boreMm: number | null;
}

/** A part with what the air and the drawing need of it. */
export interface PlumbedPart extends Part {
  place: PartPlace;
  /** Whether somebody saw it, could not tell, or nobody has looked. */
  known: 'seen' | 'not known' | 'usual';
  /** Crack pressure of a relay, or what a control, governor, safety valve or switch is set to; null as usual. */
  setPsi: number | null;
  /** What kind of its role it is, such as a dryer that purges from a service tank; null as usual. */
  variant: string | null;
  /** A wheel's chamber: which group of the unit's chambers it belongs to, and its side. */
  wheel: { group: number; axle: number; side: 'left' | 'right'; of: string } | null;
  /** A chamber with a spring brake behind its service side. */
  springBrake: boolean;
}

/** What a unit's air is made of: its parts that are fitted, and the lines between their ports. */
export interface Plumbing {
  parts: readonly PlumbedPart[];
  lines: readonly PlumbedLine[];
  problems: readonly PlumbingProblem[];
}

/** Something about parts and lines that cannot be as it was said. */
export interface PlumbingProblem {
  /** The part or line it is at, by id. */
  at: string;
  what: 'no-place' | 'no-port' | 'no-part' | 'two-lines' | 'loop' | 'no-feed' | 'needed';
  /** In words, with what would be right. */
  text: string;
}

/** What a role's absence does: its ports run together, it is simply not there, or the unit cannot be without. */
export type WithoutIt = 'joined' | 'left out' | 'needed';

/** What a role is without. */
export const withoutIt = (role: PartRole): WithoutIt =>
  (
    ({
      compressor: 'needed',
      governor: 'needed',
      'pre-cleaner': 'joined',
      dryer: 'joined',
      'safety-valve': 'left out',
      tank: 'needed',
      drain: 'left out',
      'check-valve': 'joined',
      'double-check': 'joined',
      'foot-valve': 'needed',
      'quick-release': 'joined',
      relay: 'joined',
      'relay-emergency': 'needed',
      'park-relay': 'joined',
      'load-sensing': 'joined',
      'modulating-valve': 'left out',
      'antilock-modulator': 'left out',
      accessory: 'left out',
      consumer: 'left out',
      chambers: 'needed',
      chamber: 'left out',
      'park-control': 'needed',
      'hand-brake-valve': 'needed',
      'trailer-supply-control': 'joined',
      'trailer-control-valve': 'needed',
      'tractor-protection': 'joined',
      'hand-valve': 'left out',
      'stop-lamp-switch': 'left out',
      'low-air-switch': 'left out',
      gauge: 'left out',
      line: 'needed',
      coupler: 'needed',
      cock: 'joined',
    }) as const satisfies Record<PartRole, WithoutIt>
  )[role];
