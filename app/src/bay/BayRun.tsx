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
  const psi = Math.max(0, frame.psi[rig.nodes.indexOf(rig.gaugePlace)] ?? 0);
  const { gauge } = practice.run.header.unit;
  const told = [
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
