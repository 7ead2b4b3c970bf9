import { hasCompressor } from '../rig/hasCompressor';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { unitTitle } from '../rig/unitTitle';
import { NetworkBuilder, type Network } from './network';
import { pa } from './parts/pascal';
import { trailer } from './parts/trailer';
import { vehicle, type VehicleEnds } from './parts/vehicle';

/** Shop air: as good as endless, and regulated. */
const SHOP_LITRES = 100_000;
/** Name of the place shop air comes from. */
export const SHOP_AIR = 'shop air';
export const SHOP_PA = pa(120);

/** Networks that were made, by rig and load: diagnosing a rig runs it many times over. */
const made = new WeakMap<RigUnderTest, Map<number, Network>>();

/**
 * The air system of a rig as a network, made from its description: tanks, chambers and circuits as they are
 * entered; lines, valves and hoses of the usual sizes.
 *
 * The same network is given again for the same rig: nothing in it is ever changed.
 *
 * @param load what its axles carry, 0 empty to 1 laden, for load-sensing valves
 */
export function airOf(rig: RigUnderTest, load = 1): Network {
  const byLoad = made.get(rig) ?? new Map<number, Network>();
  made.set(rig, byLoad);
  const network = byLoad.get(load) ?? networkOf(rig, load);
  byLoad.set(load, network);
  return network;
}

function networkOf({ unit, towed }: RigUnderTest, load: number): Network {
  const net = new NetworkBuilder();
  let ends: VehicleEnds | null;
  let behind = towed;
  if (hasCompressor(unit.kind)) {
    ends = vehicle(net, unit, { tows: towed.length > 0 || unit.kind === 'tractor', load });
  } else {
    const shop = net.node(SHOP_AIR, SHOP_LITRES);
    const supplyLine = net.node('shop hose', 0.5);
    const serviceLine = net.node('service plug', 0.1);
    net.way('shop valve', shop, supplyLine, 3);
    ends = { supplyLine, serviceLine };
    behind = [unit, ...towed];
  }
  for (const each of behind) {
    if (!ends) break;
    ends = trailer(net, each, unitTitle(each), ends, load);
  }
  return net.build();
}
