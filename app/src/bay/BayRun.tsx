import { sayPressure } from '@keen-bleed/core';
import { byEye, gaugeSet } from '../practice/practiceGauge';
import { PracticeRun } from '../practice/PracticeRun';
import type { Practice } from '../practice/usePractice';
import { cabControls, timeControl } from './cabControls';
import { CabStrip } from './CabStrip';
import type { Bay } from './useBay';

interface BayRunProps {
  practice: Practice;
  bay: Bay;
  onLeave: () => void;
}

/** A run by the book on the rig in the Bay, by the rig's own clock. */
export function BayRun({ practice, bay, onLeave }: BayRunProps) {
  const { frame, rig, log } = bay;
  const psi = Math.max(0, frame.psi[rig.places.findIndex(({ id }) => id === rig.gaugePlace)] ?? 0);
  const { gauge } = practice.run.header.made.unit;
  // A trailer alone has no lamps; the gauge of the service hose is all it shows beside the ladder's.
  const told = rig.hasShopAir
    ? frame.needles
        .slice(1)
        .map((needle) => `${needle.title} ${sayPressure(needle.psi, gauge.unit)}`)
    : [
        ...(frame.warning ? ['low-air warning'] : []),
        ...(frame.stopLamp ? ['stop lamps on'] : []),
        ...(frame.purging ? ['dryer blows'] : []),
      ];
  return (
    <PracticeRun
      practice={practice}
      gauge={
        practice.reading.byGauge ? gaugeSet(log, psi) : byEye(gauge, frame.needles[0]?.psi ?? psi)
      }
      strip={
        <CabStrip controls={[...cabControls(bay, gauge.unit), timeControl(bay)]} told={told} />
      }
      leaveTitle="Cab"
      onLeave={onLeave}
    />
  );
}
