import type { RigUnderTest } from '../rig/rigUnderTest';
import { PA_PER_PSI } from './network/pascal';
import { airOf, SHOP_AIR, SHOP_PA } from './network/airOf';
import { towedPrefix, type WayDoes } from './network/network';
import { placeInfo } from './network/placeKinds';
import { AirRun, type AirEvent } from './solver/airRun';
import { AirSystem } from './equations/airSystem';
import { outsidePaAt } from './equations/outside';
import type { Sides } from './network/chambers';
import { wearOf, type EngineChange, type Wear } from './wear';

const KELVIN = 273.15;
/** Sonic conductance of a coupler, m³/(s·Pa). */
const COUPLED = 4e-8;
/** What a released hand brake valve holds the park line at, psi. */
const HOLD_OFF_PSI = 95;
/** What a foot or hand valve that is let go asks for, Pa gauge: its return spring holds the exhaust wide open. */
const LET_GO_PA = -40_000;
/** The compressor turns at half of the engine's speed. */
const COMPRESSOR_PER_ENGINE = 0.5;

/** What nobody has opened yet when a rig is walked up to. */
const SHUT_AT_REST: ReadonlySet<WayDoes> = new Set(['drain', 'shop valve', 'test position']);

/** Where a rig stands, and how it stands there before anything is touched. */
export interface TwinSite {
  /** Metres over the sea. */
  heightM?: number;
  /** Outside air, °C. */
  outsideC?: number;
  /** In every tank to begin with, psi; lines and chambers are empty, dash controls out. */
  tanksPsi?: number;
  /** What the axles carry, 0 empty to 1 laden. */
  load?: number;
  /** Whether left and right are told apart; where they are alike, left stands for both. */
  sides?: Sides;
  /** Solver tolerance against the usual one; for comparisons. */
  tolerance?: number;
}

/** How a towed unit's two lines are coupled. */
export type CouplerState = 'right' | 'crossed' | 'apart';

/** The physics of one rig in one place, driven by hand and foot. Deterministic: the same moves give the same run. */
export class Twin {
  readonly system: AirSystem;
  readonly run: AirRun;
  private readonly places: ReadonlyMap<string, number>;
  private readonly ways: ReadonlyMap<string, number>;
  private readonly latches: ReadonlyMap<string, number>;
  /** By element: how far a hand or a latch lets it open, and how far a fault does. */
  private readonly gate: Float64Array;
  private readonly limit: Float64Array;
  private readonly leastOpen: Float64Array;
  private engineRpm = 0;
  private readonly engineChanges: EngineChange[] = [];

  constructor(
    readonly rig: RigUnderTest,
    {
      heightM = 0,
      outsideC = 20,
      tanksPsi = 0,
      load = 1,
      sides = 'apart',
      tolerance = 1,
    }: TwinSite = {},
  ) {
    const network = airOf(rig, { load, sides });
    this.places = byId(network.nodes);
    this.ways = byId(network.elements);
    this.latches = byId(network.latches);
    const system = new AirSystem(network);
    system.outsidePa = outsidePaAt(heightM);
    system.outsideK = KELVIN + outsideC;
    system.asked.fill(LET_GO_PA);
    system.changed();
    this.system = system;
    this.gate = new Float64Array(network.elements.length).fill(1);
    this.limit = new Float64Array(network.elements.length).fill(1);
    this.leastOpen = new Float64Array(network.elements.length);
    // Of the cocks those of the last unit are shut: behind it there is nothing.
    const last = Math.max(...network.elements.map(({ unit }) => unit));
    network.elements.forEach(({ does, unit }, e) => {
      if (SHUT_AT_REST.has(does) || (does === 'cock' && unit === last)) this.gate[e] = 0;
    });
    const state = system.atRest(({ kind }) =>
      kind === SHOP_AIR
        ? SHOP_PA
        : placeInfo(kind).isTank || kind === 'dash feed'
          ? tanksPsi * PA_PER_PSI
          : 0,
    );
    this.run = new AirRun(system, state, (latch, high) => this.switched(latch, high), {
      tolerance,
    });
    this.refresh();
    this.run.changed();
  }

  get timeS(): number {
    return this.run.timeS;
  }

  get events(): readonly AirEvent[] {
    return this.run.events;
  }

  /** Goes on to a moment, seconds from the start. */
  advanceTo(toS: number): void {
    this.run.advanceTo(toS);
  }

  /** Places in the rig, from the front, of what is towed. */
  get towedUnits(): readonly number[] {
    const units = this.system.network.nodes.flatMap(({ kind, unit }) =>
      kind === 'towed tank' ? [unit] : [],
    );
    return [...new Set(units)];
  }

  /** Gauge pressure in a place, psi. @throws where there is no such place */
  psi(place: string): number {
    return (this.run.state[this.placeOf(place)]! - this.system.outsidePa) / PA_PER_PSI;
  }

  /** Temperature of the air in a place, °C. */
  celsius(place: string): number {
    return this.system.temperatureAt(this.placeOf(place), this.run.state) - KELVIN;
  }

  hasPlace(place: string): boolean {
    return this.places.has(place);
  }

  hasWay(way: string): boolean {
    return this.ways.has(way);
  }

  hasLatch(latch: string): boolean {
    return this.latches.has(latch);
  }

  /** Runs the engine at so many turns a minute; 0 stops it. */
  engine(rpm: number): void {
    this.engineRpm = rpm;
    this.engineChanges.push({ atS: this.timeS, rpm });
    this.system.turns = (rpm * COMPRESSOR_PER_ENGINE) / 60;
    this.run.changed();
  }

  /** What the time since the start has worn. */
  get wear(): Wear {
    return wearOf(this.events, this.engineChanges, this.timeS, COMPRESSOR_PER_ENGINE);
  }

  /** Changes the air outside, °C. */
  weather(outsideC: number): void {
    this.system.outsideK = KELVIN + outsideC;
    this.system.changed();
    this.run.changed();
  }

  get rpm(): number {
    return this.engineRpm;
  }

  /** Asks for so many psi by foot or hand: 'pedal', 'hand valve' or 'hand brake'. */
  ask(what: 'pedal' | 'hand valve' | 'hand brake', psi: number): void {
    const index = this.followerOf(what);
    if (index < 0) return;
    this.system.asked[index] = psi > 0 ? psi * PA_PER_PSI : LET_GO_PA;
    this.run.changed();
  }

  /** Pushes a dash control in, or pulls it out; one that has too little air comes out again by itself. */
  dash(control: 'park valve' | 'trailer supply valve', isIn: boolean): void {
    const latch = this.latches.get(control);
    if (latch === undefined) return;
    this.run.put(latch, isIn);
    if (control === 'park valve' && this.hasHandBrake) {
      this.testPosition(false);
      this.ask('hand brake', isIn ? HOLD_OFF_PSI : 0);
    }
  }

  /** Whether a hand brake valve with numbered ports stands in place of dash controls. */
  get hasHandBrake(): boolean {
    return this.followerOf('hand brake') >= 0;
  }

  /** Holds a locked hand brake valve in its test position: the truck's springs on, the trailer released. */
  testPosition(held: boolean): void {
    if (!this.ways.has('hand brake valve: test')) return;
    this.gate[this.wayOf('hand brake valve: test')] = held ? 1 : 0;
    this.gate[this.wayOf('hand brake valve: drive')] = held ? 0 : 1;
    this.refresh();
    this.run.changed();
  }

  /** Whether a latch is high: a dash control in, the governor cut out, a warning silent. */
  isHigh(latch: string): boolean {
    return this.run.high[this.latches.get(latch) ?? -1] ?? false;
  }

  /** Opens a drain, cock or coupler so far, 0 to 1. */
  open(way: string, share: number): void {
    this.gate[this.wayOf(way)] = share;
    this.refresh();
    this.run.changed();
  }

  /* What faults do. */

  /** A way passes at most this share. */
  block(way: string, share: number): void {
    this.limit[this.wayOf(way)] = share;
    this.refresh();
    this.run.changed();
  }

  /** A way never closes further than this. */
  holdOpen(way: string, share: number): void {
    this.leastOpen[this.wayOf(way)] = share;
    this.refresh();
    this.run.changed();
  }

  /** Makes a way that a sound rig does not have; conductance in m³/(s·Pa). */
  pierce(way: string, conductance: number): void {
    this.system.conductance[this.wayOf(way)] = conductance;
    this.refresh();
    this.run.changed();
  }

  /** Couples a towed unit, by its place in the rig: right, with its lines crossed, or not at all, with both lines open at either end. */
  couple(unit: number, how: CouplerState): void {
    const towed = towedPrefix(unit);
    const { conductance } = this.system;
    for (const line of ['supply', 'service'] as const) {
      const other = line === 'supply' ? 'service' : 'supply';
      this.gate[this.wayOf(`${towed}${line} coupler`)] = how === 'right' ? 1 : 0;
      conductance[this.wayOf(`${towed}${line} on ${other} coupler`)] =
        how === 'crossed' ? COUPLED : 0;
      for (const end of ['front', 'rear']) {
        conductance[this.wayOf(`${towed}${line} coupler, ${end}`)] = how === 'apart' ? COUPLED : 0;
      }
    }
    this.refresh();
    this.run.changed();
  }

  /** A leak to outside air; conductance in m³/(s·Pa). */
  leak(place: string, conductance: number): void {
    this.system.leak[this.placeOf(place)] = conductance;
    this.system.changed();
    this.run.changed();
  }

  /** Moves what drives a way's first opening, psi. */
  shift(way: string, psi: number, opening = 0): void {
    const at = this.system.openingOf(this.wayOf(way)) + opening;
    this.system.bias[at] = this.system.bias[at]! + psi * PA_PER_PSI;
    this.system.changed();
    this.run.changed();
  }

  /** Moves the set points of a latch, psi. */
  setPoints(latch: string, { lowBy = 0, highBy = 0 }: { lowBy?: number; highBy?: number }): void {
    const at = this.latches.get(latch);
    if (at === undefined) throw new Error(`There is no ${latch}`);
    this.run.lowPa[at] = this.run.lowPa[at]! + lowBy * PA_PER_PSI;
    this.run.highPa[at] = this.run.highPa[at]! + highBy * PA_PER_PSI;
    this.run.changed();
  }

  /** Flow through a way at the moment asked for last, kg/s, from its first end to its second. */
  flowKgPerS(way: string): number {
    return this.run.flows[this.wayOf(way)]!;
  }

  /** How far a way is open at the moment asked for last, 0 to 1. */
  openOf(way: string): number {
    // Takes that moment in: the solver is ahead of it.
    void this.run.flows;
    return this.system.openOf(this.wayOf(way));
  }

  private switched(latch: number, high: boolean): void {
    const { openHigh, openLow } = this.system.network.latches[latch] as {
      openHigh: readonly string[];
      openLow: readonly string[];
    };
    for (const id of openHigh) this.gate[this.wayOf(id)] = high ? 1 : 0;
    for (const id of openLow) this.gate[this.wayOf(id)] = high ? 0 : 1;
    if (openHigh.length + openLow.length > 0) this.refresh();
  }

  private refresh(): void {
    const { floor, ceiling } = this.system;
    for (let e = 0; e < ceiling.length; e += 1) {
      const least = this.leastOpen[e]!;
      floor[e] = least;
      ceiling[e] = Math.max(least, this.gate[e]! * this.limit[e]!);
    }
    this.system.changed();
  }

  private followerOf(id: string): number {
    return this.system.network.followers.findIndex((each) => each.id === id);
  }

  private placeOf(id: string): number {
    const place = this.places.get(id);
    if (place === undefined) throw new Error(`This rig has no ${id}`);
    return place;
  }

  private wayOf(id: string): number {
    const way = this.ways.get(id);
    if (way === undefined) throw new Error(`This rig has no ${id}`);
    return way;
  }
}

function byId(things: readonly { id: string }[]): Map<string, number> {
  return new Map(things.map(({ id }, i) => [id, i]));
}
