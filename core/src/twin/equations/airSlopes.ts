/* eslint-disable @typescript-eslint/prefer-for-of -- walked by index: an iterator costs more than what is done here. */
import { R_AIR } from '../../gas/orifice';
import { AIR, FILM_POWER, LEAST_OVER_K, type AirPlaces } from './airPlaces';
import type { AirTables } from './airTables';
import {
  CONSTANTS,
  LEAK_RATIO,
  LEAK_STEEP,
  PACKED,
  type AirWays,
  type WaySettings,
} from './airWays';
import { flowAt, type FlowAt } from './flow';

/** Rows an element may stand in. */
const ROWS = 4;

/** How the rates of all places change with each of them: the derivatives, by hand, of what ways and places do. */
export class AirSlopes {
  /** By tank's place: T/p, and R·T²/(p·V). */
  private readonly warmth: Float64Array;
  private readonly chill: Float64Array;
  private readonly at: FlowAt = { value: 0, byUpstream: 0, byDownstream: 0 };

  constructor(
    private readonly places: AirPlaces,
    private readonly ways: AirWays,
    private readonly settings: WaySettings,
    { size }: AirTables,
  ) {
    this.warmth = new Float64Array(size + 1);
    this.chill = new Float64Array(size + 1);
  }

  /** As the ways' `pass`, and adds what that does to the rates' derivatives. */
  pass(jacobian: Float64Array, tables: AirTables): void {
    const { warmth, chill } = this;
    const { air, volume } = this.places;
    for (let n = 0; n < tables.tanks.length; n += 1) {
      const i = tables.tanks[n]!;
      const warm = air[i * AIR + 1]!;
      warmth[i] = warm / air[i * AIR]!;
      chill[i] = (R_AIR * warm * warm) / (air[i * AIR]! * volume[i]!);
    }
    this.passWays(jacobian, tables);
    this.passLeaks(jacobian, tables);
  }

  /** Adds what the places do to the derivatives by themselves, once their rates are known. */
  settle(rates: Float64Array, jacobian: Float64Array, tables: AirTables): void {
    const { chill } = this;
    const { air, inflow, byMass, strokes } = this.places;
    const { own, heat, heatByPressure, tanks } = tables;
    const { moving } = strokes;
    for (let n = 0; n < moving.length; n += 1) {
      const i = moving[n]!;
      const bent = strokes.capacitySlope(n, air[i * AIR]!, this.settings.outsidePa);
      if (bent === 0) continue;
      const capacity = (R_AIR * air[i * AIR + 1]!) / byMass[i]!;
      add(jacobian, own[i]!, (-rates[i]! * bent) / capacity);
    }
    for (let n = 0; n < tanks.length; n += 1) {
      const i = tanks[n]!;
      const warm = air[i * AIR + 1]!;
      const pressure = air[i * AIR]!;
      const mass = inflow[i * 2]!;
      const rise = rates[i]!;
      add(
        jacobian,
        heatByPressure[i]!,
        (chill[i]! / pressure) * mass - (warm / (pressure * pressure)) * rise,
      );
      add(jacobian, own[heat[i]!]!, rise / pressure - ((2 * chill[i]!) / warm) * mass);
      this.settleWall(i, jacobian, tables);
    }
  }

  /** Adds what the heat between a tank's air and its wall does. */
  private settleWall(i: number, jacobian: Float64Array, tables: AirTables): void {
    const { air, wattsPerK, wallK, heatTaken, perWatt, wallJPerK, wallOutside } = this.places;
    const pressure = air[i * AIR]!;
    const warm = air[i * AIR + 1]!;
    const over = warm - wallK[i]!;
    const taken = heatTaken[i]!;
    const byPressure = (2 * FILM_POWER * taken) / pressure;
    // With Rayleigh's power on √(ΔT² + least²).
    const byOver =
      wattsPerK[i]! *
      (1 + (FILM_POWER * over * over) / (over * over + LEAST_OVER_K * LEAST_OVER_K));
    const byHeat = byOver - (2 * FILM_POWER * taken) / warm;
    const fall = perWatt[i]!;
    const warmth = this.warmth[i]!;
    add(jacobian, tables.own[i]!, -fall * byPressure);
    add(jacobian, tables.pressureByHeat[i]!, -fall * byHeat);
    add(jacobian, tables.pressureByWall[i]!, fall * byOver);
    add(jacobian, tables.heatByPressure[i]!, -warmth * fall * byPressure);
    add(jacobian, tables.own[tables.heat[i]!]!, -warmth * fall * byHeat);
    add(jacobian, tables.heatByWall[i]!, warmth * fall * byOver);
    add(jacobian, tables.own[tables.wall[i]!]!, -(byOver + wallOutside[i]!) / wallJPerK[i]!);
  }

  private passWays(jacobian: Float64Array, tables: AirTables): void {
    const { at, warmth, chill } = this;
    const { air, inflow, byMass } = this.places;
    const { active, constants, far, openingSlope, flows, count, tankCount } = this.ways;
    const { heat, slots } = tables;
    const last = count * PACKED;
    const lastOfTanks = tankCount * PACKED;
    for (let n = 0, f = 0; n < last; n += PACKED, f += CONSTANTS) {
      const e = active[n]!;
      const o1 = active[n + 3]!;
      const o2 = active[n + 4]!;
      const range = constants[f + 3]!;
      const open = constants[f + 2]! + range * far[o1]! * far[o2]!;
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
      flowAt(forwards ? pa : pb, forwards ? pb : pa, constants[f + 1]!, constants[f + 4]!, at);
      const k = (forwards ? constants[f]! : -constants[f]!) * air[up * AIR + 2]!;
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
      const by1 = full * range * openingSlope[o1]! * far[o2]!;
      const by2 = full * range * openingSlope[o2]! * far[o1]!;
      if (n >= lastOfTanks) {
        const rowA = byMass[a]!;
        const rowB = byMass[b]!;
        add(jacobian, slots[s]!, -rowA * byA);
        add(jacobian, slots[s + 1]!, -rowA * byB);
        add(jacobian, slots[s + 8]!, rowB * byA);
        add(jacobian, slots[s + 9]!, rowB * byB);
        if (by1 !== 0) addControls(jacobian, tables, o1, by1, rowA, rowB, 0, 0);
        if (by2 !== 0) addControls(jacobian, tables, o2, by2, rowA, rowB, 0, 0);
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
      if (by1 !== 0) addControls(jacobian, tables, o1, by1, rowA, rowB, heatA, heatB);
      if (by2 !== 0) addControls(jacobian, tables, o2, by2, rowA, rowB, heatA, heatB);
      if (heat[up]! >= 0) {
        const column = s + (forwards ? 2 : 3);
        if (tankA) this.addWarmth(a, jacobian, -flow, slots[column]!, slots[column + 4]!, warm);
        else add(jacobian, slots[column]!, (rowA * flow) / (2 * warm));
        if (tankB) this.addWarmth(b, jacobian, flow, slots[column + 8]!, slots[column + 12]!, warm);
        else add(jacobian, slots[column + 8]!, (-rowB * flow) / (2 * warm));
      }
    }
  }

  private passLeaks(jacobian: Float64Array, tables: AirTables): void {
    const { at, warmth, chill } = this;
    const { air, inflow, byMass } = this.places;
    const { outsidePa, leak } = this.settings;
    const { own, heat, heatByPressure, pressureByHeat } = tables;
    const { leaking, leakCount } = this.ways;
    for (let n = 0; n < leakCount; n += 1) {
      const i = leaking[n]!;
      const pressure = air[i * AIR]!;
      if (pressure <= outsidePa) continue;
      const warm = air[i * AIR + 1]!;
      flowAt(pressure, outsidePa, LEAK_RATIO, LEAK_STEEP, at);
      const k = leak[i]! * air[i * AIR + 2]!;
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
    const byCarried = 0.5 * this.places.byMass[tank]! * flow;
    add(jacobian, pressureSlot, byCarried);
    add(
      jacobian,
      heatSlot,
      this.warmth[tank]! * byCarried + (this.chill[tank]! * flow) / (2 * warm),
    );
  }
}

/** What the places that drive an opening add, by the rows of its element. */
function addControls(
  jacobian: Float64Array,
  { controlStart, controlWeight, controlSlots }: AirTables,
  o: number,
  by: number,
  rowA: number,
  rowB: number,
  heatA: number,
  heatB: number,
): void {
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

export function add(values: Float64Array, slot: number, by: number): void {
  values[slot] = values[slot]! + by;
}
