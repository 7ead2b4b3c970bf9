/* eslint-disable @typescript-eslint/prefer-for-of -- walked by index: an iterator costs more than what is done here. */
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
  /** Nodes that leak. */
  leaking: Int32Array = new Int32Array(0);
  /** Openings of those ways, packed: which, and its first two places; and what drives it. */
  private driven: Int32Array = new Int32Array(0);
  private drives: Float64Array = new Float64Array(0);
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
  }

  /** Says that a setting was changed. */
  changed(): void {
    const { weightSum, band, from, to, critical, heat } = this.tables;
    const { settings, shift } = this;
    for (let o = 0; o < shift.length; o += 1) {
      shift[o] = (settings.bias[o]! - weightSum[o]! * settings.outsidePa) / band[o]!;
    }
    const alwaysOpen = shift.length;
    this.flows.fill(0);
    const passing = [...this.flows.keys()].filter((e) => this.canPass(e));
    const touchesTank = (e: number) => heat[from[e]!]! >= 0 || heat[to[e]!]! >= 0;
    const first = passing.filter(touchesTank);
    const packed = [...first, ...passing.filter((e) => !touchesTank(e))];
    packed.forEach((e, n) => {
      const [one = alwaysOpen, other = alwaysOpen] = this.openingsOf(e);
      this.active.set([e, from[e]!, to[e]!, one, other], n * PACKED);
      const least = settings.floor[e]!;
      const b = critical[e]!;
      this.constants.set(
        [settings.conductance[e]!, b, least, settings.ceiling[e]! - least, 1 / (1 - b)],
        n * CONSTANTS,
      );
    });
    this.tankCount = first.length;
    this.count = packed.length;
    this.packOpenings(packed.flatMap((e) => this.openingsOf(e)));
    this.leaking = Int32Array.from([...settings.leak.keys()].filter((i) => settings.leak[i]! > 0));
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
    const { driven, drives, far, openingSlope } = this;
    const last = driven.length;
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
    for (let n = 0; n < this.leaking.length; n += 1) {
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

  /** Packs openings: their first two places, and those with more last. */
  private packOpenings(openings: readonly number[]): void {
    const { controlStart, controlNode, controlWeight } = this.tables;
    const count = (o: number) => controlStart[o + 1]! - controlStart[o]!;
    const narrow = openings.filter((o) => count(o) <= 2);
    const ordered = [...narrow, ...openings.filter((o) => count(o) > 2)];
    this.wideFrom = narrow.length * DRIVEN;
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
