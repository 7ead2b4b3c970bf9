import { AirPlaces, type PlaceSettings } from './airPlaces';
import { add, AirSlopes } from './airSlopes';
import { airTables, isSound, type AirTables } from './airTables';
import { AirWays, type WaySettings } from './airWays';
import {
  compressorAt,
  SOUND_COMPRESSOR,
  type CompressorAt,
  type CompressorState,
} from './compressor';
import type { NetNode, Network } from '../network/network';
import type { SparseLu } from '../algebra/sparseLu';

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { max } = Math;

/** Settings that were kept, to be gone back to. */
export interface SavedSettings {
  of: AirSystem;
  settings: Float64Array;
  outsidePa: number;
  outsideK: number;
  turns: number;
  compressor: CompressorState;
  version: number;
}

/** Parts of the settings, in their order. */
type Rows = [
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
];

/** A check for pressures that cannot be: no step of the solver may come near a vacuum. */
const LEAST_PA = 1_000;

/**
 * A network's equations and their derivatives.
 *
 * State: absolute pressure of each node, Pa; then what each follower asks for, Pa absolute; then the temperature
 * of each tank's air, K, and that of its wall. Mass and energy of ideal air in each place:
 * tanks dp/dt = (γR/V)(Σ ṁT_in − TΣ ṁ_out) − (γ−1)/V·q, dT/dt = (T/p)·dp/dt − (RT²/(pV))·Σṁ, with q to a wall that
 * warms by it and cools outside; everywhere else at one temperature (V + p·dV/dp)·dp/dt = RT·Σṁ.
 */
export class AirSystem implements WaySettings, PlaceSettings {
  readonly size: number;
  readonly nodeCount: number;

  outsidePa = 101_325;
  outsideK = 293.15;
  /** By element: sonic conductance, m³/(s·Pa). */
  readonly conductance: Float64Array;
  /** By element: how far hands and latches let it open, what share of that it passes, and its least opening. */
  readonly gate: Float64Array;
  readonly passes: Float64Array;
  readonly floor: Float64Array;
  /** By element: what comes of those three; worked out when they change. */
  readonly ceiling: Float64Array;
  readonly bias: Float64Array;
  readonly leak: Float64Array;
  readonly volume: Float64Array;
  readonly stroke: Float64Array;
  readonly film: Float64Array;
  readonly wallJPerK: Float64Array;
  /** By follower: what is asked for, Pa gauge, and seconds for two thirds of the way. */
  readonly asked: Float64Array;
  readonly lag: Float64Array;
  /** Turns of the compressor, 1/s. */
  turns = 0;
  /** What is worn, or other than usual, about the compressor. */
  compressor: CompressorState = SOUND_COMPRESSOR;
  /** Times the equations were evaluated. */
  evaluations = 0;

  /** All settings by element, opening, node and follower, in a row: the fields above are parts of it. */
  private readonly settings: Float64Array;
  /** Counts changes; `version` names the settings as they stand. */
  private changes = 0;
  private version = 0;
  private readonly faultyWays: Int32Array;
  private tables: AirTables;
  private readonly places: AirPlaces;
  private readonly ways: AirWays;
  private readonly slopes: AirSlopes;
  private readonly delivered: CompressorAt = { kgPerS: 0, byDelivery: 0, byUnloader: 0 };

  constructor(readonly network: Network) {
    const { nodes, elements, followers } = network;
    const tables = airTables(network, 'sound');
    this.tables = tables;
    this.size = tables.size;
    this.nodeCount = nodes.length;
    this.lag = Float64Array.from(followers, (each) => each.lagS);
    const openings = elements.flatMap((each) => each.openings);
    const rows = [
      elements.map((each) => each.conductance),
      elements.map(() => 1),
      elements.map(() => 1),
      elements.map(() => 0),
      openings.map((each) => each.biasPa),
      nodes.map(() => 0),
      nodes.map((node) => node.volumeM3),
      nodes.map(() => 1),
      nodes.map((node) => node.wall?.film ?? 0),
      nodes.map((node) => node.wall?.jPerK ?? 1),
      followers.map(() => 0),
    ];
    this.settings = Float64Array.from(rows.flat());
    let from = 0;
    const [conductance, gate, passes, floor, bias, leak, volume, stroke, film, wallJPerK, asked] =
      rows.map((row) => this.settings.subarray(from, (from += row.length))) as Rows;
    this.conductance = conductance;
    this.gate = gate;
    this.passes = passes;
    this.floor = floor;
    this.bias = bias;
    this.leak = leak;
    this.volume = volume;
    this.stroke = stroke;
    this.film = film;
    this.wallJPerK = wallJPerK;
    this.asked = asked;
    this.ceiling = new Float64Array(elements.length).fill(1);
    this.faultyWays = Int32Array.from([...elements.keys()].filter((e) => !isSound(elements[e]!)));
    this.places = new AirPlaces(network, tables, this);
    this.ways = new AirWays(tables, this);
    this.slopes = new AirSlopes(this.places, this.ways, this, tables);
    this.changed();
  }

  /** Solves what `linearise` leaves; another one once a way is there that no sound rig has. */
  get lu(): SparseLu {
    return this.tables.lu;
  }

  /** Flow through each element at the last evaluation, kg/s from its first node to its second. */
  get flows(): Float64Array {
    return this.ways.flows;
  }

  /** Index of an element's first opening in `bias`. */
  openingOf(element: number): number {
    return this.tables.openingStart[element]!;
  }

  /** Says that outside air, or a setting, was changed. */
  changed(): void {
    this.changes += 1;
    this.version = this.changes;
    this.takeIn();
  }

  /** The settings as they stand, to go back to. */
  save(): SavedSettings {
    const { outsidePa, outsideK, turns, compressor, version } = this;
    const settings = this.settings.slice();
    return { of: this, settings, outsidePa, outsideK, turns, compressor, version };
  }

  /** Goes back to settings of this system, or of another of the same network. */
  restore({ of, settings, outsidePa, outsideK, turns, compressor, version }: SavedSettings): void {
    if (settings.length !== this.settings.length)
      throw new Error('These settings are of a rig that is plumbed otherwise.');
    this.turns = turns;
    this.compressor = compressor;
    // What is asked for changes without a new version: it needs nothing worked out anew.
    this.settings.set(settings);
    if (of === this && version === this.version) return;
    this.outsidePa = outsidePa;
    this.outsideK = outsideK;
    if (of === this) this.version = version;
    else this.version = this.changes += 1;
    this.takeIn();
  }

  private takeIn(): void {
    const { ceiling, gate, passes, floor, conductance } = this;
    for (let e = 0; e < ceiling.length; e += 1) {
      ceiling[e] = max(floor[e]!, gate[e]! * passes[e]!);
    }
    const isFaulty = this.faultyWays.some((e) => conductance[e]! > 0);
    this.tables = airTables(this.network, isFaulty ? 'faulty' : 'sound');
    this.places.changed();
    this.ways.changed();
  }

  /** A state with a gauge pressure for each node, at the temperature outside. */
  atRest(gaugePa: (node: NetNode) => number): Float64Array {
    const state = new Float64Array(this.size);
    this.network.nodes.forEach((node, i) => (state[i] = this.outsidePa + gaugePa(node)));
    this.asked.forEach((_, i) => (state[this.nodeCount + i] = this.outsidePa));
    for (const node of this.tables.tanks) {
      state[this.tables.heat[node]!] = this.outsideK;
      state[this.tables.wall[node]!] = this.outsideK;
    }
    return state;
  }

  /** How far an element was open at the last evaluation, 0 to 1. */
  openOf(element: number): number {
    return this.ways.openOf(element);
  }

  /** Mass of air in all places, kg. */
  massKg(state: Float64Array): number {
    return this.places.massKg(state);
  }

  /** Temperature of the air in a node, K. */
  temperatureAt(node: number, state: Float64Array): number {
    return this.places.temperatureAt(node, state);
  }

  /** True where every value of a state is one that air can have. */
  holds(state: Float64Array): boolean {
    for (let i = 0; i < this.size; i += 1) {
      // Written so that what is not a number is caught as well.
      if (!(state[i]! > (i < this.nodeCount ? LEAST_PA : 0))) return false;
    }
    return true;
  }

  /** Time derivative of `state`, into `out`. */
  rates(state: Float64Array, out: Float64Array): void {
    this.evaluations += 1;
    this.places.readIn(state);
    this.ways.open(this.places);
    this.ways.pass(this.places);
    const { compressor } = this.network;
    if (compressor && this.turns > 0) {
      compressorAt(compressor, this, state, this.delivered);
      add(this.places.inflow, compressor.into * 2, this.delivered.kgPerS);
    }
    this.places.rates(out);
    this.follow(state, out);
  }

  /** As `rates`, and leaves the derivatives of the rates in `jacobian`, by the slots of `lu`. */
  linearise(state: Float64Array, out: Float64Array, jacobian: Float64Array): void {
    this.evaluations += 1;
    this.places.readIn(state);
    this.ways.open(this.places);
    jacobian.fill(0);
    const { tables, delivered } = this;
    this.slopes.pass(jacobian, tables);
    const { compressor } = this.network;
    if (compressor && this.turns > 0) {
      compressorAt(compressor, this, state, delivered);
      const { into, unloader } = compressor;
      const byMass = this.places.byMass[into]!;
      add(this.places.inflow, into * 2, delivered.kgPerS);
      add(jacobian, tables.own[into]!, byMass * delivered.byDelivery);
      add(jacobian, tables.lu.slotOf(into, unloader), byMass * delivered.byUnloader);
    }
    this.places.rates(out);
    this.follow(state, out);
    this.slopes.settle(out, jacobian, tables);
    for (let f = 0; f < this.asked.length; f += 1) {
      jacobian[tables.own[this.nodeCount + f]!] = -1 / this.lag[f]!;
    }
  }

  /** Rates of what hand and foot ask for. */
  private follow(state: Float64Array, out: Float64Array): void {
    for (let f = 0; f < this.asked.length; f += 1) {
      const i = this.nodeCount + f;
      out[i] = (this.asked[f]! + this.outsidePa - state[i]!) / this.lag[f]!;
    }
  }
}
