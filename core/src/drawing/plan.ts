import type { PartRole } from '../rig/partsOf';
import type { LineCircuit } from '../rig/plumbing/plumbing';

/** Front up, for a phone held upright, or front left, for a wide screen. */
export type Facing = 'up' | 'left';

/** The whole rig with its small parts folded, or one unit with every part. */
export type Level = { show: 'rig' } | { show: 'unit'; unit: number };

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Point {
  x: number;
  y: number;
}

/** A part as it is drawn. */
export interface PlanSymbol {
  /** Unit and part, as one key. */
  key: string;
  unit: number;
  part: string;
  role: PartRole;
  title: string;
  /** The graphic symbol itself. */
  box: Box;
  /** Where a finger reaches it: 44 px or more each way. */
  target: Box;
  label: PlanLabel | null;
  /** Parts that are folded into it, by id. */
  folded: readonly string[];
  /** Not seen yet, or not known: drawn as such. */
  known: 'seen' | 'not known' | 'usual';
  side: 'left' | 'centre' | 'right';
  hasSpring: boolean;
}

/** A name under, over or beside its symbol: always upright. */
export interface PlanLabel extends Box {
  lines: readonly string[];
}

/** A line from port to port, at right angles. */
export interface PlanLine {
  key: string;
  unit: number;
  /** The air it is part of: lines of one air may share their way. */
  net: string;
  /** Its id in its unit; null for what a coupler joins. */
  line: string | null;
  title: string;
  circuit: LineCircuit;
  points: readonly Point[];
  from: string;
  to: string;
  moves: boolean;
  /** It could not be led around what is in its way: drawn straight, and counted. */
  forced: boolean;
}

/** A unit's chassis, axles and wheels. */
export interface PlanUnit {
  unit: number;
  title: string;
  /** Room of the whole unit. */
  box: Box;
  cab: Box | null;
  rails: readonly Box[];
  axles: readonly { from: Point; to: Point; label: PlanLabel }[];
  wheels: readonly Box[];
  titleAt: Point;
}

/** A rig or unit seen from above, ready to be drawn; px. */
export interface Plan {
  facing: Facing;
  width: number;
  height: number;
  units: readonly PlanUnit[];
  symbols: readonly PlanSymbol[];
  lines: readonly PlanLine[];
}
