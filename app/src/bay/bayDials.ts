import {
  nearestReadingPsi,
  needlePsi,
  trembleAt,
  usualSeenGauge,
  type DrawnRig,
  type Twin,
} from '@keen-bleed/core/twin';
import type { BayFrame, BaySetup } from './bayProtocol';

/** What the rig stands with when it is walked up to: parked overnight, part of its air gone. */
export const FOUND_PSI = 60;

/** A gauge in front of the technician: where it is teed in, its own error, and where its needle stands. */
export interface Dial {
  title: string;
  place: string;
  errorPsi: number;
  psi: number;
}

/** The gauges a cab has; a trailer alone has one at its tank and one in the shop's service hose. */
function titledDials(
  twin: Twin,
  { unit }: BaySetup['rig'],
  tankPlace: string,
): Omit<Dial, 'errorPsi'>[] {
  const powered = [
    { title: unit.circuits === 'dual' ? 'prim.' : 'tank', place: 'primary tank', psi: FOUND_PSI },
    { title: 'sec.', place: 'secondary tank', psi: FOUND_PSI },
  ].filter(({ place }) => twin.hasPlace(place));
  if (powered.length > 0) return powered;
  return [
    { title: 'tank', place: tankPlace, psi: FOUND_PSI },
    { title: 'service', place: 'shop service hose', psi: 0 },
  ];
}

/** The rig's gauges, each with an error of its own. */
export const bayDials = (
  twin: Twin,
  rig: BaySetup['rig'],
  tankPlace: string,
  { needleErrorPsi }: Pick<DrawnRig, 'needleErrorPsi'>,
): Dial[] => {
  const { primary, secondary } = needleErrorPsi;
  return titledDials(twin, rig, tankPlace).map((dial, n) => ({
    ...dial,
    errorPsi: n === 0 ? primary : secondary,
  }));
};

/** Lets each needle follow its place for so long, s. */
export function followPlaces(dials: readonly Dial[], twin: Twin, elapsedS: number): void {
  for (const dial of dials) {
    const { errorPsi, place } = dial;
    dial.psi = needlePsi({ ...usualSeenGauge, errorPsi }, dial.psi, twin.psi(place), elapsedS);
  }
}

/** The needles as they are seen now, psi. */
export function seenNeedles(
  dials: readonly Dial[],
  twin: Twin,
  { unit }: BaySetup['rig'],
): BayFrame['needles'] {
  const tremble = twin.rpm > 0 ? trembleAt(usualSeenGauge, twin.timeS) : 0;
  return dials.map(({ title, psi }) => ({
    title,
    // A needle at its stop has nothing to tremble about.
    psi: nearestReadingPsi(psi > 1 ? psi + tremble : psi, unit.gauge),
  }));
}
