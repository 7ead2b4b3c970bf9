import type { ChamberGroup, Unit } from '@keen-bleed/contract';
import { OUTSIDE, type NetworkBuilder } from './network';
import { axle, type Sides } from './chambers';
import { pa } from './pascal';
import { supplySide, tank, volumeOf } from './supplySide';
import { dashPark, dashTrailer } from './dashControls';
import { numberedPark, numberedTrailer } from './numberedControls';
import { loadSensing, meteringValve, quickRelease, relayValve } from './valves';

/** Delivered by the spring brake valve for a lost primary: hold-off let out for each psi of front brake. */
const MODULATES = 2.75;
const WARNS_AT_PSI = 62;
const WARNING_OFF_PSI = 76;
const STOP_LAMP_PSI = 5;

/** Where the towed units take their air from. */
export interface VehicleEnds {
  supplyLine: number;
  serviceLine: number;
}

interface Groups {
  front: readonly ChamberGroup[];
  rear: readonly ChamberGroup[];
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
  { tows, load, sides }: { tows: boolean; load: number; sides: Sides },
): VehicleEnds | null {
  const supply = supplySide(net, unit);
  const dual = unit.circuits === 'dual';
  const numbered = unit.ports === 'numbers';
  const primary = tank(net, 'primary tank', volumeOf(unit, 'primary') || 1800, {
    part: 'primary-tank',
  });
  const secondary = dual
    ? tank(net, 'secondary tank', volumeOf(unit, 'secondary') || 1800, { part: 'secondary-tank' })
    : primary;
  const protect = (name: string, part: string, circuit: number) => {
    if (!numbered) {
      net.check(name, supply, circuit, 4, { part });
      return;
    }
    // A four-circuit protection valve: opens at about 7 bar, and shuts a circuit that has fallen under about 4.5.
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
  };
  protect('primary check', 'primary-check', primary);
  if (dual) protect('secondary check', 'secondary-check', secondary);
  for (const [tankOf, node] of [
    ['supply', supply],
    ['primary', primary],
    ...(dual ? [['secondary', secondary] as const] : []),
  ] as const) {
    net.way(`${tankOf} drain`, node, OUTSIDE, 4, { does: 'drain', part: `${tankOf}-drain` });
  }

  const dash = net.node('dash feed', numbered ? 5 : 0.6, { part: 'dash-feed' });
  // The third circuit of the protection valve is the hand brake's and the trailer's own.
  if (numbered) protect('third circuit', 'third-circuit', dash);
  else if (dual)
    net.shuttle('dash double check', primary, secondary, dash, 10, 'dash-double-check');
  else net.way('dash feed line', primary, dash, 10, { part: 'dash-feed' });

  const pedal = net.follower('pedal', 0.03);
  const rearSignal = net.node('rear signal', 0.35, { part: 'foot-valve' });
  const frontSignal = net.node('front signal', 0.25, { part: 'foot-valve' });
  meteringValve(net, 'foot valve, primary', 'foot-valve', pedal, primary, rearSignal, 7);
  meteringValve(net, 'foot valve, secondary', 'foot-valve', pedal, secondary, frontSignal, 7);

  const { front, rear } = groupsOf(unit);
  let frontControl = frontSignal;
  if (front.some((group) => group.loadSensing)) {
    frontControl = net.node('front load control', 0.05, { part: 'front-load-sensing' });
    loadSensing(
      net,
      'front load-sensing valve',
      'front-load-sensing',
      frontSignal,
      frontControl,
      secondary,
      load,
    );
  }
  const frontFeed = net.node('front delivery', 0.2, { part: 'front-quick-release' });
  quickRelease(net, 'front quick-release', 'front-quick-release', frontControl, frontFeed, 8);
  front.forEach((group, i) => {
    axle(net, `front${i === 0 ? '' : ` ${i + 1}`}`, group, {
      part: `front-chambers${i === 0 ? '' : `-${i + 1}`}`,
      feed: frontFeed,
      springs: null,
      hose: 5,
      sides,
    });
  });

  const rearControl = net.node('rear relay control', 0.05, { part: 'rear-control-line' });
  if (rear.some((group) => group.loadSensing)) {
    loadSensing(net, 'load-sensing valve', 'load-sensing', rearSignal, rearControl, primary, load);
  } else {
    net.way('rear control line', rearSignal, rearControl, 8, { part: 'rear-control-line' });
  }
  const rearFeed = net.node('rear delivery', 0.3, { part: 'rear-relay' });
  relayValve(net, 'rear relay', 'rear-relay', rearControl, primary, rearFeed, { conductance: 16 });
  const springs = rear.some((group) => group.springBrake)
    ? net.node('spring line', 0.3, { part: 'park-relay' })
    : null;
  rear.forEach((group, i) => {
    axle(net, `rear${i === 0 ? '' : ` ${i + 1}`}`, group, {
      part: `rear-chambers${i === 0 ? '' : `-${i + 1}`}`,
      feed: rearFeed,
      springs,
      hose: 14,
      sides,
    });
  });

  let parkLine = -1;
  if (springs !== null) {
    parkLine = net.node('park line', 0.3, { part: 'park-line' });
    (numbered ? numberedPark : dashPark)(net, dash, parkLine);
    const parkControl = net.node('park relay control', 0.1, { part: 'anti-compounding' });
    net.shuttle('anti-compounding check', parkLine, rearFeed, parkControl, 3, 'anti-compounding');
    relayValve(net, 'park relay', 'park-relay', parkControl, dash, springs, {
      conductance: 5,
      crackPsi: 4,
      // The numbered-port school has no valve that lets hold-off out for a lost primary.
      also:
        dual && !numbered
          ? [
              [frontSignal, -MODULATES],
              [rearSignal, MODULATES],
            ]
          : [],
    });
  }

  warnings(net, primary, dual ? secondary : null);
  net.latch({
    id: 'stop lamp',
    part: 'stop-lamp-switch',
    node: dual ? frontSignal : rearSignal,
    lowPa: pa(STOP_LAMP_PSI - 1),
    highPa: pa(STOP_LAMP_PSI),
    openHigh: [],
    openLow: [],
    startsHigh: false,
  });
  if (!tows) return null;
  return numbered && parkLine >= 0
    ? numberedTrailer(net, { dash, frontSignal, rearSignal, parkLine })
    : dashTrailer(net, { dash, frontSignal, rearSignal });
}

function warnings(net: NetworkBuilder, primary: number, secondary: number | null): void {
  for (const [circuit, node] of [
    ['primary', primary],
    ['secondary', secondary],
  ] as const) {
    if (node === null) continue;
    net.latch({
      id: `${circuit} warning`,
      part: `${circuit}-low-air-switch`,
      node,
      lowPa: pa(WARNS_AT_PSI),
      highPa: pa(WARNING_OFF_PSI),
      openHigh: [],
      openLow: [],
      startsHigh: false,
    });
  }
}
