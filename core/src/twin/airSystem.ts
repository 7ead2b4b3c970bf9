/* eslint-disable @typescript-eslint/prefer-for-of -- walked by index: an iterator costs more than what is done here. */
import { R_AIR, GAMMA } from '../gas/orifice';
import { airTables, isSound, type AirTables } from './airTables';
import { compressorAt, type CompressorAt } from './compressor';
import { flowAt, flowPa, RHO_REFERENCE, T_REFERENCE_K, type FlowAt } from './flow';
import { OUTSIDE, type Network } from './network';
import type { SparseLu } from './sparseLu';
import { Strokes } from './strokes';

/** Critical ratio of a hole with sharp edges. */
const LEAK_RATIO = 0.5;
const LEAK_STEEP = 1 / (1 - LEAK_RATIO);
/** A check for pressures that cannot be: no step of the solver may come near a vacuum. */
const LEAST_PA = 1_000;

/** Numbers kept of each place's air, and of each element that can pass anything; rows an element may stand in. */
const AIR = 3;
const PACKED = 5;
const FIGURES = 5;
const DRIVEN = 3;
const DRIVES = 3;
const ROWS = 4;

/**
 * A network's equations and their derivatives.
 *
 * State: absolute pressure of each node, Pa; then what each follower asks for, Pa absolute; then the temperature
 * of each tank, K. Mass and energy of ideal air in each place:
 * tanks dp/dt = (γR/V)(Σ ṁT_in − TΣ ṁ_out) − (γ−1)/V·hA·(T − T_outside), dT/dt = (T/p)·dp/dt − (RT²/(pV))·Σṁ;
 * everywhere else at one temperature (V + p·dV/dp)·dp/dt = RT·Σṁ.
 */
export class AirSystem {
  readonly size: number;
  readonly nodeCount: number;

  /** Outside air. */
  outsidePa = 101_325;
  outsideK = 293.15;

  /* What devices, hands and faults may change. By element: */
  readonly conductance: Float64Array;
  /** Least opening, 0 to 1: a seat that does not close. */
  readonly floor: Float64Array;
  /** Most opening: a passage partly blocked, or a valve that does not open. */
  readonly ceiling: Float64Array;
  /** Pa by opening (flat index from `openingOf`). */
  readonly bias: Float64Array;
  /** By node: conductance of a leak to outside air, m³/(s·Pa). */
  readonly leak: Float64Array;
  /** By follower: what is asked for, Pa gauge. */
  readonly asked: Float64Array;
  readonly lag: Float64Array;
  /** Turns of the compressor, 1/s. */
  turns = 0;
  /** How much of its swept volume the compressor still delivers, 0 to 1. */
  delivers = 1;

  /** Flow through each element at the last evaluation, kg/s from its first node to its second. */
  readonly flows: Float64Array;
  /** Times the equations were evaluated. */
  evaluations = 0;

  private tables: AirTables;
  private readonly strokes: Strokes;
  private readonly warmer: Float64Array;
  private readonly wall: Float64Array;
  private readonly volume: Float64Array;
  /** By opening: bias less outside air, over the band. */
  private readonly shift: Float64Array;

  /** By node: R·T over its volume where nothing moves in it; written over where something does. */
  private readonly byMass: Float64Array;
  /** By place, outside air last, three each: pressure, temperature, and reference density times √(T₀/T). */
  private readonly air: Float64Array;
  /** By place, two each: mass that flows in, kg/s, and that times its temperature. */
  private readonly inflow: Float64Array;
  /** By opening: how far it opens, and how that changes with the sum that drives it; one more is always open. */
  private readonly far: Float64Array;
  private readonly bend: Float64Array;
  /** By tank's place: T/p, and R·T²/(p·V). */
  private readonly warmth: Float64Array;
  private readonly chill: Float64Array;
  private readonly at: FlowAt = { value: 0, byUpstream: 0, byDownstream: 0 };
  private readonly delivered: CompressorAt = { kgPerS: 0, byDelivery: 0, byUnloader: 0 };
  /** Elements that can pass anything at all, packed: what they are, and their numbers. */
  private activeCount = 0;
  /** So many of them, the first, have a tank at an end. */
  private tankCount = 0;
  private readonly active: Int32Array;
  private readonly figures: Float64Array;
  /** Openings of those elements, packed: which, and its first two places; and what drives it. */
  private driven: Int32Array = new Int32Array(0);
  private drives: Float64Array = new Float64Array(0);
  /** From here on openings have more places than two. */
  private wideFrom = 0;
  /** Nodes that leak. */
  private leaking: Int32Array = new Int32Array(0);

  constructor(readonly network: Network) {
    const { nodes, elements, followers } = network;
    this.tables = airTables(network, 'sound');
    const { size } = this.tables;
    this.size = size;
    this.nodeCount = nodes.length;
    this.strokes = new Strokes(nodes);
    this.volume = Float64Array.from(nodes, (node) => node.volumeM3);
    this.warmer = Float64Array.from(nodes, (node) => node.warmerByK);
    this.wall = Float64Array.from(nodes, (node) => node.wallWPerK ?? 0);
    this.leak = new Float64Array(nodes.length);
    this.asked = new Float64Array(followers.length);
    this.lag = Float64Array.from(followers, (each) => each.lagS);
    this.conductance = Float64Array.from(elements, (each) => each.conductance);
    this.floor = new Float64Array(elements.length);
    this.ceiling = new Float64Array(elements.length).fill(1);
    this.flows = new Float64Array(elements.length);
    const openings = elements.flatMap((each) => each.openings);
    this.bias = Float64Array.from(openings, (each) => each.biasPa);
    this.shift = new Float64Array(openings.length);
    this.far = new Float64Array(openings.length + 1).fill(1);
    this.bend = new Float64Array(openings.length + 1);
    this.air = new Float64Array((size + 1) * AIR);
    this.inflow = new Float64Array((size + 1) * 2);
    this.byMass = new Float64Array(size + 1);
    this.warmth = new Float64Array(size + 1);
    this.chill = new Float64Array(size + 1);
    this.active = new Int32Array(elements.length * PACKED);
    this.figures = new Float64Array(elements.length * FIGURES);
    this.changed();
  }

  /** Solves what `linearise` leaves; another one once a way is there that no sound rig has. */
  get lu(): SparseLu {
    return this.tables.lu;
  }

  /** Index of an element's first opening in `bias`. */
  openingOf(element: number): number {
    return this.tables.openingStart[element]!;
  }

  /** Says that outside air, conductances, biases, leaks, floors or ceilings were changed. */
  changed(): void {
    const { elements } = this.network;
    const isFaulty = elements.some((each, e) => !isSound(each) && this.conductance[e]! > 0);
    this.tables = airTables(this.network, isFaulty ? 'faulty' : 'sound');
    const { weightSum, band, from, to, critical, openingStart } = this.tables;
    const { air, shift, volume } = this;
    for (let o = 0; o < shift.length; o += 1) {
      shift[o] = (this.bias[o]! - weightSum[o]! * this.outsidePa) / band[o]!;
    }
    for (let i = 0; i <= this.size; i += 1) {
      const warm = this.outsideK + (this.warmer[i] ?? 0);
      air[i * AIR] = this.outsidePa;
      air[i * AIR + 1] = warm;
      air[i * AIR + 2] = RHO_REFERENCE * Math.sqrt(T_REFERENCE_K / warm);
    }
    for (let i = 0; i < this.nodeCount; i += 1) {
      const isTank = this.tables.heat[i]! >= 0;
      this.byMass[i] = (isTank ? GAMMA * R_AIR : R_AIR * air[i * AIR + 1]!) / volume[i]!;
    }
    const driven: number[] = [];
    const alwaysOpen = shift.length;
    this.flows.fill(0);
    const passing = [...this.flows.keys()].filter(
      (e) => this.conductance[e]! > 0 && this.ceiling[e]! > 0,
    );
    const touchesTank = (e: number) =>
      this.tables.heat[from[e]!]! >= 0 || this.tables.heat[to[e]!]! >= 0;
    const first = passing.filter(touchesTank);
    const packed = [...first, ...passing.filter((e) => !touchesTank(e))];
    packed.forEach((e, n) => {
      const openings = Array.from(
        { length: openingStart[e + 1]! - openingStart[e]! },
        (_, i) => openingStart[e]! + i,
      );
      driven.push(...openings);
      this.active.set(
        [e, from[e]!, to[e]!, openings[0] ?? alwaysOpen, openings[1] ?? alwaysOpen],
        n * PACKED,
      );
      this.figures.set(
        [
          this.conductance[e]!,
          critical[e]!,
          this.floor[e]!,
          this.ceiling[e]! - this.floor[e]!,
          1 / (1 - critical[e]!),
        ],
        n * FIGURES,
      );
    });
    this.tankCount = first.length;
    this.activeCount = packed.length;
    this.packOpenings(driven);
    this.leaking = Int32Array.from(
      this.network.nodes.flatMap((_, i) => (this.leak[i]! > 0 ? [i] : [])),
    );
  }

  /** A state with a gauge pressure for each node, at the temperature outside. */
  atRest(gaugePa: (name: string) => number): Float64Array {
    const state = new Float64Array(this.size);
    this.network.nodes.forEach((node, i) => (state[i] = this.outsidePa + gaugePa(node.name)));
    this.asked.forEach((_, i) => (state[this.nodeCount + i] = this.outsidePa));
    for (const node of this.tables.tanks) state[this.tables.heat[node]!] = this.outsideK;
    return state;
  }

  /** How far an element was open at the last evaluation, 0 to 1. */
  openOf(e: number): number {
    const { openingStart } = this.tables;
    if (!(this.conductance[e]! > 0 && this.ceiling[e]! > 0)) return 0;
    let open = 1;
    for (let o = openingStart[e]!; o < openingStart[e + 1]!; o += 1) open *= this.far[o]!;
    return this.floor[e]! + (this.ceiling[e]! - this.floor[e]!) * open;
  }

  /** Mass of air in all places, kg. */
  massKg(state: Float64Array): number {
    let total = 0;
    for (let i = 0; i < this.nodeCount; i += 1) {
      const volume = this.strokes.volumeAt(i, state[i]! - this.outsidePa);
      total += (state[i]! * volume) / (R_AIR * this.temperatureAt(i, state));
    }
    return total;
  }

  /** Temperature of the air in a node, K. */
  temperatureAt(node: number, state: Float64Array): number {
    if (node === OUTSIDE) return this.outsideK;
    const place = this.tables.heat[node]!;
    return place >= 0 ? state[place]! : this.outsideK + this.warmer[node]!;
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
    this.readIn(state);
    this.open();
    const { active, figures, inflow, air, flows, far } = this;
    const last = this.activeCount * PACKED;
    const lastOfTanks = this.tankCount * PACKED;
    for (let n = 0, f = 0; n < last; n += PACKED, f += FIGURES) {
      const open = figures[f + 2]! + figures[f + 3]! * far[active[n + 3]!]! * far[active[n + 4]!]!;
      if (open === 0) {
        flows[active[n]!] = 0;
        continue;
      }
      const a = active[n + 1]!;
      const b = active[n + 2]!;
      const pa = air[a * AIR]!;
      const pb = air[b * AIR]!;
      const k = open * figures[f]!;
      const forwards = pa >= pb;
      const up = (forwards ? a : b) * AIR;
      const passed =
        flowPa(forwards ? pa : pb, forwards ? pb : pa, figures[f + 1]!, figures[f + 4]) *
        k *
        air[up + 2]!;
      const flow = forwards ? passed : -passed;
      flows[active[n]!] = flow;
      inflow[a * 2] = inflow[a * 2]! - flow;
      inflow[b * 2] = inflow[b * 2]! + flow;
      // What is carried counts where the air is as warm as it has come to be.
      if (n >= lastOfTanks) continue;
      const carried = flow * air[up + 1]!;
      inflow[a * 2 + 1] = inflow[a * 2 + 1]! - carried;
      inflow[b * 2 + 1] = inflow[b * 2 + 1]! + carried;
    }
    const { compressor } = this.network;
    if (compressor && this.turns > 0) {
      compressorAt(compressor, this, state, this.delivered);
      add(inflow, compressor.into * 2, this.delivered.kgPerS);
    }
    for (let n = 0; n < this.leaking.length; n += 1) {
      const i = this.leaking[n]!;
      const pressure = air[i * AIR]!;
      if (pressure <= this.outsidePa) continue;
      const lost =
        flowPa(pressure, this.outsidePa, LEAK_RATIO, LEAK_STEEP) *
        this.leak[i]! *
        air[i * AIR + 2]!;
      add(inflow, i * 2, -lost);
      add(inflow, i * 2 + 1, -lost * air[i * AIR + 1]!);
    }
    this.rateAll(out);
  }

  /** As `rates`, and leaves the derivatives of the rates in `jacobian`, by the slots of `lu`. */
  linearise(state: Float64Array, out: Float64Array, jacobian: Float64Array): void {
    this.evaluations += 1;
    this.readIn(state);
    this.open();
    jacobian.fill(0);
    const { inflow, air, at, byMass, warmth, chill, delivered } = this;
    const { own, heat, pressureByHeat, heatByPressure, tanks, lu } = this.tables;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const warm = air[i * AIR + 1]!;
      warmth[i] = warm / air[i * AIR]!;
      chill[i] = (R_AIR * warm * warm) / (air[i * AIR]! * this.volume[i]!);
    }
    this.addElements(jacobian);
    const { compressor } = this.network;
    if (compressor && this.turns > 0) {
      compressorAt(compressor, this, state, delivered);
      const { into, unloader } = compressor;
      add(inflow, into * 2, delivered.kgPerS);
      add(jacobian, own[into]!, byMass[into]! * delivered.byDelivery);
      add(jacobian, lu.slotOf(into, unloader), byMass[into]! * delivered.byUnloader);
    }
    for (let n = 0; n < this.leaking.length; n += 1) {
      const i = this.leaking[n]!;
      const pressure = air[i * AIR]!;
      if (pressure <= this.outsidePa) continue;
      const warm = air[i * AIR + 1]!;
      flowAt(pressure, this.outsidePa, LEAK_RATIO, LEAK_STEEP, at);
      const k = this.leak[i]! * air[i * AIR + 2]!;
      const lost = k * at.value;
      const by = k * at.byUpstream;
      add(inflow, i * 2, -lost);
      add(inflow, i * 2 + 1, -lost * warm);
      const place = heat[i]!;
      if (place < 0) {
        add(jacobian, own[i]!, -byMass[i]! * by);
        continue;
      }
      const gain = byMass[i]! * warm;
      add(jacobian, own[i]!, -gain * by);
      add(jacobian, heatByPressure[i]!, -(warmth[i]! * gain - chill[i]!) * by);
      this.addWarmth(i, jacobian, -lost, pressureByHeat[i]!, own[place]!, warm);
    }
    this.rateAll(out);
    const { moving } = this.strokes;
    for (let n = 0; n < moving.length; n += 1) {
      const i = moving[n]!;
      const bent = this.strokes.capacitySlope(n, air[i * AIR]!, this.outsidePa);
      if (bent === 0) continue;
      const capacity = (R_AIR * air[i * AIR + 1]!) / byMass[i]!;
      add(jacobian, own[i]!, (-out[i]! * bent) / capacity);
    }
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const warm = air[i * AIR + 1]!;
      const pressure = air[i * AIR]!;
      const mass = inflow[i * 2]!;
      const cooled = ((GAMMA - 1) * this.wall[i]!) / this.volume[i]!;
      const rise = out[i]!;
      add(jacobian, pressureByHeat[i]!, -cooled);
      add(
        jacobian,
        heatByPressure[i]!,
        (chill[i]! / pressure) * mass - (warm / (pressure * pressure)) * rise,
      );
      add(
        jacobian,
        own[heat[i]!]!,
        rise / pressure - warmth[i]! * cooled - ((2 * chill[i]!) / warm) * mass,
      );
    }
    for (let f = 0; f < this.asked.length; f += 1) {
      jacobian[own[this.nodeCount + f]!] = -1 / this.lag[f]!;
    }
  }

  /** What each element adds to the inflows, and to the rates' derivatives. */
  private addElements(jacobian: Float64Array): void {
    const { active, figures, air, inflow, at, far, bend, flows } = this;
    const { byMass, warmth, chill } = this;
    const { heat, slots } = this.tables;
    const last = this.activeCount * PACKED;
    const lastOfTanks = this.tankCount * PACKED;
    for (let n = 0, f = 0; n < last; n += PACKED, f += FIGURES) {
      const e = active[n]!;
      const o1 = active[n + 3]!;
      const o2 = active[n + 4]!;
      const range = figures[f + 3]!;
      const open = figures[f + 2]! + range * far[o1]! * far[o2]!;
      if (open === 0) {
        flows[e] = 0;
        continue;
      }
      const a = active[n + 1]!;
      const b = active[n + 2]!;
      const pa = air[a * AIR]!;
      const pb = air[b * AIR]!;
      const forwards = pa >= pb;
      const up = forwards ? a : b;
      const warm = air[up * AIR + 1]!;
      flowAt(forwards ? pa : pb, forwards ? pb : pa, figures[f + 1]!, figures[f + 4]!, at);
      const k = (forwards ? figures[f]! : -figures[f]!) * air[up * AIR + 2]!;
      const full = k * at.value;
      const flow = full * open;
      flows[e] = flow;
      add(inflow, a * 2, -flow);
      add(inflow, b * 2, flow);
      const byUp = k * open * at.byUpstream;
      const byDown = k * open * at.byDownstream;
      const byA = forwards ? byUp : byDown;
      const byB = forwards ? byDown : byUp;
      const s = e * ROWS * ROWS;
      const by1 = full * range * bend[o1]! * far[o2]!;
      const by2 = full * range * bend[o2]! * far[o1]!;
      if (n >= lastOfTanks) {
        const rowA = byMass[a]!;
        const rowB = byMass[b]!;
        add(jacobian, slots[s]!, -rowA * byA);
        add(jacobian, slots[s + 1]!, -rowA * byB);
        add(jacobian, slots[s + 8]!, rowB * byA);
        add(jacobian, slots[s + 9]!, rowB * byB);
        if (by1 !== 0) this.addControls(jacobian, o1, by1, rowA, rowB, 0, 0);
        if (by2 !== 0) this.addControls(jacobian, o2, by2, rowA, rowB, 0, 0);
        continue;
      }
      add(inflow, a * 2 + 1, -flow * warm);
      add(inflow, b * 2 + 1, flow * warm);

      const tankA = heat[a]! >= 0;
      const tankB = heat[b]! >= 0;
      // By what a kg/s out of the first and into the second changes their rates; a tank's by what it carries.
      const rowA = tankA ? byMass[a]! * warm : byMass[a]!;
      const rowB = tankB ? byMass[b]! * warm : byMass[b]!;
      const heatA = tankA ? warmth[a]! * rowA - chill[a]! : 0;
      const heatB = tankB ? warmth[b]! * rowB - chill[b]! : 0;
      add(jacobian, slots[s]!, -rowA * byA);
      add(jacobian, slots[s + 1]!, -rowA * byB);
      add(jacobian, slots[s + 8]!, rowB * byA);
      add(jacobian, slots[s + 9]!, rowB * byB);
      if (tankA) {
        add(jacobian, slots[s + 4]!, -heatA * byA);
        add(jacobian, slots[s + 5]!, -heatA * byB);
      }
      if (tankB) {
        add(jacobian, slots[s + 12]!, heatB * byA);
        add(jacobian, slots[s + 13]!, heatB * byB);
      }
      if (by1 !== 0) this.addControls(jacobian, o1, by1, rowA, rowB, heatA, heatB);
      if (by2 !== 0) this.addControls(jacobian, o2, by2, rowA, rowB, heatA, heatB);
      if (heat[up]! >= 0) {
        const column = s + (forwards ? 2 : 3);
        if (tankA) this.addWarmth(a, jacobian, -flow, slots[column]!, slots[column + 4]!, warm);
        else add(jacobian, slots[column]!, (rowA * flow) / (2 * warm));
        if (tankB) this.addWarmth(b, jacobian, flow, slots[column + 8]!, slots[column + 12]!, warm);
        else add(jacobian, slots[column + 8]!, (-rowB * flow) / (2 * warm));
      }
    }
  }

  /** What the places that drive an opening add, by the rows of its element. */
  private addControls(
    jacobian: Float64Array,
    o: number,
    by: number,
    rowA: number,
    rowB: number,
    heatA: number,
    heatB: number,
  ): void {
    const { controlStart, controlWeight, controlSlots } = this.tables;
    const last = controlStart[o + 1]!;
    for (let c = controlStart[o]!; c < last; c += 1) {
      const change = by * controlWeight[c]!;
      const s = c * ROWS;
      add(jacobian, controlSlots[s]!, -rowA * change);
      add(jacobian, controlSlots[s + 2]!, rowB * change);
      // Behind all slots where the end is no tank.
      add(jacobian, controlSlots[s + 1]!, -heatA * change);
      add(jacobian, controlSlots[s + 3]!, heatB * change);
    }
  }

  /**
   * What the upstream temperature does to a tank by a flow into it: the flow falls with the temperature's root, the
   * heat it carries rises with it.
   */
  private addWarmth(
    tank: number,
    jacobian: Float64Array,
    flow: number,
    pressureSlot: number,
    heatSlot: number,
    warm: number,
  ): void {
    const byCarried = 0.5 * this.byMass[tank]! * flow;
    add(jacobian, pressureSlot, byCarried);
    add(
      jacobian,
      heatSlot,
      this.warmth[tank]! * byCarried + (this.chill[tank]! * flow) / (2 * warm),
    );
  }

  /** Rates of every place from what flows into it. */
  private rateAll(out: Float64Array): void {
    const { air, inflow, byMass, nodeCount } = this;
    const { tanks, heat } = this.tables;
    for (let i = 0; i < nodeCount; i += 1) out[i] = byMass[i]! * inflow[i * 2]!;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const pressure = air[i * AIR]!;
      const warm = air[i * AIR + 1]!;
      const volume = this.volume[i]!;
      const cooled = ((GAMMA - 1) * this.wall[i]!) / volume;
      const rise = byMass[i]! * inflow[i * 2 + 1]! - cooled * (warm - this.outsideK);
      out[i] = rise;
      out[heat[i]!] =
        (warm / pressure) * rise - ((R_AIR * warm * warm) / (pressure * volume)) * inflow[i * 2]!;
    }
    for (let f = 0; f < this.asked.length; f += 1) {
      const i = nodeCount + f;
      out[i] = (this.asked[f]! + this.outsidePa - air[i * AIR]!) / this.lag[f]!;
    }
  }

  /** Takes a state in: pressures, and what they and the temperatures of the tanks make of the places. */
  private readIn(state: Float64Array): void {
    const { air, byMass, strokes, outsidePa } = this;
    const { tanks, heat } = this.tables;
    const pressures = this.nodeCount + this.asked.length;
    for (let i = 0; i < pressures; i += 1) air[i * AIR] = state[i]!;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const warm = state[heat[i]!]!;
      air[i * AIR + 1] = warm;
      air[i * AIR + 2] = RHO_REFERENCE * Math.sqrt(T_REFERENCE_K / warm);
    }
    const { moving } = strokes;
    for (let n = 0; n < moving.length; n += 1) {
      const i = moving[n]!;
      byMass[i] = (R_AIR * air[i * AIR + 1]!) / strokes.capacity(n, state[i]!, outsidePa);
    }
    this.inflow.fill(0);
  }

  /** How far each opening is open at the pressures taken in, and how that changes. */
  private open(): void {
    const { driven, drives, far, bend, air } = this;
    const last = driven.length;
    for (let n = 0, f = 0; n < last; n += DRIVEN, f += DRIVES) {
      let x =
        drives[f]! + drives[f + 1]! * air[driven[n + 1]!]! + drives[f + 2]! * air[driven[n + 2]!]!;
      if (n >= this.wideFrom) x += this.driveBeyond(driven[n]!);
      const inside = x > 0 && x < 1;
      far[driven[n]!] = inside ? x * x * (3 - 2 * x) : x > 0 ? 1 : 0;
      bend[driven[n]!] = inside ? 6 * x * (1 - x) : 0;
    }
  }

  /** What the places after the second add to an opening's drive. */
  private driveBeyond(o: number): number {
    const { controlStart, controlNode, controlWeight } = this.tables;
    let sum = 0;
    for (let c = controlStart[o]! + 2; c < controlStart[o + 1]!; c += 1) {
      sum += controlWeight[c]! * this.air[controlNode[c]! * AIR]!;
    }
    return sum;
  }

  /** Packs the openings of the elements that can pass anything: their first two places, and those with more last. */
  private packOpenings(openings: readonly number[]): void {
    const { controlStart, controlNode, controlWeight } = this.tables;
    const count = (o: number) => controlStart[o + 1]! - controlStart[o]!;
    const ordered = [
      ...openings.filter((o) => count(o) <= 2),
      ...openings.filter((o) => count(o) > 2),
    ];
    this.wideFrom = openings.filter((o) => count(o) <= 2).length * DRIVEN;
    this.driven = Int32Array.from(
      ordered.flatMap((o) => {
        const c = controlStart[o]!;
        return [o, controlNode[c]! * AIR, count(o) > 1 ? controlNode[c + 1]! * AIR : 0];
      }),
    );
    this.drives = Float64Array.from(
      ordered.flatMap((o) => {
        const c = controlStart[o]!;
        return [this.shift[o]!, controlWeight[c]!, count(o) > 1 ? controlWeight[c + 1]! : 0];
      }),
    );
  }
}

function add(values: Float64Array, slot: number, by: number): void {
  values[slot] = values[slot]! + by;
}
