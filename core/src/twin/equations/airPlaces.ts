/* eslint-disable @typescript-eslint/prefer-for-of -- walked by index: an iterator costs more than what is done here. */
import { R_AIR, GAMMA } from '../../gas/orifice';
import type { AirTables } from './airTables';
import { RHO_REFERENCE, T_REFERENCE_K } from './flow';
import { OUTSIDE, type Network } from '../network/network';
import { Strokes } from './strokes';

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { cbrt, sqrt } = Math;

/** Numbers kept of each place's air. */
export const AIR = 3;

/** Power to which a film grows with density squared times the difference of temperatures: Rayleigh's. */
export const FILM_POWER = 1 / 3;
/** A film is never thinner than at this difference, K: air in a tank that stands is not quite still. */
export const LEAST_OVER_K = 0.5;

/** By how much a film grows, (Pa/K)^⅔·K^⅓: (p/T)^⅔·|ΔT|^⅓, with no corner where ΔT is 0. */
const filmGrowth = (pressurePerK: number, overK: number): number =>
  cbrt(pressurePerK * pressurePerK * sqrt(overK * overK + LEAST_OVER_K * LEAST_OVER_K));

/** Outside air. */
export interface Outside {
  outsidePa: number;
  outsideK: number;
}

/** What devices, water and wear may change of the places; by node. */
export interface PlaceSettings extends Outside {
  /** Volume with nothing moved, m³. */
  readonly volume: Float64Array;
  /** Stroke, against the one described. */
  readonly stroke: Float64Array;
  /** Of a tank's wall: its film (W/K^1⅓·(K/Pa)^⅔), and what warms it, J/K. */
  readonly film: Float64Array;
  readonly wallJPerK: Float64Array;
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
  /** By node: pressure a tank loses for each watt its wall takes, Pa/(s·W). */
  readonly perWatt: Float64Array;
  /** By node, of a tank's wall: as in the settings, and what it gives off outside, W/K. */
  readonly film: Float64Array;
  readonly wallJPerK: Float64Array;
  readonly wallOutside: Float64Array;
  /** By node: temperature of a tank's wall, K, and the heat it takes from the air, W, with how that changes. */
  readonly wallK: Float64Array;
  readonly heatTaken: Float64Array;
  /** By node: heat taken for each kelvin between air and wall, at the last evaluation, W/K. */
  readonly wattsPerK: Float64Array;
  readonly strokes: Strokes;
  private readonly warmer: Float64Array;

  constructor(
    { nodes }: Network,
    private readonly tables: AirTables,
    private readonly outside: PlaceSettings,
  ) {
    const { size } = tables;
    this.air = new Float64Array((size + 1) * AIR);
    this.inflow = new Float64Array((size + 1) * 2);
    this.byMass = new Float64Array(size + 1);
    this.volume = outside.volume;
    this.film = outside.film;
    this.wallJPerK = outside.wallJPerK;
    this.strokes = new Strokes(nodes, outside.volume, outside.stroke);
    this.warmer = Float64Array.from(nodes, (node) => node.warmerByK);
    this.perWatt = new Float64Array(nodes.length);
    this.wallOutside = Float64Array.from(nodes, (node) => node.wall?.outsideWPerK ?? 0);
    this.wallK = new Float64Array(nodes.length);
    this.heatTaken = new Float64Array(nodes.length);
    this.wattsPerK = new Float64Array(nodes.length);
  }

  /** Says that outside air, or a setting, was changed. */
  changed(): void {
    const { air, volume, outside } = this;
    this.strokes.changed();
    const { size, nodeCount, heat } = this.tables;
    for (let i = 0; i <= size; i += 1) {
      const warm = outside.outsideK + (this.warmer[i] ?? 0);
      air[i * AIR] = outside.outsidePa;
      air[i * AIR + 1] = warm;
      air[i * AIR + 2] = RHO_REFERENCE * sqrt(T_REFERENCE_K / warm);
    }
    for (let i = 0; i < nodeCount; i += 1) {
      const isTank = heat[i]! >= 0;
      this.perWatt[i] = (GAMMA - 1) / volume[i]!;
      this.byMass[i] = (isTank ? GAMMA * R_AIR : R_AIR * air[i * AIR + 1]!) / volume[i]!;
    }
  }

  /** Takes a state in: pressures, and what they and the temperatures of the tanks make of the places. */
  readIn(state: Float64Array): void {
    const { air, byMass, strokes, wallK } = this;
    const { outsidePa } = this.outside;
    const { tanks, heat, wall, pressures } = this.tables;
    for (let i = 0; i < pressures; i += 1) air[i * AIR] = state[i]!;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const warm = state[heat[i]!]!;
      air[i * AIR + 1] = warm;
      air[i * AIR + 2] = RHO_REFERENCE * sqrt(T_REFERENCE_K / warm);
      wallK[i] = state[wall[i]!]!;
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
    const { air, inflow, byMass, volume, perWatt, film, wallK, heatTaken } = this;
    const { outsideK } = this.outside;
    const { tanks, heat, wall, nodeCount } = this.tables;
    for (let i = 0; i < nodeCount; i += 1) out[i] = byMass[i]! * inflow[i * 2]!;
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const pressure = air[i * AIR]!;
      const warm = air[i * AIR + 1]!;
      const over = warm - wallK[i]!;
      const perK = film[i]! * filmGrowth(pressure / warm, over);
      const taken = perK * over;
      this.wattsPerK[i] = perK;
      heatTaken[i] = taken;
      const rise = byMass[i]! * inflow[i * 2 + 1]! - perWatt[i]! * taken;
      out[i] = rise;
      out[heat[i]!] =
        (warm / pressure) * rise -
        ((R_AIR * warm * warm) / (pressure * volume[i]!)) * inflow[i * 2]!;
      out[wall[i]!] = (taken - this.wallOutside[i]! * (wallK[i]! - outsideK)) / this.wallJPerK[i]!;
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
