import type { ChamberGroup, Unit } from '@keen-bleed/contract';
import { axle, type Sides } from './chambers';
import { dashPark, dashTrailer } from './dashControls';
import { OUTSIDE, type NetworkBuilder } from './network';
import { numberedPark, numberedTrailer } from './numberedControls';
import { pa } from './pascal';
import { shopAirTo } from './shopAir';
import { purgeAir, supplySide, tank, volumeOf } from './supplySide';
import { switches } from './switches';
import { loadSensing, meteringValve, modulatedParkRelay, quickRelease, relayValve } from './valves';

/** Where the towed units take their air from. */
export interface VehicleEnds {
  supplyLine: number;
  serviceLine: number;
}

interface Groups {
  front: readonly ChamberGroup[];
  rear: readonly ChamberGroup[];
}

interface VehicleOptions {
  tows: boolean;
  load: number;
  sides: Sides;
  /** The shop's air can be joined to it. */
  shopAir: boolean;
}

/** Tanks of the two circuits; one and the same where there is a single one. */
interface Tanks {
  supply: number;
  primary: number;
  secondary: number;
}

/** Steering axles have no springs; a vehicle with no springs at all has its first group in front. */
function groupsOf({ chambers }: Unit): Groups {
  const sprung = chambers.filter((group) => group.springBrake);
  const plain = chambers.filter((group) => !group.springBrake);
  if (sprung.length > 0) return { front: plain, rear: sprung };
  return { front: plain.slice(0, 1), rear: plain.slice(1) };
}

/** Engine, tanks, pedal, axles, dash controls, and the lines to a trailer where `tows`. */
export function vehicle(
  net: NetworkBuilder,
  unit: Unit,
  options: VehicleOptions,
): VehicleEnds | null {
  const dual = unit.circuits === 'dual';
  const numbered = unit.ports === 'numbers';
  const tanks = storedAir(net, unit);
  const { primary, secondary } = tanks;
  const dash = net.node('dash feed', numbered ? 5 : 0.6, { part: 'dash-feed' });
  // The third circuit of the protection valve is the hand brake's and the trailer's own.
  if (numbered) protectedBy(net, 'third circuit', 'third-circuit', tanks.supply, dash);
  else if (dual)
    net.doubleCheck('dash double check', primary, secondary, dash, 10, 'dash-double-check');
  else net.way('dash feed line', primary, dash, 10, { part: 'dash-feed' });

  const pedal = net.follower('pedal', 0.03);
  const rearSignal = net.node('rear signal', 0.35, { part: 'foot-valve' });
  const frontSignal = net.node('front signal', 0.25, { part: 'foot-valve' });
  meteringValve(net, 'foot valve, primary', 'foot-valve', pedal, primary, rearSignal, 7);
  meteringValve(net, 'foot valve, secondary', 'foot-valve', pedal, secondary, frontSignal, 7);

  const { front, rear } = groupsOf(unit);
  frontAxle(net, front, { signal: frontSignal, tank: secondary, ...options });
  const springs = rear.some((group) => group.springBrake)
    ? net.node('spring line', 0.3, { part: 'park-relay' })
    : null;
  const rearFeed = rearAxle(net, rear, { signal: rearSignal, tank: primary, springs, ...options });

  let parkLine = -1;
  if (springs !== null) {
    parkLine = net.node('park line', 0.3, { part: 'park-line' });
    (numbered ? numberedPark : dashPark)(net, dash, parkLine);
    parkRelay(net, unit, { parkLine, rearFeed, dash, springs, primary, frontSignal });
  }
  switches(net, unit, tanks, { frontSignal, rearSignal });
  if (options.shopAir) shopAirTo(net, tanks.supply, dash);
  if (!options.tows) return null;
  return numbered && parkLine >= 0
    ? numberedTrailer(net, { dash, frontSignal, rearSignal, parkLine })
    : dashTrailer(net, { dash, frontSignal, rearSignal });
}

/** Supply side, the tanks of both circuits behind their checks, their drains, and what is taken off them. */
function storedAir(net: NetworkBuilder, unit: Unit): Tanks {
  const supplyEnds = supplySide(net, unit);
  const { supply } = supplyEnds;
  const dual = unit.circuits === 'dual';
  const primary = tank(net, 'primary tank', volumeOf(unit, 'primary') || 1800, {
    part: 'primary-tank',
  });
  const secondary = dual
    ? tank(net, 'secondary tank', volumeOf(unit, 'secondary') || 1800, { part: 'secondary-tank' })
    : primary;
  const circuits = [
    ['primary', primary],
    ...(dual ? [['secondary', secondary] as const] : []),
  ] as const;
  purgeAir(net, unit, supplyEnds, primary);
  for (const [name, node] of circuits) {
    if (unit.ports === 'numbers') protectedBy(net, `${name} check`, `${name}-check`, supply, node);
    else net.check(`${name} check`, supply, node, 8, { part: `${name}-check` });
  }
  for (const [name, node] of [['supply', supply] as const, ...circuits]) {
    net.way(`${name} drain`, node, OUTSIDE, 4, { does: 'drain', part: `${name}-drain` });
  }
  // Suspension, horn and the like stand behind a valve that keeps the brakes their air: what they lose stops there.
  net.way('accessory take-off', secondary, OUTSIDE, 0, {
    does: 'seal',
    part: 'accessories',
    openings: [{ on: [[secondary, 1]], biasPa: -pa(60), bandPa: pa(5) }],
  });
  return { supply, primary, secondary };
}

/** One circuit of a four-circuit protection valve: opens at about 7 bar, shuts one that has fallen under about 4.5. */
function protectedBy(
  net: NetworkBuilder,
  name: string,
  part: string,
  supply: number,
  circuit: number,
): void {
  net.way(name, supply, circuit, 3, {
    does: 'check',
    part,
    openings: [
      {
        on: [
          [supply, 1],
          [circuit, -1],
        ],
        biasPa: -3_000,
        bandPa: 6_000,
      },
      {
        on: [
          [supply, 0.65],
          [circuit, 0.35],
        ],
        biasPa: -450_000,
        bandPa: 20_000,
      },
    ],
  });
}

interface AxleFeeds {
  signal: number;
  tank: number;
  load: number;
  sides: Sides;
}

/** From the foot valve's secondary through a quick-release to the front chambers. */
function frontAxle(
  net: NetworkBuilder,
  groups: readonly ChamberGroup[],
  { signal, tank: from, load, sides }: AxleFeeds,
): void {
  let control = signal;
  if (groups.some((group) => group.loadSensing)) {
    const part = 'front-load-sensing';
    control = net.node('front load control', 0.05, { part });
    loadSensing(net, 'front load-sensing valve', part, signal, control, from, load);
  }
  const feed = net.node('front delivery', 0.2, { part: 'front-quick-release' });
  quickRelease(net, 'front quick-release', 'front-quick-release', control, feed, 8);
  groups.forEach((group, i) => {
    axle(net, `front${i === 0 ? '' : ` ${i + 1}`}`, group, {
      part: `front-chambers${i === 0 ? '' : `-${i + 1}`}`,
      feed,
      springs: null,
      hose: 5,
      sides,
    });
  });
  // A modulator lets off at its own port what its seats do not hold; a sound one passes nothing.
  net.way('front modulator: exhaust', feed, OUTSIDE, 0, { does: 'exhaust', part: 'antilock' });
}

/** From the foot valve's primary through the rear relay to the rear chambers; gives the relay's delivery. */
function rearAxle(
  net: NetworkBuilder,
  groups: readonly ChamberGroup[],
  { signal, tank: from, load, sides, springs }: AxleFeeds & { springs: number | null },
): number {
  const control = net.node('rear relay control', 0.05, { part: 'rear-control-line' });
  if (groups.some((group) => group.loadSensing))
    loadSensing(net, 'load-sensing valve', 'load-sensing', signal, control, from, load);
  else net.way('rear control line', signal, control, 8, { part: 'rear-control-line' });
  const feed = net.node('rear delivery', 0.3, { part: 'rear-relay' });
  relayValve(net, 'rear relay', 'rear-relay', control, from, feed, { conductance: 16 });
  groups.forEach((group, i) => {
    axle(net, `rear${i === 0 ? '' : ` ${i + 1}`}`, group, {
      part: `rear-chambers${i === 0 ? '' : `-${i + 1}`}`,
      feed,
      springs,
      hose: 14,
      sides,
    });
  });
  net.way('rear modulator: exhaust', feed, OUTSIDE, 0, { does: 'exhaust', part: 'antilock' });
  return feed;
}

interface ParkFeeds {
  parkLine: number;
  rearFeed: number;
  dash: number;
  springs: number;
  primary: number;
  frontSignal: number;
}

/** The park relay, behind the anti-compounding check where there is one, with the modulating valve where there is one. */
function parkRelay(
  net: NetworkBuilder,
  unit: Unit,
  { parkLine, rearFeed, dash, springs, primary, frontSignal }: ParkFeeds,
): void {
  let control = parkLine;
  if (unit.air?.antiCompounding ?? true) {
    const part = 'anti-compounding';
    control = net.node('park relay control', 0.1, { part });
    net.doubleCheck('anti-compounding check', parkLine, rearFeed, control, 3, part);
  }
  // The numbered-port school has no valve that lets hold-off out for a lost primary.
  const isUsual = unit.circuits === 'dual' && unit.ports !== 'numbers';
  if (unit.air?.modulatingValve ?? isUsual) {
    const ports = { control, tank: dash, delivery: springs, frontSignal, primary };
    modulatedParkRelay(net, 5, ports);
  } else {
    relayValve(net, 'park relay', 'park-relay', control, dash, springs, { conductance: 5 });
  }
}
