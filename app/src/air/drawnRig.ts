import type { Circuit, PlaceKind } from '@keen-bleed/core/twin';

/** A place of the air as it is told of. */
export interface DrawnPlace {
  /** Found by this. */
  id: string;
  /** What people call it. */
  name: string;
  kind: PlaceKind;
  circuit: Circuit;
  /** Numbers of its ports in the numbered-port school; null where it has none. */
  ports: string | null;
  isTank: boolean;
  /** Its unit from the front, and its part there. */
  unit: number;
  part: string | null;
}

/** A way of the air as it is told of. */
export interface DrawnWay {
  id: string;
  name: string;
  from: number;
  to: number;
  /** The valve whose inlet it is, by id; null where it is none. */
  valve: string | null;
  unit: number;
  part: string | null;
}

/** A rig’s air in the order of its network. */
export interface DrawnRig {
  places: readonly DrawnPlace[];
  ways: readonly DrawnWay[];
}
