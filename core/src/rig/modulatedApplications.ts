import type { UnitDraft } from '@keen-bleed/contract';
import { chamberVolumeIn3 } from './chamberVolume';
import { axlesOf } from './partsOf';

/** The modulating valve holds the springs off by at most this, psi [trade]. */
const HOLD_OFF_PSI = 95;
/** Under this the springs come on whatever the pedal does, psi [trade: at work under 50 to 55]. */
const SPRINGS_ON_PSI = 50;
/** Nobody counts on. */
const MOST = 12;

/**
 * About how many full applications the springs give with the primary tank lost: each fills the front chambers from the
 * secondary tank, lets the spring side out and fills it again. By Boyle’s law on rated volumes, the spring side taken as
 * large as the service side [calc]; four or five are usual [trade].
 *
 * @returns null where tanks or chambers do not tell
 * @example modulatedApplications(newUnitDraft('truck', 2015)) // 5
 */
export function modulatedApplications(
  unit: Pick<UnitDraft, 'tanks' | 'chambers' | 'governor'>,
): number | null {
  const tank = unit.tanks
    .filter(({ role }) => role === 'secondary')
    .reduce((sum, { volumeIn3 }) => sum + volumeIn3, 0);
  const { front, rear } = axlesOf(unit.chambers);
  const [frontIn3, springIn3] = [
    chamberVolumeIn3(front),
    chamberVolumeIn3(rear.filter(({ springBrake }) => springBrake)),
  ];
  if (tank === 0 || !frontIn3 || !springIn3) return null;
  let psi = unit.governor?.cutOutPsi ?? 120;
  let count = 0;
  while (count < MOST) {
    psi = (psi * tank - Math.min(HOLD_OFF_PSI, psi) * springIn3) / (tank + frontIn3);
    if (psi < SPRINGS_ON_PSI) break;
    count += 1;
  }
  // The one in which it falls under that is still felt.
  return count + 1;
}
