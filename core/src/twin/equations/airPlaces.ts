/* eslint-disable @typescript-eslint/prefer-for-of -- walked by index: an iterator costs more than what is done here. */
import { R_AIR, GAMMA } from '../../gas/orifice';
import type { AirTables } from './airTables';
import { RHO_REFERENCE, T_REFERENCE_K } from './flow';
import { OUTSIDE, type Network } from '../network/network';
import { Strokes } from './strokes';

/** Numbers kept of each place's air. */
export const AIR = 3;

/** Outside air. */
export interface Outside {
  outsidePa: number;
  outsideK: number;
}

/** The air in each place of a network, what flows into it, and how its pressure and temperature change by that. */
export class AirPlaces {
  /** By place, outside air last, three each: pressure, temperature, and reference density times √(T₀/T). */
  readonly air: Float64Array;
  /** By place, two each: mass that flows in, kg/s, and that times its temperature. */
  readonly inflow: Float64Array;
  /** By node: R·T over its volume where nothing moves in it; written over where something does. */
  readonly byMass: Float64Array;
  readonly volume: Float64Array;
  /** By tank: pressure it loses for each kelvin over outside air, Pa/(s·K). */
  readonly cooling: Float64Array;
  readonly strokes: Strokes;
  private readonly warmer: Float64Array;

  constructor(
    { nodes }: Network,
    private readonly tables: AirTables,
    private readonly outside: Outside,
  ) {
    const { size } = tables;
    this.air = new Float64Array((size + 1) * AIR);
    this.inflow = new Float64Array((size + 1) * 2);
    this.byMass = new Float64Array(size + 1);
    this.strokes = new Strokes(nodes);
    this.volume = Float64Array.from(nodes, (node) => node.volumeM3);
    this.warmer = Float64Array.from(nodes, (node) => node.warmerByK);
    this.cooling = Float64Array.from(
      nodes,
      (node) => ((GAMMA - 1) * (node.wallWPerK ?? 0)) / node.volumeM3,
    );
  }

  /** Says that outside air was changed. */
  changed(): void {
    const { air, volume, outside } = this;
    const { size, nodeCount, heat } = this.tables;
    for (let i = 0; i <= size; i += 1) {
      const warm = outside.outsideK + (this.warmer[i] ?? 0);
      air[i * AIR] = outside.outsidePa;
      air[i * AIR + 1] = warm;
      air[i * AIR + 2] = RHO_REFERENCE * Math.sqrt(T_REFERENCE_K / warm);
    }
    for (let i = 0; i < nodeCount; i += 1) {
      const isTank = heat[i]! >= 0;
      this.byMass[i] = (isTank ? GAMMA * R_AIR : R_AIR * air[i * AIR + 1]!) / volume[i]!;
    }
  }

  /** Takes a state in: pressures, and what they and the temperatures of the tanks make of the places. */
  readIn(state: Float64Array): void {
    const { air, byMass, strokes } = this;
    const { outsidePa } = this.outside;
    const { tanks, heat, pressures } = this.tables;
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

  /** Rates of each node, and of the temperature of each tank, from what flows into it. */
  rates(out: Float64Array): void {
    const { air, inflow, byMass, volume, cooling } = this;
    const { outsideK } = this.outside;
    const { tanks, heat, nodeCount } = this.tables;
    for (let i = 0; i < nodeCount; i += 1) out[i] = byMass[i]! * inflow[i * 2]!;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const pressure = air[i * AIR]!;
      const warm = air[i * AIR + 1]!;
      const rise = byMass[i]! * inflow[i * 2 + 1]! - cooling[i]! * (warm - outsideK);
      out[i] = rise;
      out[heat[i]!] =
        (warm / pressure) * rise -
        ((R_AIR * warm * warm) / (pressure * volume[i]!)) * inflow[i * 2]!;
    }
  }

  /** Mass of air in all places, kg. */
  massKg(state: Float64Array): number {
    let total = 0;
    for (let i = 0; i < this.tables.nodeCount; i += 1) {
      const volume = this.strokes.volumeAt(i, state[i]! - this.outside.outsidePa);
      total += (state[i]! * volume) / (R_AIR * this.temperatureAt(i, state));
    }
    return total;
  }

  /** Temperature of the air in a node, K. */
  temperatureAt(node: number, state: Float64Array): number {
    if (node === OUTSIDE) return this.outside.outsideK;
    const place = this.tables.heat[node]!;
    return place >= 0 ? state[place]! : this.outside.outsideK + this.warmer[node]!;
  }
}
