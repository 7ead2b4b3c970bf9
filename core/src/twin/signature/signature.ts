import type { RigUnderTest } from '../../rig/rigUnderTest';
import type { Fault, Severity } from '../faults/fault';
import { twinWith } from '../faults/twinWith';
import { dashRun, heardKey, LISTENINGS, type Listening } from '../routine/dashRun';
import { played } from '../routine/player';
import { exhaustsOf } from '../senses/soapAndEar';
import { dashReadings, toldApart, type DashFigure, type DashReadings } from './dashReadings';

const FOUND_PSI = 70;
/** What an ear hears in a quiet yard [trade], scfm. */
export const HEARD_FROM_SCFM = 0.1;

/** What an exhaust lets out while the rig stands so, scfm. */
export interface Blow {
  way: string;
  when: Listening;
  scfm: number;
}

/** What a run by the book shows of a rig: its dash, and what is heard at its exhausts. */
export interface Shown {
  dash: DashReadings;
  blows: readonly Blow[];
}

/** A run by the book on a rig with some faults, read to the last bit: what there is to be seen, whoever looks. */
export function shownBy(
  rig: RigUnderTest,
  faults: readonly (readonly [fault: Fault, severity: Severity])[] = [],
): Shown {
  const twin = twinWith(rig, faults, { tanksPsi: FOUND_PSI });
  const seen = played(twin, dashRun(twin));
  const blows = exhaustsOf(twin).flatMap((way) =>
    LISTENINGS.map((when) => ({ way, when, scfm: seen.get(heardKey(way, when)) ?? 0 })),
  );
  return {
    dash: dashReadings(seen),
    blows: blows.filter(({ scfm }) => scfm >= HEARD_FROM_SCFM),
  };
}

/** How a fault shows beside a sound rig: by which figures of the dash, and at which exhausts. */
export interface Signature {
  figures: readonly DashFigure[];
  blows: readonly Blow[];
}

/** What of a run tells it from a sound one. */
export const signatureOf = (shown: Shown, sound: Shown): Signature => ({
  figures: toldApart(shown.dash, sound.dash),
  blows: shown.blows.filter(
    ({ way, when }) => !sound.blows.some((each) => each.way === way && each.when === when),
  ),
});
