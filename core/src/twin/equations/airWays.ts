import { AIR, type AirPlaces, type Outside } from './airPlaces';
import type { AirTables } from './airTables';
import { flowPa } from './flow';

/** Critical ratio of a hole with sharp edges, and 1/(1 − b) of that. */
export const LEAK_RATIO = 0.5;
export const LEAK_STEEP = 1 / (1 - LEAK_RATIO);

/** Numbers kept of each way that can pass anything, and of each opening. */
export const PACKED = 5;
export const CONSTANTS = 5;
const DRIVEN = 3;

/** What devices, hands and faults may change of the ways. */
export interface WaySettings extends Outside {
  /** By element: sonic conductance, m³/(s·Pa). */
  readonly conductance: Float64Array;
  /** By element: least opening, 0 to 1: a seat that does not close. */
  readonly floor: Float64Array;
  /** By element: most opening: a passage partly blocked, or a valve that does not open. */
  readonly ceiling: Float64Array;
  /** By opening: Pa. */
  readonly bias: Float64Array;
  /** By node: conductance of a leak to outside air, m³/(s·Pa). */
  readonly leak: Float64Array;
}

/** The ways that can pass anything at all, packed, so that those that are shut for good cost nothing. */
export class AirWays {
  /** Flow through each element at the last evaluation, kg/s from its first node to its second. */
  readonly flows: Float64Array;
  /** By opening: how far it opens, and how that changes with the sum that drives it; one more is always open. */
  readonly far: Float64Array;
  readonly openingSlope: Float64Array;
  /** By packed way, five each: its element, its ends, and its two openings. */
  readonly active: Int32Array;
  /** By packed way, five each: conductance, critical ratio b, least opening, what more it opens, 1/(1 − b). */
  readonly constants: Float64Array;
  count = 0;
  /** So many of them, the first, have a tank at an end. */
  tankCount = 0;
  /** Nodes that leak: so many of them. */
  readonly leaking: Int32Array;
  leakCount = 0;
  /** Openings of those ways, packed: which, and its first two places; what drives it; and how long that list is. */
  private readonly opened: Int32Array;
  private readonly drives: Float64Array;
  private driven = 0;
  /** From here on openings have more places than two. */
  private wideFrom = 0;
  /** By opening: bias less outside air, over the band. */
  private readonly shift: Float64Array;

  constructor(
    private readonly tables: AirTables,
    private readonly settings: WaySettings,
  ) {
    const elements = tables.from.length;
    const openings = tables.band.length;
    this.flows = new Float64Array(elements);
    this.shift = new Float64Array(openings);
    this.far = new Float64Array(openings + 1).fill(1);
    this.openingSlope = new Float64Array(openings + 1);
    this.active = new Int32Array(elements * PACKED);
    this.constants = new Float64Array(elements * CONSTANTS);
    this.leaking = new Int32Array(tables.nodeCount);
    this.opened = new Int32Array(openings * DRIVEN);
    this.drives = new Float64Array(openings * DRIVEN);
  }

  /** Says that a setting was changed. */
  changed(): void {
    const { weightSum, band, from, to, heat } = this.tables;
    const { settings, shift } = this;
    for (let o = 0; o < shift.length; o += 1) {
      shift[o] = (settings.bias[o]! - weightSum[o]! * settings.outsidePa) / band[o]!;
    }
    this.flows.fill(0);
    this.count = 0;
    this.driven = 0;
    // Ways at a tank first, and openings of more than two places last: each kind has a loop of its own.
    for (const atTank of [true, false]) {
      for (let e = 0; e < from.length; e += 1) {
        if (!this.canPass(e)) continue;
        if ((heat[from[e]!]! >= 0 || heat[to[e]!]! >= 0) === atTank) this.pack(e);
      }
      if (atTank) this.tankCount = this.count;
    }
    this.packOpenings(false);
    this.wideFrom = this.driven;
    this.packOpenings(true);
    this.leakCount = 0;
    for (let i = 0; i < settings.leak.length; i += 1) {
      if (settings.leak[i]! > 0) this.leaking[this.leakCount++] = i;
    }
  }

  private pack(e: number): void {
    const { from, to, critical, openingStart } = this.tables;
    const { active, constants, settings } = this;
    const alwaysOpen = this.shift.length;
    const start = openingStart[e]!;
    const openings = openingStart[e + 1]! - start;
    const n = this.count * PACKED;
    active[n] = e;
    active[n + 1] = from[e]!;
    active[n + 2] = to[e]!;
    active[n + 3] = openings > 0 ? start : alwaysOpen;
    active[n + 4] = openings > 1 ? start + 1 : alwaysOpen;
    const least = settings.floor[e]!;
    const b = critical[e]!;
    const f = this.count * CONSTANTS;
    constants[f] = settings.conductance[e]!;
    constants[f + 1] = b;
    constants[f + 2] = least;
    constants[f + 3] = settings.ceiling[e]! - least;
    constants[f + 4] = 1 / (1 - b);
    this.count += 1;
  }

  /** How far an element was open at the last evaluation, 0 to 1. */
  openOf(e: number): number {
    if (!this.canPass(e)) return 0;
    const open = this.openingsOf(e).reduce((share, o) => share * this.far[o]!, 1);
    const least = this.settings.floor[e]!;
    return least + (this.settings.ceiling[e]! - least) * open;
  }

  /** How far each opening is open at the pressures of the places, and how that changes. */
  open({ air }: AirPlaces): void {
    const { opened: driven, drives, far, openingSlope } = this;
    const last = this.driven;
    for (let n = 0; n < last; n += DRIVEN) {
      let x =
        drives[n]! + drives[n + 1]! * air[driven[n + 1]!]! + drives[n + 2]! * air[driven[n + 2]!]!;
      if (n >= this.wideFrom) x += this.driveBeyond(driven[n]!, air);
      const inside = x > 0 && x < 1;
      far[driven[n]!] = inside ? x * x * (3 - 2 * x) : x > 0 ? 1 : 0;
      openingSlope[driven[n]!] = inside ? 6 * x * (1 - x) : 0;
    }
  }

  /** Lets flow what flows: through each way, and out of each leak. */
  pass({ air, inflow }: AirPlaces): void {
    const { active, constants, flows, far } = this;
    const last = this.count * PACKED;
    const lastOfTanks = this.tankCount * PACKED;
    for (let n = 0, f = 0; n < last; n += PACKED, f += CONSTANTS) {
      const open =
        constants[f + 2]! + constants[f + 3]! * far[active[n + 3]!]! * far[active[n + 4]!]!;
      if (open === 0) {
        flows[active[n]!] = 0;
        continue;
      }
      const a = active[n + 1]!;
      const b = active[n + 2]!;
      const pa = air[a * AIR]!;
      const pb = air[b * AIR]!;
      const k = open * constants[f]!;
      const forwards = pa >= pb;
      const up = (forwards ? a : b) * AIR;
      const value = flowPa(
        forwards ? pa : pb,
        forwards ? pb : pa,
        constants[f + 1]!,
        constants[f + 4],
      );
      const passed = value * k * air[up + 2]!;
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
    const { outsidePa, leak } = this.settings;
    for (let n = 0; n < this.leakCount; n += 1) {
      const i = this.leaking[n]!;
      const pressure = air[i * AIR]!;
      if (pressure <= outsidePa) continue;
      const lost =
        flowPa(pressure, outsidePa, LEAK_RATIO, LEAK_STEEP) * leak[i]! * air[i * AIR + 2]!;
      inflow[i * 2] = inflow[i * 2]! - lost;
      inflow[i * 2 + 1] = inflow[i * 2 + 1]! - lost * air[i * AIR + 1]!;
    }
  }

  private canPass(e: number): boolean {
    return this.settings.conductance[e]! > 0 && this.settings.ceiling[e]! > 0;
  }

  private openingsOf(e: number): number[] {
    const start = this.tables.openingStart[e]!;
    const count = this.tables.openingStart[e + 1]! - start;
    return Array.from({ length: count }, (_, i) => start + i);
  }

  /** What the places after the second add to an opening's drive. */
  private driveBeyond(o: number, air: Float64Array): number {
    const { controlStart, controlNode, controlWeight } = this.tables;
    let sum = 0;
    for (let c = controlStart[o]! + 2; c < controlStart[o + 1]!; c += 1) {
      sum += controlWeight[c]! * air[controlNode[c]! * AIR]!;
    }
    return sum;
  }

  /** Packs the openings of the packed ways that have more than two places, or those that have not. */
  private packOpenings(wide: boolean): void {
    const { controlStart, controlNode, controlWeight } = this.tables;
    const { active, opened, drives, shift } = this;
    for (let n = 0; n < this.count; n += 1) {
      for (let slot = 3; slot < PACKED; slot += 1) {
        const o = active[n * PACKED + slot]!;
        if (o === shift.length) continue;
        const c = controlStart[o]!;
        const count = controlStart[o + 1]! - c;
        if (count > 2 !== wide) continue;
        const at = this.driven;
        opened[at] = o;
        opened[at + 1] = controlNode[c]! * AIR;
        opened[at + 2] = count > 1 ? controlNode[c + 1]! * AIR : 0;
        drives[at] = shift[o]!;
        drives[at + 1] = controlWeight[c]!;
        drives[at + 2] = count > 1 ? controlWeight[c + 1]! : 0;
        this.driven += DRIVEN;
      }
    }
  }
}
