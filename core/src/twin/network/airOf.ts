import { hasCompressor } from '../../rig/hasCompressor';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import { NetworkBuilder, type Network } from './network';
import type { Sides } from './chambers';
import { shopAir } from './shopAir';
import { trailer } from './trailer';
import { meteringValve } from './valves';
import { vehicle, type VehicleEnds } from './vehicle';

/** Networks that were made: diagnosing a rig runs it many times over. */
const made = new WeakMap<RigUnderTest, Map<string, Network>>();

/** How a rig's network is made. */
export interface AirOptions {
  /** What its axles carry, 0 empty to 1 laden, for load-sensing valves. */
  load?: number;
  sides?: Sides;
  /** Whether the shop's air can be joined to a powered unit. */
  shopAir?: boolean;
}

/**
 * The air system of a rig as a network, made from its description: tanks, chambers and circuits as they are
 * entered; lines, valves and hoses of the usual sizes.
 *
 * The same network is given again for the same rig: nothing in it is ever changed.
 */
export function airOf(
  rig: RigUnderTest,
  { load = 1, sides = 'apart', shopAir: joined = false }: AirOptions = {},
): Network {
  const known = made.get(rig) ?? new Map<string, Network>();
  made.set(rig, known);
  const key = `${load} ${sides} ${joined}`;
  const network = known.get(key) ?? networkOf(rig, { load, sides, shopAir: joined });
  known.set(key, network);
  return network;
}

function networkOf({ unit, towed }: RigUnderTest, options: Required<AirOptions>): Network {
  const net = new NetworkBuilder();
  let ends: VehicleEnds | null;
  let behind = towed;
  if (hasCompressor(unit.kind)) {
    ends = vehicle(net, unit, { tows: towed.length > 0 || unit.kind === 'tractor', ...options });
  } else {
    net.startUnit(-1);
    const shop = shopAir(net);
    const supplyLine = net.node('shop hose', 0.5);
    const serviceLine = net.node('shop service hose', 0.5);
    net.way('shop valve', shop, supplyLine, 3, { does: 'shop valve' });
    // A hand-held valve in place of the pedal.
    meteringValve(
      net,
      'shop service valve',
      'shop-service-valve',
      net.follower('hand valve', 0.05),
      shop,
      serviceLine,
      4,
    );
    ends = { supplyLine, serviceLine };
    behind = [unit, ...towed];
  }
  for (const [n, each] of behind.entries()) {
    if (!ends) break;
    // A towed unit alone is the first of its rig.
    ends = trailer(net, each, behind === towed ? n + 1 : n, ends, {
      ...options,
      isLast: n === behind.length - 1,
    });
  }
  return net.build();
}
