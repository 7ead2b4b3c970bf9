import type { RigUnderTest } from '../rig/rigUnderTest';
import { PA_PER_PSI } from './network/pascal';
import { airOf } from './network/airOf';
import { SHOP_AIR, SHOP_PA } from './network/shopAir';
import { towedPrefix, type LatchRole, type WayDoes } from './network/network';
import { placeInfo } from './network/placeKinds';
import { AirRun, type AirEvent, type SavedRun } from './solver/airRun';
import { AirSystem, type SavedSettings } from './equations/airSystem';
import type { CompressorState } from './equations/compressor';
import { outsidePaAt } from './equations/outside';
import type { Sides } from './network/chambers';
import type { CouplerState } from './couplerState';
import type { Effect } from './effects';
import { wearOf, type EngineChange, type Wear } from './wear';

const KELVIN = 273.15;
/** Sonic conductance of a coupler, m³/(s·Pa). */
const COUPLED = 4e-8;
/** What a released hand brake valve holds the park line at, psi. */
const HOLD_OFF_PSI = 95;
/** What a foot or hand valve that is let go asks for, Pa gauge: its return spring holds the exhaust wide open. */
const LET_GO_PA = -40_000;

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
  /** Whether the shop's air can be joined to a powered unit. */
  shopAir?: boolean;
  /** Solver tolerance against the usual one; for comparisons. */
  tolerance?: number;
}

/** A moment of a twin with everything that leads on from it. */
export interface SavedTwin {
  run: SavedRun;
  settings: SavedSettings;
  engineRpm: number;
  engineChanges: readonly EngineChange[];
  drying: number;
  seepage: Float64Array;
}

/** The physics of one rig in one place, driven by hand and foot. Deterministic: the same moves give the same run. */
export class Twin {
  readonly system: AirSystem;
  readonly run: AirRun;
  private readonly places: ReadonlyMap<string, number>;
  private readonly ways: ReadonlyMap<string, number>;
  private readonly latches: ReadonlyMap<string, number>;
  /** By place: how much of its leak is what a sound rig loses too; m³/(s·Pa). */
  readonly seepage: Float64Array;
  /** Share of the vapour that the dryer takes out, against a sound one. */
  drying = 1;
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
      shopAir = false,
    }: TwinSite = {},
  ) {
    const network = airOf(rig, { load, sides, shopAir });
    const places = byId(network.nodes);
    for (const [alias, id] of network.aliases) places.set(alias, places.get(id)!);
    this.places = places;
    this.ways = byId(network.elements);
    this.latches = byId(network.latches);
    const system = new AirSystem(network);
    system.outsidePa = outsidePaAt(heightM);
    system.outsideK = KELVIN + outsideC;
    system.asked.fill(LET_GO_PA);
    system.changed();
    this.system = system;
    this.seepage = new Float64Array(network.nodes.length);
    // Of the cocks those of the last unit are shut: behind it there is nothing.
    const last = Math.max(...network.elements.map(({ unit }) => unit));
    network.elements.forEach(({ does, unit }, e) => {
      if (SHUT_AT_REST.has(does) || (does === 'cock' && unit === last)) system.gate[e] = 0;
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
    this.changed();
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

  /** Sonic conductance of a way when open, m³/(s·Pa). */
  conductanceOf(way: string): number {
    return this.system.conductance[this.wayOf(way)]!;
  }

  /** Whether some latch of a kind is high: a stop lamp lit, air where there should be. */
  isSomeHigh(role: LatchRole): boolean {
    const { latches } = this.system.network;
    return latches.some((latch, i) => latch.role === role && this.run.high[i]);
  }

  /** Whether a low-air switch warns. */
  get isWarning(): boolean {
    const { latches } = this.system.network;
    return latches.some((latch, i) => latch.role === 'low-air switch' && !this.run.high[i]);
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
    this.system.turns = (rpm * this.perEngineTurn) / 60;
    this.run.changed();
  }

  /** Turns of the compressor for one of the engine. */
  private get perEngineTurn(): number {
    return this.system.network.compressor?.perEngineTurn ?? 1;
  }

  /** What the time since the start has worn. */
  get wear(): Wear {
    return wearOf(this.events, this.engineChanges, this.timeS, this.perEngineTurn);
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
    this.system.gate[this.wayOf('hand brake valve: test')] = held ? 1 : 0;
    this.system.gate[this.wayOf('hand brake valve: drive')] = held ? 0 : 1;
    this.changed();
  }

  /** Whether a latch is high: a dash control in, the governor cut out, a warning silent. */
  isHigh(latch: string): boolean {
    return this.run.high[this.latches.get(latch) ?? -1] ?? false;
  }

  /** Opens a drain, cock or coupler so far, 0 to 1. */
  open(way: string, share: number): void {
    this.system.gate[this.wayOf(way)] = share;
    this.changed();
  }

  /** Makes it other than it was described, all at once; what is there already stays. */
  apply(effects: readonly Effect[]): void {
    try {
      for (const effect of effects) this.put(effect);
    } finally {
      // What came before one of a part that is not there counts all the same.
      this.changed();
    }
  }

  /** A way passes at most this share of what it did. */
  block(way: string, share: number): void {
    this.apply([{ does: 'narrow', way, share }]);
  }

  /** A way never closes further than by this share, beside what holds it open already. */
  holdOpen(way: string, share: number): void {
    this.apply([{ does: 'hold open', way, share }]);
  }

  /** Makes a way that a sound rig does not have; conductance in m³/(s·Pa). */
  pierce(way: string, conductance: number): void {
    this.apply([{ does: 'pierce', way, conductance }]);
  }

  /** A leak to outside air, beside what leaks there already; conductance in m³/(s·Pa). */
  leak(place: string, conductance: number): void {
    this.apply([{ does: 'leak', place, conductance }]);
  }

  /** Moves what drives one of a way's openings, psi. */
  shift(way: string, psi: number, opening = 0): void {
    this.apply([{ does: 'shift', way, psi, opening }]);
  }

  /** Moves the set points of a latch, psi. */
  setPoints(latch: string, by: { lowBy?: number; highBy?: number }): void {
    this.apply([{ does: 'set', latch, ...by }]);
  }

  /** Couples a towed unit, by its place in the rig: right, with its lines crossed, or not at all, with both lines open at either end. */
  couple(unit: number, how: CouplerState): void {
    this.joinCouplers(unit, how);
    this.changed();
  }

  /** The moment with everything that leads on from it, to go back to. */
  save(): SavedTwin {
    return {
      run: this.run.save(),
      settings: this.system.save(),
      engineRpm: this.engineRpm,
      engineChanges: [...this.engineChanges],
      drying: this.drying,
      seepage: this.seepage.slice(),
    };
  }

  /** Goes back to a moment of this twin, or of another of the same network, and runs on from there. */
  restore({ run, settings, engineRpm, engineChanges, drying, seepage }: SavedTwin): void {
    this.system.restore(settings);
    this.run.restore(run);
    this.engineRpm = engineRpm;
    this.engineChanges.length = 0;
    this.engineChanges.push(...engineChanges);
    this.drying = drying;
    this.seepage.set(seepage);
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

  private put(effect: Effect): void {
    const { system } = this;
    switch (effect.does) {
      case 'leak':
        system.leak[this.placeOf(effect.place)]! += effect.conductance;
        break;
      case 'seep': {
        const place = this.placeOf(effect.place);
        system.leak[place]! += effect.conductance;
        this.seepage[place]! += effect.conductance;
        break;
      }
      case 'hold open': {
        const way = this.wayOf(effect.way);
        system.floor[way] = Math.min(1, system.floor[way]! + effect.share);
        break;
      }
      case 'narrow':
        system.passes[this.wayOf(effect.way)]! *= effect.share;
        break;
      case 'bore':
        system.conductance[this.wayOf(effect.way)]! *= effect.times;
        break;
      case 'pierce':
        system.conductance[this.wayOf(effect.way)]! += effect.conductance;
        break;
      case 'shift':
        system.bias[system.openingOf(this.wayOf(effect.way)) + (effect.opening ?? 0)]! +=
          effect.psi * PA_PER_PSI;
        break;
      case 'set': {
        const at = this.latches.get(effect.latch);
        if (at === undefined) throw new Error(`This rig has no ${effect.latch}`);
        this.run.lowPa[at]! += (effect.lowBy ?? 0) * PA_PER_PSI;
        this.run.highPa[at]! += (effect.highBy ?? 0) * PA_PER_PSI;
        break;
      }
      case 'volume':
        system.volume[this.placeOf(effect.place)]! *= effect.times;
        break;
      case 'stroke':
        system.stroke[this.placeOf(effect.place)]! *= effect.times;
        break;
      case 'wall': {
        const place = this.placeOf(effect.place);
        system.film[place]! *= effect.film;
        system.wallJPerK[place]! *= effect.heat;
        break;
      }
      case 'compressor':
        system.compressor = worn(system.compressor, effect);
        break;
      case 'dry':
        this.drying *= effect.share;
        break;
      case 'open':
        system.gate[this.wayOf(effect.way)] = effect.share;
        break;
      case 'couple':
        this.joinCouplers(effect.unit, effect.how);
        break;
    }
  }

  private joinCouplers(unit: number, how: CouplerState): void {
    const towed = towedPrefix(unit);
    const { conductance } = this.system;
    for (const line of ['supply', 'service'] as const) {
      const other = line === 'supply' ? 'service' : 'supply';
      this.system.gate[this.wayOf(`${towed}${line} coupler`)] = how === 'right' ? 1 : 0;
      conductance[this.wayOf(`${towed}${line} on ${other} coupler`)] =
        how === 'crossed' ? COUPLED : 0;
      for (const end of ['front', 'rear']) {
        conductance[this.wayOf(`${towed}${line} coupler, ${end}`)] = how === 'apart' ? COUPLED : 0;
      }
    }
  }

  private switched(latch: number, high: boolean): void {
    const { openHigh, openLow } = this.system.network.latches[latch] as {
      openHigh: readonly string[];
      openLow: readonly string[];
    };
    const { gate } = this.system;
    for (const id of openHigh) gate[this.wayOf(id)] = high ? 1 : 0;
    for (const id of openLow) gate[this.wayOf(id)] = high ? 0 : 1;
    if (openHigh.length + openLow.length > 0) this.system.changed();
  }

  private changed(): void {
    this.system.changed();
    this.run.changed();
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

/** A compressor with one more thing wrong with it: shares are multiplied, what passes is added up. */
const worn = (
  before: CompressorState,
  { swept = 1, extraClearance = 0, rings = 0, intake = 0 }: Partial<CompressorState>,
): CompressorState => ({
  swept: before.swept * swept,
  extraClearance: before.extraClearance + extraClearance,
  rings: before.rings + rings,
  intake: 1 - (1 - before.intake) * (1 - intake),
});

function byId(things: readonly { id: string }[]): Map<string, number> {
  return new Map(things.map(({ id }, i) => [id, i]));
}
