import { OUTSIDE } from '../network/network';
import { massFlowKgPerS } from '../equations/flow';
import type { Twin } from '../twin';
import { scfmOf } from './freeAir';

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
