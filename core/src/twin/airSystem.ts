/* eslint-disable @typescript-eslint/prefer-for-of -- walked by index: an iterator costs more than what is done here. */
import { R_AIR, GAMMA } from '../gas/orifice';
import { flowAt, RHO_REFERENCE, T_REFERENCE_K, type FlowAt } from './flow';
import { FIRST_FOLLOWER, OUTSIDE, type Network } from './network';
import { SparseLu } from './sparseLu';

const CP_OVER_CV = GAMMA;
/** Polytropic exponent of a reciprocating compressor's clearance air; handbooks give 1.2 to 1.35. */
const CLEARANCE_EXPONENT = 1.3;
/** Gauge pressure over which an unloader goes from loaded to unloaded, Pa. */
const UNLOADER_BAND = 60_000;
/** Critical ratio of a hole with sharp edges. */
const LEAK_RATIO = 0.5;
/** A check for pressures that cannot be: no step of the solver may come near a vacuum. */
const LEAST_PA = 1_000;

/**
 * A network as flat tables, its equations and their derivatives.
 *
 * State: absolute pressure of each node, Pa; then what each follower asks for, Pa absolute; then the temperature
 * of each tank, K. Mass and energy of ideal air in each place:
 * tanks dp/dt = (γR/V)(Σ ṁT_in − TΣ ṁ_out) − (γ−1)/V·hA·(T − T_outside), dT/dt = (T/p)·dp/dt − (RT²/(pV))·Σṁ;
 * everywhere else at one temperature (V + p·dV/dp)·dp/dt = RT·Σṁ.
 */
export class AirSystem {
  readonly size: number;
  readonly nodeCount: number;
  readonly lu: SparseLu;

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
  /** Delivery of the compressor at the last evaluation, kg/s. */
  delivery = 0;
  /** Times the equations were evaluated. */
  evaluations = 0;

  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly critical: Float64Array;
  private readonly openingStart: Int32Array;
  private readonly band: Float64Array;
  private readonly controlStart: Int32Array;
  private readonly controlNode: Int32Array;
  private readonly controlWeight: Float64Array;
  /** By opening: sum of its weights, to take outside air off. */
  private readonly weightSum: Float64Array;
  /** By opening, ready for use: bias less outside air, over the band; its first two weights over the band. */
  private readonly shift: Float64Array;
  private readonly first: Int32Array;
  private readonly firstWeight: Float64Array;
  private readonly second: Int32Array;
  private readonly secondWeight: Float64Array;
  private readonly volume: Float64Array;
  private readonly stroke: Float64Array;
  private readonly strokeFrom: Float64Array;
  private readonly strokeTo: Float64Array;
  private readonly warmer: Float64Array;
  /** By node: place of its temperature in the state, or −1. */
  private readonly heat: Int32Array;
  private readonly wall: Float64Array;
  /** Places whose air may be warmer than outside. */
  private readonly tanks: Int32Array;

  /* Working places. Outside air stands behind the last place of the state, so that no element needs a question. */
  private readonly p: Float64Array;
  private readonly kelvin: Float64Array;
  /** Reference density times √(T₀/T) of each place's air, kg/m³. */
  private readonly density: Float64Array;
  private readonly inflow: Float64Array;
  private readonly heatFlow: Float64Array;
  /** By opening: how far along it is, and how far that opens it. */
  private readonly x: Float64Array;
  private readonly s: Float64Array;
  /** By place: its row among the tanks, or −1. */
  private readonly tankRow: Int32Array;
  /** By row of the matrix: columns that may differ from 0, as ranges. */
  private readonly patternStart: Int32Array;
  private readonly patternColumn: Int32Array;
  private readonly at: FlowAt = { value: 0, byUpstream: 0, byDownstream: 0 };
  private readonly jacobian: Float64Array;
  private readonly heatRows: Float64Array;
  private readonly slope: Float64Array;
  /** Elements that can pass anything at all. */
  private active: Int32Array;

  constructor(readonly network: Network) {
    const { nodes, elements, followers } = network;
    const n = nodes.length;
    this.nodeCount = n;
    const tanks = nodes.flatMap((node, i) => (node.wallWPerK === null ? [] : [i]));
    this.size = n + followers.length + tanks.length;
    this.tanks = Int32Array.from(tanks);
    this.heat = new Int32Array(n).fill(-1);
    tanks.forEach((node, i) => (this.heat[node] = n + followers.length + i));
    this.volume = Float64Array.from(nodes, (node) => node.volumeM3);
    this.stroke = Float64Array.from(nodes, (node) => node.strokeM3);
    this.strokeFrom = Float64Array.from(nodes, (node) => node.strokeFromPa);
    this.strokeTo = Float64Array.from(nodes, (node) => node.strokeToPa);
    this.warmer = Float64Array.from(nodes, (node) => node.warmerByK);
    this.wall = Float64Array.from(nodes, (node) => node.wallWPerK ?? 0);
    this.leak = new Float64Array(n);
    this.asked = new Float64Array(followers.length);
    this.lag = Float64Array.from(followers, (each) => each.lagS);

    const end = (node: number) => (node === OUTSIDE ? this.size : node);
    this.from = Int32Array.from(elements, (each) => end(each.from));
    this.to = Int32Array.from(elements, (each) => end(each.to));
    this.conductance = Float64Array.from(elements, (each) => each.conductance);
    this.critical = Float64Array.from(elements, (each) => each.criticalRatio);
    this.floor = new Float64Array(elements.length);
    this.ceiling = new Float64Array(elements.length).fill(1);
    this.flows = new Float64Array(elements.length);
    const openings = elements.flatMap((each) => each.openings);
    this.bias = Float64Array.from(openings, (each) => each.biasPa);
    this.band = Float64Array.from(openings, (each) => each.bandPa);
    this.openingStart = starts(elements.map((each) => each.openings.length));
    this.controlStart = starts(openings.map((each) => each.on.length));
    this.controlNode = Int32Array.from(
      openings.flatMap((each) => each.on.map(([node]) => this.stateOf(node))),
    );
    this.controlWeight = Float64Array.from(
      openings.flatMap((each) => each.on.map(([, weight]) => weight)),
    );
    this.weightSum = Float64Array.from(openings, (each) =>
      each.on.reduce((sum, [, weight]) => sum + weight, 0),
    );

    this.shift = new Float64Array(openings.length);
    const slot = (n: number) => ({
      places: Int32Array.from(openings, (each) => this.stateOf(each.on[n]?.[0] ?? 0)),
      weights: Float64Array.from(openings, (each) => (each.on[n]?.[1] ?? 0) / each.bandPa),
    });
    ({ places: this.first, weights: this.firstWeight } = slot(0));
    ({ places: this.second, weights: this.secondWeight } = slot(1));

    const { size } = this;
    this.p = new Float64Array(size + 1);
    this.kelvin = new Float64Array(size + 1);
    this.density = new Float64Array(size + 1);
    this.inflow = new Float64Array(size + 1);
    this.heatFlow = new Float64Array(size + 1);
    this.tankRow = new Int32Array(size + 1).fill(-1);
    tanks.forEach((node, i) => (this.tankRow[node] = i));
    this.jacobian = new Float64Array((size + 1) * (size + 1));
    this.heatRows = new Float64Array(tanks.length * (size + 1));
    this.x = new Float64Array(openings.length);
    this.s = new Float64Array(openings.length);
    this.slope = new Float64Array(openings.length);
    this.active = new Int32Array(0);
    const pattern = this.pattern();
    this.lu = new SparseLu(size, pattern);
    const columnsOf = Array.from({ length: size }, (_, i) =>
      Array.from({ length: size }, (_, j) => j).filter((j) => pattern[i * size + j]),
    );
    this.patternStart = starts(columnsOf.map((columns) => columns.length));
    this.patternColumn = Int32Array.from(columnsOf.flat());
    this.changed();
  }

  /** Place in the state of a node or of a follower. */
  stateOf(node: number): number {
    return node >= 0 ? node : this.nodeCount + FIRST_FOLLOWER - node;
  }

  /** Index of an element's first opening in `bias`. */
  openingOf(element: number): number {
    return this.openingStart[element]!;
  }

  /** Says that outside air, conductances, biases, floors or ceilings were changed. */
  changed(): void {
    for (let o = 0; o < this.shift.length; o += 1) {
      this.shift[o] = (this.bias[o]! - this.weightSum[o]! * this.outsidePa) / this.band[o]!;
    }
    for (let i = 0; i <= this.size; i += 1) {
      const warm = this.outsideK + (this.warmer[i] ?? 0);
      this.kelvin[i] = warm;
      this.density[i] = RHO_REFERENCE * Math.sqrt(T_REFERENCE_K / warm);
    }
    this.active = Int32Array.from(
      this.network.elements.flatMap((_, e) =>
        this.conductance[e]! > 0 && this.ceiling[e]! > 0 ? [e] : [],
      ),
    );
  }

  /** A state with one gauge pressure everywhere, or one for each node, at the temperature outside. */
  atRest(gaugePa: (name: string) => number): Float64Array {
    const state = new Float64Array(this.size);
    this.network.nodes.forEach((node, i) => (state[i] = this.outsidePa + gaugePa(node.name)));
    this.asked.forEach((_, i) => (state[this.nodeCount + i] = this.outsidePa));
    for (let i = 0; i < this.nodeCount; i += 1) {
      const place = this.heat[i]!;
      if (place >= 0) state[place] = this.outsideK;
    }
    return state;
  }

  /** Mass of air in all places, kg. */
  massKg(state: Float64Array): number {
    let total = 0;
    for (let i = 0; i < this.nodeCount; i += 1) {
      total += (state[i]! * this.volumeAt(i, state[i]!)) / (R_AIR * this.temperatureAt(i, state));
    }
    return total;
  }

  /** Temperature of the air in a node, K. */
  temperatureAt(node: number, state: Float64Array): number {
    if (node === OUTSIDE) return this.outsideK;
    const place = this.heat[node]!;
    return place >= 0 ? state[place]! : this.outsideK + this.warmer[node]!;
  }

  /** Volume of a node at an absolute pressure, m³. */
  volumeAt(node: number, pa: number): number {
    const stroke = this.stroke[node]!;
    const volume = this.volume[node]!;
    if (stroke === 0) return volume;
    const width = this.strokeTo[node]! - this.strokeFrom[node]!;
    const x = (pa - this.outsidePa - this.strokeFrom[node]!) / width;
    return volume + stroke * smooth(x);
  }

  /** Time derivative of `state`, into `out`. */
  rates(state: Float64Array, out: Float64Array): void {
    this.evaluations += 1;
    this.readIn(state);
    const { active, from, to, critical, conductance, inflow, heatFlow, p, kelvin, density, at } =
      this;
    for (let n = 0; n < active.length; n += 1) {
      const e = active[n]!;
      const open = this.opened(e);
      if (open === 0) {
        this.flows[e] = 0;
        continue;
      }
      const a = from[e]!;
      const b = to[e]!;
      const pa = p[a]!;
      const pb = p[b]!;
      const k = open * conductance[e]!;
      let flow: number;
      let carried: number;
      if (pa >= pb) {
        flowAt(pa, pb, critical[e]!, at);
        flow = at.value * k * density[a]!;
        carried = flow * kelvin[a]!;
      } else {
        flowAt(pb, pa, critical[e]!, at);
        flow = -at.value * k * density[b]!;
        carried = flow * kelvin[b]!;
      }
      this.flows[e] = flow;
      inflow[a] = inflow[a]! - flow;
      inflow[b] = inflow[b]! + flow;
      heatFlow[a] = heatFlow[a]! - carried;
      heatFlow[b] = heatFlow[b]! + carried;
    }
    const { compressor } = this.network;
    if (compressor) {
      this.delivery = this.deliveredAt(state, null);
      inflow[compressor.into] = inflow[compressor.into]! + this.delivery;
    }
    for (let i = 0; i < this.nodeCount; i += 1) {
      const pressure = p[i]!;
      const leak = this.leak[i]!;
      const warm = kelvin[i]!;
      let mass = inflow[i]!;
      let warmth = heatFlow[i]!;
      if (leak > 0 && pressure > this.outsidePa) {
        flowAt(pressure, this.outsidePa, LEAK_RATIO, at);
        const lost = at.value * leak * density[i]!;
        mass -= lost;
        warmth -= lost * warm;
      }
      const place = this.heat[i]!;
      if (place < 0) {
        out[i] = (R_AIR * warm * mass) / this.capacity(i, pressure);
        continue;
      }
      const volume = this.volume[i]!;
      const cooled = ((CP_OVER_CV - 1) * this.wall[i]!) / volume;
      const rise = ((CP_OVER_CV * R_AIR) / volume) * warmth - cooled * (warm - this.outsideK);
      out[i] = rise;
      out[place] = (warm / pressure) * rise - ((R_AIR * warm * warm) / (pressure * volume)) * mass;
    }
    for (let f = 0; f < this.asked.length; f += 1) {
      const i = this.nodeCount + f;
      out[i] = (this.asked[f]! + this.outsidePa - p[i]!) / this.lag[f]!;
    }
  }

  /** The matrix `diagonal`·I − J at `state`, into `out` (full, row by row). */
  iterationMatrix(state: Float64Array, diagonal: number, out: Float64Array): void {
    this.readIn(state);
    const { jacobian, heatRows, size, inflow, heatFlow, at, p, kelvin, density } = this;
    const wide = size + 1;
    jacobian.fill(0);
    heatRows.fill(0);
    out.fill(0);
    // Rows of `jacobian` are the derivatives of each place's inflow, those of `heatRows` of what that carries.
    this.addElements();
    const { compressor } = this.network;
    if (compressor) {
      const row = compressor.into * wide;
      const delivered = this.deliveredAt(state, (node, by) => {
        jacobian[row + node] = jacobian[row + node]! + by;
      });
      inflow[compressor.into] = inflow[compressor.into]! + delivered;
    }
    for (let i = 0; i < this.nodeCount; i += 1) {
      const pressure = p[i]!;
      const place = this.heat[i]!;
      const warm = kelvin[i]!;
      const row = i * size;
      const from = i * wide;
      const leak = this.leak[i]!;
      const hot = this.tankRow[i]! * wide;
      if (leak > 0 && pressure > this.outsidePa) {
        flowAt(pressure, this.outsidePa, LEAK_RATIO, at);
        const k = leak * density[i]!;
        inflow[i] = inflow[i]! - k * at.value;
        jacobian[from + i] = jacobian[from + i]! - k * at.byUpstream;
        if (place >= 0) {
          heatFlow[i] = heatFlow[i]! - k * at.value * warm;
          heatRows[hot + i] = heatRows[hot + i]! - k * at.byUpstream * warm;
          jacobian[from + place] = jacobian[from + place]! + (k * at.value) / (2 * warm);
          heatRows[hot + place] = heatRows[hot + place]! - 0.5 * k * at.value;
        }
      }
      const mass = inflow[i]!;
      const first = this.patternStart[i]!;
      const last = this.patternStart[i + 1]!;
      if (place < 0) {
        const capacity = this.capacity(i, pressure);
        const scale = (R_AIR * warm) / capacity;
        for (let c = first; c < last; c += 1) {
          const j = this.patternColumn[c]!;
          out[row + j] = -scale * jacobian[from + j]!;
        }
        out[row + i] =
          out[row + i]! + (scale * mass * this.capacitySlope(i, pressure)) / capacity + diagonal;
        continue;
      }
      const volume = this.volume[i]!;
      const gain = (CP_OVER_CV * R_AIR) / volume;
      const cooled = ((CP_OVER_CV - 1) * this.wall[i]!) / volume;
      const rise = gain * heatFlow[i]! - cooled * (warm - this.outsideK);
      const share = (R_AIR * warm * warm) / (pressure * volume);
      const below = place * size;
      for (let c = first; c < last; c += 1) {
        const j = this.patternColumn[c]!;
        const byPressure = gain * heatRows[hot + j]! - (j === place ? cooled : 0);
        out[row + j] = -byPressure;
        out[below + j] = share * jacobian[from + j]! - (warm / pressure) * byPressure;
      }
      out[row + i] = out[row + i]! + diagonal;
      out[below + i] =
        out[below + i]! + (warm / (pressure * pressure)) * rise - (share / pressure) * mass;
      out[below + place] =
        out[below + place]! - rise / pressure + ((2 * share) / warm) * mass + diagonal;
    }
    for (let f = 0; f < this.asked.length; f += 1) {
      const i = this.nodeCount + f;
      out[i * size + i] = diagonal + 1 / this.lag[f]!;
    }
  }

  /** What each element adds to the inflows and to their derivatives. */
  private addElements(): void {
    const { active, from, to, critical, conductance, jacobian, heatRows, tankRow, size } = this;
    const { p, kelvin, density, inflow, heatFlow, at, openingStart, slope, heat } = this;
    const wide = size + 1;
    for (let n = 0; n < active.length; n += 1) {
      const e = active[n]!;
      const open = this.openedWithSlopes(e);
      if (open < 0) continue;
      const a = from[e]!;
      const b = to[e]!;
      const forwards = p[a]! >= p[b]!;
      const sign = forwards ? 1 : -1;
      const up = forwards ? a : b;
      const down = forwards ? b : a;
      const warm = kelvin[up]!;
      flowAt(p[up]!, p[down]!, critical[e]!, at);
      const k = sign * conductance[e]! * density[up]!;
      const full = k * at.value;
      const flow = full * open;
      inflow[a] = inflow[a]! - flow;
      inflow[b] = inflow[b]! + flow;
      heatFlow[a] = heatFlow[a]! - flow * warm;
      heatFlow[b] = heatFlow[b]! + flow * warm;

      const rowA = a * wide;
      const rowB = b * wide;
      const byUp = k * open * at.byUpstream;
      const byDown = k * open * at.byDownstream;
      jacobian[rowA + up] = jacobian[rowA + up]! - byUp;
      jacobian[rowA + down] = jacobian[rowA + down]! - byDown;
      jacobian[rowB + up] = jacobian[rowB + up]! + byUp;
      jacobian[rowB + down] = jacobian[rowB + down]! + byDown;
      const hotA = tankRow[a]! * wide;
      const hotB = tankRow[b]! * wide;
      if (hotA >= 0) {
        heatRows[hotA + up] = heatRows[hotA + up]! - byUp * warm;
        heatRows[hotA + down] = heatRows[hotA + down]! - byDown * warm;
      }
      if (hotB >= 0) {
        heatRows[hotB + up] = heatRows[hotB + up]! + byUp * warm;
        heatRows[hotB + down] = heatRows[hotB + down]! + byDown * warm;
      }
      const lastOpening = openingStart[e + 1]!;
      for (let o = openingStart[e]!; o < lastOpening; o += 1) {
        const by = full * slope[o]!;
        if (by === 0) continue;
        const last = this.controlStart[o + 1]!;
        for (let c = this.controlStart[o]!; c < last; c += 1) {
          const j = this.controlNode[c]!;
          const change = by * this.controlWeight[c]!;
          jacobian[rowA + j] = jacobian[rowA + j]! - change;
          jacobian[rowB + j] = jacobian[rowB + j]! + change;
          if (hotA >= 0) heatRows[hotA + j] = heatRows[hotA + j]! - change * warm;
          if (hotB >= 0) heatRows[hotB + j] = heatRows[hotB + j]! + change * warm;
        }
      }
      const place = up < this.nodeCount ? heat[up]! : -1;
      if (place >= 0) {
        // Flow falls with the root of the temperature upstream; the heat it carries rises with it.
        const byKelvin = -flow / (2 * warm);
        jacobian[rowA + place] = jacobian[rowA + place]! - byKelvin;
        jacobian[rowB + place] = jacobian[rowB + place]! + byKelvin;
        const carried = byKelvin * warm + flow;
        if (hotA >= 0) heatRows[hotA + place] = heatRows[hotA + place]! - carried;
        if (hotB >= 0) heatRows[hotB + place] = heatRows[hotB + place]! + carried;
      }
    }
  }

  /** Takes a state in: pressures, and what the temperatures of the tanks make of them. */
  private readIn(state: Float64Array): void {
    const { p, kelvin, density, tanks, heat } = this;
    p.set(state);
    p[this.size] = this.outsidePa;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const warm = state[heat[i]!]!;
      kelvin[i] = warm;
      density[i] = RHO_REFERENCE * Math.sqrt(T_REFERENCE_K / warm);
    }
    this.inflow.fill(0);
    this.heatFlow.fill(0);
  }

  /** True where every value of a state is one that air can have. */
  holds(state: Float64Array): boolean {
    for (let i = 0; i < this.size; i += 1) {
      // Written so that what is not a number is caught as well.
      if (!(state[i]! > (i < this.nodeCount ? LEAST_PA : 0))) return false;
    }
    return true;
  }

  private opened(e: number): number {
    const last = this.openingStart[e + 1]!;
    let open = 1;
    for (let o = this.openingStart[e]!; o < last; o += 1) {
      const x = this.drive(o);
      if (x >= 1) continue;
      if (x <= 0) {
        open = 0;
        break;
      }
      open *= x * x * (3 - 2 * x);
    }
    const floor = this.floor[e]!;
    return floor + (this.ceiling[e]! - floor) * open;
  }

  /**
   * As `opened`, and leaves in `slope` how the opening changes with each sum that drives it.
   *
   * @returns −1 where it is shut and stays so
   */
  private openedWithSlopes(e: number): number {
    const { x, s, slope } = this;
    const first = this.openingStart[e]!;
    const last = this.openingStart[e + 1]!;
    const floor = this.floor[e]!;
    let shut = 0;
    let open = 1;
    for (let o = first; o < last; o += 1) {
      const along = this.drive(o);
      x[o] = along;
      const far = along <= 0 ? 0 : along >= 1 ? 1 : along * along * (3 - 2 * along);
      s[o] = far;
      if (far === 0) shut += 1;
      open *= far;
    }
    if (shut > 0) {
      for (let o = first; o < last; o += 1) slope[o] = 0;
      return floor === 0 ? -1 : floor;
    }
    const range = this.ceiling[e]! - floor;
    for (let o = first; o < last; o += 1) {
      const along = x[o]!;
      slope[o] =
        along >= 1 ? 0 : (range * open * 6 * along * (1 - along)) / (s[o]! * this.band[o]!);
    }
    return floor + range * open;
  }

  /** How far along an opening is: 0 shut, 1 open, and on beyond both. */
  private drive(o: number): number {
    const { p } = this;
    let sum =
      this.shift[o]! +
      this.firstWeight[o]! * p[this.first[o]!]! +
      this.secondWeight[o]! * p[this.second[o]!]!;
    const last = this.controlStart[o + 1]!;
    for (let c = this.controlStart[o]! + 2; c < last; c += 1) {
      sum += (this.controlWeight[c]! * p[this.controlNode[c]!]!) / this.band[o]!;
    }
    return sum;
  }

  /** V + p·dV/dp: air that a rise of pressure takes in, in m³. */
  private capacity(node: number, pa: number): number {
    const stroke = this.stroke[node]!;
    const volume = this.volume[node]!;
    if (stroke === 0) return volume;
    const width = this.strokeTo[node]! - this.strokeFrom[node]!;
    const x = (pa - this.outsidePa - this.strokeFrom[node]!) / width;
    if (x <= 0) return volume;
    if (x >= 1) return volume + stroke;
    return volume + stroke * (x * x * (3 - 2 * x) + (pa * 6 * x * (1 - x)) / width);
  }

  private capacitySlope(node: number, pa: number): number {
    const stroke = this.stroke[node]!;
    if (stroke === 0) return 0;
    const width = this.strokeTo[node]! - this.strokeFrom[node]!;
    const x = (pa - this.outsidePa - this.strokeFrom[node]!) / width;
    if (x <= 0 || x >= 1) return 0;
    return (stroke / width) * (12 * x * (1 - x) + (pa * 6 * (1 - 2 * x)) / width);
  }

  /** Mass the compressor delivers, kg/s, after its clearance has taken its share; unloaded it delivers none. */
  private deliveredAt(
    state: Float64Array,
    into: ((node: number, by: number) => void) | null,
  ): number {
    const { compressor } = this.network;
    if (!compressor || this.turns === 0) return 0;
    const density = this.outsidePa / (R_AIR * this.outsideK);
    const most = density * compressor.sweptM3 * this.turns * this.delivers;
    const p = Math.max(state[compressor.into]!, this.outsidePa);
    const raised = (p / this.outsidePa) ** (1 / CLEARANCE_EXPONENT);
    const filled = 1 - compressor.clearance * (raised - 1);
    if (filled <= 0) return 0;
    const over =
      (state[compressor.unloader]! - this.outsidePa - compressor.unloadsAtPa) / UNLOADER_BAND;
    const loaded = 1 - smooth(over);
    if (into) {
      into(
        compressor.into,
        (-most * loaded * compressor.clearance * raised) / (CLEARANCE_EXPONENT * p),
      );
      const x = Math.min(1, Math.max(0, over));
      into(compressor.unloader, (-most * filled * 6 * x * (1 - x)) / UNLOADER_BAND);
    }
    return most * filled * loaded;
  }

  /** Where a derivative may differ from 0. */
  private pattern(): boolean[] {
    const { size, heat } = this;
    const { elements, compressor } = this.network;
    const pattern = new Array<boolean>(size * size).fill(false);
    const depends = (row: number, column: number) => {
      if (row < 0 || column < 0) return;
      pattern[row * size + column] = true;
      const warm = heat[row]!;
      if (row < this.nodeCount && warm >= 0) pattern[warm * size + column] = true;
    };
    for (let i = 0; i < size; i += 1) pattern[i * size + i] = true;
    for (let i = 0; i < this.nodeCount; i += 1) {
      depends(i, i);
      depends(i, heat[i]!);
    }
    for (const { from, to, openings } of elements) {
      const ends = [from, to].filter((node) => node !== OUTSIDE);
      const causes = [
        ...ends,
        ...ends.map((node) => heat[node]!),
        ...openings.flatMap((each) => each.on.map(([node]) => this.stateOf(node))),
      ];
      for (const end of ends) for (const cause of causes) depends(end, cause);
    }
    if (compressor) depends(compressor.into, compressor.unloader);
    return pattern;
  }
}

function starts(lengths: readonly number[]): Int32Array {
  const out = new Int32Array(lengths.length + 1);
  lengths.forEach((length, i) => (out[i + 1] = out[i]! + length));
  return out;
}

/** 0 to 1 with no corner at either end. */
function smooth(x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  return x * x * (3 - 2 * x);
}
