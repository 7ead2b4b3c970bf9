import { KPA_PER_PSI, STANDARD_ATMOSPHERE_PSI } from '../units/pressure';

/** Ratio of specific heats of dry air. */
export const GAMMA = 1.4;
/** Gas constant of dry air, J/(kg·K). */
export const R_AIR = 287.05;
/** Temperature the shop is taken to be at, K (20 °C). */
export const SHOP_TEMPERATURE_K = 293.15;
/** Discharge coefficient of a ragged leak path; a drilled hole is nearer 0.65, a rounded one 0.95. */
export const LEAK_DISCHARGE_COEFFICIENT = 0.8;

const M3_PER_FT3 = 0.0283168466;
const ATMOSPHERE_PA = STANDARD_ATMOSPHERE_PSI * KPA_PER_PSI * 1000;

/** Downstream to upstream absolute pressure below which the throat is choked: (2/(γ+1))^(γ/(γ−1)). */
export const CRITICAL_RATIO = (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1));

/**
 * Mass flow of air through a hole, choked or not, by the isentropic nozzle formula
 * (any gas-dynamics text; choked where p₂/p₁ is under 0.528).
 *
 * @param upstreamPa upstream absolute pressure, Pa
 * @param downstreamPa downstream absolute pressure, Pa; not above the upstream one
 * @param areaM2 area of the hole, m²
 * @param temperatureK upstream temperature, K
 * @returns kg/s
 */
export function holeMassFlowKgPerS(
  upstreamPa: number,
  downstreamPa: number,
  areaM2: number,
  temperatureK = SHOP_TEMPERATURE_K,
  dischargeCoefficient = LEAK_DISCHARGE_COEFFICIENT,
): number {
  if (downstreamPa >= upstreamPa) return 0;
  const ratio = Math.max(downstreamPa / upstreamPa, CRITICAL_RATIO);
  const psi = Math.sqrt(
    ((2 * GAMMA) / (GAMMA - 1)) * (ratio ** (2 / GAMMA) - ratio ** ((GAMMA + 1) / GAMMA)),
  );
  return (dischargeCoefficient * areaM2 * upstreamPa * psi) / Math.sqrt(R_AIR * temperatureK);
}

/**
 * Free air a round hole to atmosphere passes.
 *
 * @param diameterMm hole diameter, mm
 * @param gaugePsi pressure behind it, psi gauge
 * @returns standard cubic feet per minute
 */
export function holeFlowScfm(diameterMm: number, gaugePsi: number): number {
  const areaM2 = (Math.PI / 4) * (diameterMm / 1000) ** 2;
  const upstreamPa = (gaugePsi + STANDARD_ATMOSPHERE_PSI) * KPA_PER_PSI * 1000;
  const kgPerS = holeMassFlowKgPerS(upstreamPa, ATMOSPHERE_PA, areaM2);
  const density = ATMOSPHERE_PA / (R_AIR * SHOP_TEMPERATURE_K);
  return ((kgPerS / density) * 60) / M3_PER_FT3;
}

/**
 * Diameter of the one round hole that would lose as much as was measured.
 *
 * @param lossScfm free air lost, scfm, not negative
 * @param gaugePsi pressure behind it, psi gauge, above 0
 * @returns millimetres
 */
export function equivalentHoleMm(lossScfm: number, gaugePsi: number): number {
  return Math.sqrt(lossScfm / holeFlowScfm(1, gaugePsi));
}
