import { hasCompressor } from '../../rig/hasCompressor';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import { NetworkBuilder, type Network } from './network';
import type { Unit } from '@keen-bleed/contract';
import { plumbingThatRuns } from '../../rig/plumbing/plumbingThatRuns';
import { unitTitle } from '../../rig/unitTitle';
import { AirBuild } from './airBuild';
import type { Sides } from './chambers';
import { poweredPlaces, poweredWays, type VehicleEnds } from './poweredAir';
import { towedPlaces, towedWays } from './towedAir';
import { shopAir } from './shopAir';
import { meteringValve } from './valves';

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
    const tows = towed.length > 0 || unit.kind === 'tractor';
    const build = buildOf(net, unit, options, tows);
    poweredPlaces(build);
    ends = poweredWays(build, options);
    build.tellPorts();
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
    net.startUnit(behind === towed ? n + 1 : n, unitTitle(each));
    const build = buildOf(net, each, options, true);
    towedPlaces(build);
    ends = towedWays(build, ends, { load: options.load, isLast: n === behind.length - 1 });
    build.tellPorts();
  }
  return net.build();
}

/** What only works a trailer: it is not in the air of a truck that tows nothing. */
const FOR_A_TRAILER: ReadonlySet<string> = new Set([
  'trailer-supply-control',
  'trailer-control-valve',
  'foot-double-check',
  'hand-valve',
  'hand-double-check',
  'tractor-protection',
  'trailer-supply-line',
  'trailer-service-line',
]);

/**
 * A unit's parts and lines, ready to be made air of. What was said of them may not hold together; the air is then that
 * of the parts as they are with the usual lines, so that a unit can always be looked at.
 */
function buildOf(
  net: NetworkBuilder,
  unit: Unit,
  options: Required<AirOptions>,
  tows: boolean,
): AirBuild {
  const plumbing = plumbingThatRuns(unit);
  const parts = plumbing.parts.filter(({ id }) => tows || !FOR_A_TRAILER.has(id));
  return new AirBuild(net, unit, { ...plumbing, parts }, options);
}
