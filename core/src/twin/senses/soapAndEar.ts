import { OUTSIDE } from '../network/network';
import { massFlowKgPerS } from '../equations/flow';
import type { Twin } from '../twin';
import { scfmOf } from './freeAir';

/** What soapy water does at a joint, from nothing to blown away. */
export type Soap = 'nothing' | 'film' | 'froth' | 'bubbles' | 'mist';

/** What is heard at a port. */
export type Heard = 'quiet' | 'hiss' | 'blow';

/** Joints that can be wetted, by id: every place of the rig that holds air. */
export function jointsOf(twin: Twin): string[] {
  return twin.system.network.nodes.filter(({ unit }) => unit >= 0).map(({ id }) => id);
}

/** Ports at which air can be heard, by id: exhausts; drains, and what leaves by another's port, left out. */
export function exhaustsOf(twin: Twin): string[] {
  return twin.system.network.elements
    .filter(({ to, does, unit }) => to === OUTSIDE && unit >= 0 && does === 'exhaust')
    .map(({ id }) => id);
}

/** Air lost at a joint now, beside what a sound rig loses thinly over all of them, scfm. */
export function lossAt(twin: Twin, place: string): number {
  const node = twin.system.network.nodes.findIndex(({ id }) => id === place);
  const leak = (twin.system.leak[node] ?? 0) - (twin.seepage[node] ?? 0);
  const pa = twin.run.state[node] ?? twin.system.outsidePa;
  if (leak <= 0 || pa <= twin.system.outsidePa) return 0;
  return scfmOf(massFlowKgPerS(pa, twin.system.outsidePa, leak, 0.5));
}

/** What soapy water shows at a joint now [trade: from a film that barely swells to mist blown away]. */
export function soapAt(twin: Twin, place: string): Soap {
  const scfm = lossAt(twin, place);
  if (scfm <= 0.002) return 'nothing';
  if (scfm < 0.05) return 'film';
  if (scfm < 0.25) return 'froth';
  return scfm < 1 ? 'bubbles' : 'mist';
}

/** What is heard at an exhaust now. */
export function listenAt(twin: Twin, way: string): Heard {
  const scfm = scfmOf(Math.abs(twin.flowKgPerS(way)));
  if (scfm < 0.03) return 'quiet';
  return scfm < 2 ? 'hiss' : 'blow';
}
