import { chamberVolumeIn3 } from './chamberVolume';
import type { RigUnderTest } from './rigUnderTest';
import { unitsOf } from './rigUnderTest';
import { brakeTankVolumeIn3 } from './tankVolume';

/** What a full pedal leaves where a chamber's volume is not known, as a share of absolute pressure. */
const USUAL_RATIO = 0.925;

/**
 * What a full application leaves of the tanks' absolute pressure: the air that was in the tanks is in the tanks
 * and the chambers, at one temperature (Boyle's law), V ÷ (V + V_chambers).
 *
 * @returns a share of absolute pressure, under 1
 */
export function pedalDropRatio(rig: RigUnderTest): number {
  const tanksIn3 = unitsOf(rig).reduce((sum, unit) => sum + brakeTankVolumeIn3(unit.tanks), 0);
  let chambersIn3 = 0;
  for (const unit of unitsOf(rig)) {
    const each = chamberVolumeIn3(unit.chambers);
    if (each === null) return USUAL_RATIO;
    chambersIn3 += each;
  }
  return tanksIn3 / (tanksIn3 + chambersIn3);
}
