import type { Gauge } from '@keen-bleed/contract';
import { fromPsi } from '../units/pressure';

/** A dial as somebody sees it: apart from the pressure behind it. */
export interface SeenGauge {
  /** What it shows too much, psi: within ±7 % of cut-out [std: 571.121 S5.1.4, value from memory]. */
  errorPsi: number;
  /** Seconds its needle takes for two thirds of the way. */
  dampingS: number;
  /** How much the needle trembles with the engine running, psi. */
  tremblePsi: number;
}

export const usualSeenGauge: SeenGauge = {
  errorPsi: 2,
  dampingS: 0.25,
  tremblePsi: 0.3,
};

/** Where the needle stands after `elapsedS` at a true pressure, from where it stood; psi. */
export function needlePsi(
  seen: SeenGauge,
  beforePsi: number,
  truePsi: number,
  elapsedS: number,
): number {
  // A dial that stands at its stop with no air shows no error there.
  const shownPsi = truePsi <= 1 ? Math.max(0, truePsi) : truePsi + seen.errorPsi;
  const share = 1 - Math.exp(-elapsedS / seen.dampingS);
  return beforePsi + (shownPsi - beforePsi) * share;
}

/** What is read off it, in the dial's own unit: to the half division, and never past the top. */
export function readOff(gauge: Gauge, needle: number): number {
  const half = gauge.division / 2;
  return Math.min(gauge.top, Math.round(fromPsi(needle, gauge.unit) / half) * half);
}
