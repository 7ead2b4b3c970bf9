/** A place where air has one pressure: a tank, a line, one side of a chamber. */
export interface NetNode {
  name: string;
  /** What it is, without the name of the towed unit it is on: people call their trailers what they like. */
  role: string;
  /** Volume with nothing moved, m³. */
  volumeM3: number;
  /** What the stroke of a diaphragm adds, m³; 0 where nothing moves. */
  strokeM3: number;
  /** Gauge pressure at which the diaphragm starts to move, Pa. */
  strokeFromPa: number;
  /** Gauge pressure at which it has gone as far as it goes, Pa. */
  strokeToPa: number;
  /** Heat the walls take for each kelvin, W/K; null where the air is always as warm as outside. */
  wallWPerK: number | null;
  /** How much warmer than outside the air in it is taken to be, K, where `wallWPerK` is null. */
  warmerByK: number;
}

/** Outside air, as the end of an element. */
export const OUTSIDE = -1;
/** In an opening's sum, −2 stands for the first follower, −3 for the second, and so on. */
export const FIRST_FOLLOWER = -2;

/** What opens an element: (Σ weight·p + bias) ÷ band, 0 shut to 1 open, smooth in between. */
export interface Opening {
  /** Nodes by index and weight; gauge pressures. */
  on: readonly (readonly [node: number, weight: number])[];
  /** Pa. */
  biasPa: number;
  /** Pa from shut to open: stands for the spring's rate and the seat's soft rubber. */
  bandPa: number;
}

/** A way for air from one node to another. */
export interface NetElement {
  name: string;
  from: number;
  to: number;
  /** Sonic conductance when open, m³/(s·Pa). */
  conductance: number;
  criticalRatio: number;
  /** Both have to be open; none means it is always open. */
  openings: readonly Opening[];
}

/** A compressor: takes outside air in and delivers it into a node. */
export interface Compressor {
  into: number;
  /** Swept volume, m³ each turn. */
  sweptM3: number;
  /** Clearance volume as a share of the swept one. */
  clearance: number;
  /** Line whose pressure unloads it, and at what gauge pressure, Pa. */
  unloader: number;
  unloadsAtPa: number;
}

/** A place that follows a hand or foot: not air, but the pressure that is asked for. */
export interface Follower {
  name: string;
  /** Seconds for two thirds of the way. */
  lagS: number;
}

/**
 * Something with two states that air switches: it goes low as its node falls under `lowPa`, and high as it rises
 * over `highPa`; both gauge. What is not switched by air in one direction has Infinity or −Infinity there.
 */
export interface Latch {
  name: string;
  node: number;
  lowPa: number;
  highPa: number;
  /** Ways that are open while it is high, and while it is low. */
  openHigh: readonly string[];
  openLow: readonly string[];
  startsHigh: boolean;
}

/** A rig as the solver sees it: places, ways, and what switches. */
export interface Network {
  nodes: readonly NetNode[];
  elements: readonly NetElement[];
  followers: readonly Follower[];
  compressor: Compressor | null;
  latches: readonly Latch[];
}

type NodeOptions = Partial<Omit<NetNode, 'name' | 'role' | 'volumeM3'>>;

/** Puts a network together; names are kept so that parts can be found again. */
export class NetworkBuilder {
  readonly nodes: NetNode[] = [];
  readonly elements: NetElement[] = [];
  readonly followers: Follower[] = [];
  readonly latches: Latch[] = [];
  compressor: Compressor | null = null;
  /** Name of the towed unit whose parts are added, and with which their names begin. */
  towed: string | null = null;

  /** Adds something that follows a hand or foot; gives the number that stands for it in an opening. */
  follower(name: string, lagS: number): number {
    this.followers.push({ name, lagS });
    return FIRST_FOLLOWER - (this.followers.length - 1);
  }

  /** Adds a place. */
  node(name: string, litres: number, options: NodeOptions = {}): number {
    this.nodes.push({
      name,
      role: this.towed === null ? name : name.slice(this.towed.length + 1),
      volumeM3: litres / 1000,
      strokeM3: 0,
      strokeFromPa: 0,
      strokeToPa: 1,
      wallWPerK: null,
      warmerByK: 0,
      ...options,
    });
    return this.nodes.length - 1;
  }

  /** Adds a way; `conductance` in dm³/(s·bar). */
  way(
    name: string,
    from: number,
    to: number,
    conductance: number,
    openings: readonly Opening[] = [],
    criticalRatio = 0.35,
  ): void {
    this.elements.push({
      name,
      from,
      to,
      conductance: conductance * 1e-8,
      criticalRatio,
      openings,
    });
  }

  /** A check valve: air goes from the first to the second only. */
  check(name: string, from: number, to: number, conductance: number, crackPa = 3_000): void {
    this.way(name, from, to, conductance, [
      {
        on: [
          [from, 1],
          [to, -1],
        ],
        biasPa: -crackPa,
        bandPa: 6_000,
      },
    ]);
  }

  /**
   * A double check valve: the higher inlet is joined to the outlet. The shuttle goes over within a few
   * hundredths of a bar rather than at once: between two small volumes a sharp one never comes to rest.
   */
  shuttle(name: string, one: number, other: number, out: number, conductance: number): void {
    const bandPa = 6_000;
    const towards = (mine: number, its: number): Opening => ({
      on: [
        [mine, 1],
        [its, -1],
      ],
      biasPa: bandPa / 2,
      bandPa,
    });
    this.way(`${name}: first`, one, out, conductance, [towards(one, other)]);
    this.way(`${name}: second`, other, out, conductance, [towards(other, one)]);
  }

  build(): Network {
    const { nodes, elements, followers, compressor, latches } = this;
    return { nodes, elements, followers, compressor, latches };
  }
}
