import type { Circuit, PlaceKind } from '@keen-bleed/core/twin';

/** A place of the air as it is drawn. */
export interface DrawnPlace {
  /** Found by this. */
  id: string;
  /** What people call it. */
  name: string;
  /** The same for a small box: a towed unit by its number. */
  short: string;
  kind: PlaceKind;
  circuit: Circuit;
  /** Numbers of its ports in the numbered-port school; null where it has none. */
  ports: string | null;
  isTank: boolean;
}

/** A way of the air as it is drawn. */
export interface DrawnWay {
  id: string;
  name: string;
  from: number;
  to: number;
  /** The valve whose inlet it is, by id; null where it is none. */
  valve: string | null;
  /** Something opens and shuts it. */
  device: boolean;
  /** Worth drawing between its two places: a sound rig has it. */
  drawn: boolean;
}

/** Where each place stands on the drawing, px. */
export interface AirLayout {
  width: number;
  height: number;
  nodes: readonly { x: number; y: number; width: number; height: number }[];
  /** By way: the points it goes through; empty where it ends outside. */
  ways: readonly (readonly { x: number; y: number }[])[];
}

/** A rig’s air, ready to be drawn: from left to right, and for a phone from top to bottom. */
export interface DrawnRig {
  places: readonly DrawnPlace[];
  ways: readonly DrawnWay[];
  layouts: { across: AirLayout; down: AirLayout };
}
