import { STANDARD_ATMOSPHERE_PSI } from '../units/pressure';
import { ft3FromIn3 } from '../units/volume';

/**
 * Free air that goes into or out of a fixed volume as its pressure changes at constant temperature:
 * Q = V·Δp ÷ (14.7 psi·t), from Boyle's law.
 *
 * @param volumeIn3 volume of all tanks that share the pressure, in³
 * @param ratePsiPerMin rate of change of gauge pressure, psi/min
 * @returns standard cubic feet per minute, with the sign of the rate
 */
export function freeAirScfm(volumeIn3: number, ratePsiPerMin: number): number {
  return (ft3FromIn3(volumeIn3) * ratePsiPerMin) / STANDARD_ATMOSPHERE_PSI;
}
