import { HEAT_SHARE } from '../gas/adiabatic';

/*
 * Air that was just pressed together is warmer than its tank, air that was just let down is colder, and either comes
 * to the tank's temperature within a minute or two. The needle moves meanwhile as if there were a leak, or hides one.
 */

/** Time constants weighed, s: a film of 15 to 20 W/(m²K) gives 25 to 40 [calc], tanks differ. */
const MEDIAN_S = 32;
const LOG_SD = 0.4;
const STEPS = [-1.6, -0.8, 0, 0.8, 1.6];

/** A time constant with its chance. */
export interface HeatTime {
  timeS: number;
  chance: number;
}

/** The time constants a hold is weighed with; their chances add up to one. */
export const heatTimes: readonly HeatTime[] = (() => {
  const raw = STEPS.map((z) => ({
    timeS: MEDIAN_S * Math.exp(z * LOG_SD),
    chance: Math.exp((-z * z) / 2),
  }));
  const sum = raw.reduce((total, each) => total + each.chance, 0);
  return raw.map(({ timeS, chance }) => ({ timeS, chance: chance / sum }));
})();

/** The usual time constant, for what is asked beforehand, s. */
export const USUAL_HEAT_S = MEDIAN_S;

/** Air pressed into a tank at an even pace. */
export interface Climb {
  /** How far the needle rose, psi. */
  risePsi: number;
  ratePsiPerS: number;
  /** From its end to the moment asked about, s; where it is not known, at most and at least. */
  sinceS: readonly [least: number, most: number];
}

/** Air let out of a tank at a stroke. */
export interface Drop {
  dropPsi: number;
  sinceS: number;
}

/** By how much the needle will still fall for heat alone (under 0: rise), at the moment asked about, psi. */
export interface StillToCome {
  meanPsi: number;
  sdPsi: number;
}

/** What heat is still to do, for a time constant. */
export type Heat = (timeS: number) => StillToCome;

/** Doubt of either part, as a share of it: tanks fed one behind the other, and hot air from the compressor. House value. */
const SHARE_IN_DOUBT = 0.4;
/** Doubt that is left where nothing was marked before, and always, psi. House values. */
const UNKNOWN: StillToCome = { meanPsi: 0.5, sdPsi: 1.5 };
const FLOOR_PSI = 0.15;

/**
 * Heat still to come after what went before a hold. Filling warms air by (1 − 1/γ)·ṗ·τ(1 − e^(−t/τ)) in pressure, a
 * stroke chills it by (1 − 1/γ)·Δp: an adiabatic change, of which the isothermal part stays [calc: first law for a
 * filling tank, air coming in at the tank's temperature].
 *
 * @returns what nothing is known of where nothing went before
 */
export function heatAfter(climbs: readonly Climb[], drops: readonly Drop[]): Heat {
  if (climbs.length === 0 && drops.length === 0) return () => UNKNOWN;
  return (timeS) => {
    let mean = 0;
    let variance = FLOOR_PSI ** 2;
    for (const { risePsi, ratePsiPerS, sinceS } of climbs) {
      const filled = 1 - Math.exp(-risePsi / ratePsiPerS / timeS);
      const full = HEAT_SHARE * ratePsiPerS * timeS * filled;
      const [most, least] = sinceS.map((s) => full * Math.exp(-s / timeS)) as [number, number];
      const left = (most + least) / 2;
      mean += left;
      variance += (SHARE_IN_DOUBT * left) ** 2 + (most - least) ** 2 / 12;
    }
    for (const { dropPsi, sinceS } of drops) {
      const left = HEAT_SHARE * dropPsi * Math.exp(-sinceS / timeS);
      mean -= left;
      variance += (SHARE_IN_DOUBT * left) ** 2;
    }
    return { meanPsi: mean, sdPsi: Math.sqrt(variance) };
  };
}

/** The same, so many seconds later. */
export const heatLater =
  (heat: Heat, laterS: number): Heat =>
  (timeS) => {
    const { meanPsi, sdPsi } = heat(timeS);
    const left = Math.exp(-laterS / timeS);
    return { meanPsi: meanPsi * left, sdPsi: Math.hypot(sdPsi * left, FLOOR_PSI / 3) };
  };

/** No heat to speak of: a tank that has stood for long. */
export const settled: Heat = () => ({ meanPsi: 0, sdPsi: FLOOR_PSI });
