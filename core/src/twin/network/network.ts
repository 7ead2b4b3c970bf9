import type { PlaceKind } from './placeKinds';

/** A place where air has one pressure: a tank, a line, one side of a chamber. */
export interface NetNode {
  /** Found by this: what it is, behind the place of the towed unit it is on, such as `#1 towed tank`. */
  id: string;
  /** What people call it, the towed unit's title first. Only ever shown. */
  name: string;
  /** The same without the unit's title. */
  role: string;
  kind: PlaceKind;
  /** The part it belongs to, by the id it has in its unit; null for the shop's own. */
  part: string | null;
  /** Which unit of the rig it is on, from the front; −1 for the shop's own. */
  unit: number;
  /** Volume with nothing moved, m³. */
  volumeM3: number;
  /** What the stroke of a diaphragm adds, m³; 0 where nothing moves. */
  strokeM3: number;
  /** Gauge pressure at which the diaphragm starts to move, Pa. */
  strokeFromPa: number;
  /** Gauge pressure at which it has gone as far as it goes, Pa. */
  strokeToPa: number;
  /** The wall that its air warms and cools at; null where the air is always as warm as outside. */
  wall: TankWall | null;
  /** How much warmer than outside the air in it is taken to be, K, where it has no such wall. */
  warmerByK: number;
}

/** A tank's wall: what it takes from the air in it, what it holds, and what it gives to the air outside. */
export interface TankWall {
  /**
   * Of the film inside, W/K^1⅓·(K/Pa)^⅔: heat taken is film·(p/T)^⅔·|ΔT|^⅓·ΔT, ΔT between air and wall.
   */
  film: number;
  /** Heat that warms the wall by a kelvin, J/K. */
  jPerK: number;
  /** Heat it gives to outside air, W/K. */
  outsideWPerK: number;
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

/** What a way is for. */
export type WayDoes =
  | 'line'
  | 'check'
  /** What goes back through a valve that has another way out. */
  | 'back'
  | 'inlet'
  | 'exhaust'
  | 'drain'
  | 'cock'
  | 'coupler'
  /** Only where lines are crossed, or come apart: a sound rig does not have it. */
  | 'crossed'
  | 'open end'
  /** Passes nothing in a sound part. */
  | 'seal'
  /** The shop's own valve. */
  | 'shop valve'
  /** Held shut until a hand brake valve stands in its test position. */
  | 'test position';

/** A way for air from one node to another. */
export interface NetElement {
  /** Found by this: like a place's. */
  id: string;
  /** Only ever shown. */
  name: string;
  does: WayDoes;
  /** The valve whose seat it is: its inlet and its exhaust share the id. Null where it is no such seat. */
  valve: { id: string; name: string } | null;
  part: string | null;
  unit: number;
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
  /** Turns it makes for one of the engine. */
  perEngineTurn: number;
  /** Clearance volume as a share of the swept one. */
  clearance: number;
  /** Line whose pressure unloads it, and at what gauge pressure, Pa. */
  unloader: number;
  unloadsAtPa: number;
}

/** A place that follows a hand or foot: not air, but the pressure that is asked for. */
export interface Follower {
  id: string;
  /** Seconds for two thirds of the way. */
  lagS: number;
}

/** What a latch is, whatever it is called. */
export type LatchRole =
  | 'governor'
  | 'knob'
  | 'low-air switch'
  | 'stop-lamp switch'
  /** Only noted: it moves and lights nothing. */
  | 'note';

/**
 * Something with two states that air switches: it goes low as what it feels falls under `lowPa`, and high as that
 * rises over `highPa`; it feels the gauge pressure of its node, or of the higher of two. What is not switched by air
 * in one direction has Infinity or −Infinity there.
 */
export interface Latch {
  /** Found by this. */
  id: string;
  role: LatchRole;
  part: string;
  unit: number;
  node: number;
  /** A second node, of which and the first the higher is felt; null where there is one. */
  orNode: number | null;
  lowPa: number;
  highPa: number;
  /** Ways that are open while it is high, and while it is low. */
  openHigh: readonly string[];
  openLow: readonly string[];
  startsHigh: boolean;
}

/** The place at a port of a part. */
export interface NetPort {
  unit: number;
  part: string;
  /** Without its opening: `delivery-1`; `air` of a tank. */
  port: string;
  node: number;
}

/** A rig as the solver sees it: places, ways, and what switches. */
export interface Network {
  nodes: readonly NetNode[];
  elements: readonly NetElement[];
  followers: readonly Follower[];
  compressor: Compressor | null;
  latches: readonly Latch[];
  /** Which place each port of each part is joined to, by unit, part and port. */
  ports: readonly NetPort[];
  /** Other ids of places that a wrong line has made one. */
  aliases: readonly (readonly [alias: string, id: string])[];
}

/** What a double check's seats hold either way, Pa. */
const BACK_PA = 1_000;
const DOUBLE_CHECK_PA = 15_000;
/** Over this much it goes from one inlet to the other, Pa. */
const OVER_PA = 4_000;

type NodeOptions = Partial<
  Pick<NetNode, 'strokeM3' | 'strokeFromPa' | 'strokeToPa' | 'wall' | 'warmerByK'>
> & {
  kind?: PlaceKind;
  part?: string;
};

type LatchOptions = Omit<Latch, 'unit' | 'orNode' | 'openHigh' | 'openLow' | 'startsHigh'> &
  Partial<Pick<Latch, 'orNode' | 'openHigh' | 'openLow' | 'startsHigh'>>;

interface WayOptions {
  does?: WayDoes;
  openings?: readonly Opening[];
  valve?: string;
  part?: string;
  criticalRatio?: number;
}

/** The unit whose parts are added. */
interface OnUnit {
  /** Its place in the rig, from the front; −1 for the shop's own. */
  unit: number;
  /** A towed unit's title, which its places' names begin with, and the beginning of their ids; null for others. */
  towed: { title: string; prefix: string } | null;
}

/** Puts a network together; ids are kept so that parts can be found again. */
export class NetworkBuilder {
  readonly nodes: NetNode[] = [];
  readonly elements: NetElement[] = [];
  readonly followers: Follower[] = [];
  readonly latches: Latch[] = [];
  readonly ports: NetPort[] = [];
  readonly aliases: (readonly [alias: string, id: string])[] = [];
  compressor: Compressor | null = null;
  private on: OnUnit = { unit: 0, towed: null };

  /** Says whose parts come next. */
  startUnit(unit: number, title: string | null = null): void {
    this.on = { unit, towed: title === null ? null : { title, prefix: towedPrefix(unit) } };
  }

  private idOf = (role: string) => `${this.on.towed?.prefix ?? ''}${role}`;
  private nameOf = (role: string) => (this.on.towed ? `${this.on.towed.title} ${role}` : role);

  /** Adds something that follows a hand or foot; gives the number that stands for it in an opening. */
  follower(id: string, lagS: number): number {
    this.followers.push({ id, lagS });
    return FIRST_FOLLOWER - (this.followers.length - 1);
  }

  /** Adds a place; its kind is its role where nothing else is said. */
  node(role: string, litres: number, { kind, part, ...options }: NodeOptions = {}): number {
    this.nodes.push({
      id: this.idOf(role),
      name: this.nameOf(role),
      role,
      kind: kind ?? (role as PlaceKind),
      part: part ?? null,
      unit: this.on.unit,
      volumeM3: litres / 1000,
      strokeM3: 0,
      strokeFromPa: 0,
      strokeToPa: 1,
      wall: null,
      warmerByK: 0,
      ...options,
    });
    return this.nodes.length - 1;
  }

  /** Says which place a port is joined to. */
  port(part: string, port: string, node: number): void {
    this.ports.push({ unit: this.on.unit, part, port, node });
  }

  /** Gives a place more room, and a second name it is found by. */
  enlarge(index: number, litres: number, alias: string): void {
    const node = this.nodes[index]!;
    this.nodes[index] = { ...node, volumeM3: node.volumeM3 + litres / 1000 };
    this.aliases.push([this.idOf(alias), node.id]);
  }

  /** Adds a way; `conductance` in dm³/(s·bar). */
  way(
    role: string,
    from: number,
    to: number,
    conductance: number,
    { does = 'line', openings = [], valve, part, criticalRatio = 0.35 }: WayOptions = {},
  ): void {
    this.elements.push({
      id: this.idOf(role),
      name: this.nameOf(role),
      does,
      valve: valve === undefined ? null : { id: this.idOf(valve), name: this.nameOf(valve) },
      part: part ?? null,
      unit: this.on.unit,
      from,
      to,
      conductance: conductance * 1e-8,
      criticalRatio,
      openings,
    });
  }

  /** A check valve: air goes from the first to the second only. */
  check(
    role: string,
    from: number,
    to: number,
    conductance: number,
    { crackPa = 3_000, ...options }: WayOptions & { crackPa?: number } = {},
  ): void {
    const on = [
      [from, 1],
      [to, -1],
    ] as const;
    this.way(role, from, to, conductance, {
      does: 'check',
      openings: [{ on, biasPa: -crackPa, bandPa: 6_000 }],
      ...options,
    });
  }

  /**
   * A double check valve: the higher inlet feeds the outlet, each through a one-way check; and what the outlet has
   * more than both goes back to the higher. What one inlet loses is never made up by the other, and no air is caught
   * in the outlet.
   */
  doubleCheck(
    role: string,
    one: number,
    other: number,
    out: number,
    conductance: number,
    part: string,
  ): void {
    const over = (high: number, low: number, biasPa: number, bandPa: number): Opening => ({
      on: [
        [high, 1],
        [low, -1],
      ],
      biasPa,
      bandPa,
    });
    for (const [name, inlet, against] of [
      ['first', one, other],
      ['second', other, one],
    ] as const) {
      this.way(`${role}: ${name}`, inlet, out, conductance, {
        does: 'check',
        part,
        openings: [over(inlet, out, -BACK_PA, DOUBLE_CHECK_PA)],
      });
      this.way(`${role}: back to ${name}`, out, inlet, conductance, {
        does: 'back',
        part,
        openings: [
          over(out, inlet, -BACK_PA, DOUBLE_CHECK_PA),
          // Never to the lower by more than the seats hold: nothing is let off through an inlet that is empty.
          over(inlet, against, BACK_PA, OVER_PA),
        ],
      });
    }
  }

  /** Adds something that air switches. */
  latch({
    orNode = null,
    openHigh = [],
    openLow = [],
    startsHigh = false,
    ...latch
  }: LatchOptions): void {
    const opens = { openHigh, openLow, startsHigh };
    this.latches.push({ ...latch, orNode, ...opens, unit: this.on.unit });
  }

  build(): Network {
    const { nodes, elements, followers, compressor, latches, aliases, ports } = this;
    return { nodes, elements, followers, compressor, latches, aliases, ports };
  }
}

/** How the ids of a towed unit's places and ways begin, by its place in the rig: `#1 `. */
export const towedPrefix = (unit: number): string => `#${unit} `;
