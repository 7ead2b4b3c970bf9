import { KPA_PER_PSI, STANDARD_ATMOSPHERE_PSI } from '../units/pressure';
import { CRITICAL_RATIO, holeMassFlowKgPerS, R_AIR, SHOP_TEMPERATURE_K } from './orifice';

/**
 * Time a tank takes to fall from one pressure to another through a hole, at constant temperature and
 * while the hole stays choked: p(t) = p₁·exp(−t/τ), τ = V·p ÷ (ṁ·R·T), since choked flow goes with p.
 *
 * @param volumeLitres tank volume, L
 * @param diameterMm hole diameter, mm
 * @param fromPsi starting gauge pressure, psi
 * @param toPsi ending gauge pressure, psi, under `fromPsi`
 * @returns seconds, or null where the hole would come out of choked flow on the way (under about 13 psi)
 */
export function chokedEmptyingS(
  volumeLitres: number,
  diameterMm: number,
  fromPsi: number,
  toPsi: number,
): number | null {
  const startPsia = fromPsi + STANDARD_ATMOSPHERE_PSI;
  const endPsia = toPsi + STANDARD_ATMOSPHERE_PSI;
  if (STANDARD_ATMOSPHERE_PSI / endPsia > CRITICAL_RATIO) return null;
  const startPa = startPsia * KPA_PER_PSI * 1000;
  const areaM2 = (Math.PI / 4) * (diameterMm / 1000) ** 2;
  const flow = holeMassFlowKgPerS(startPa, 0, areaM2);
  const tauS = ((volumeLitres / 1000) * startPa) / (flow * R_AIR * SHOP_TEMPERATURE_K);
  return tauS * Math.log(startPsia / endPsia);
}
