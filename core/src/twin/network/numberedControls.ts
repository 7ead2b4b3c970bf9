import type { AirBuild } from './airBuild';
import { OUTSIDE } from './network';
import { pa } from './pascal';
import { HOLD_OFF_MOST_PSI, LAP_PA, meteringValve, relayValve, SEAT_PA } from './valves';

/** A fall at 43 under this brakes the trailer, psi: a little under what stands there while driving. */
const BRAKES_UNDER_PSI = HOLD_OFF_MOST_PSI - 6;

/**
 * The hand brake valve of the numbered-port school: released it holds the park line up, drawn it lets it down as far
 * as it is drawn, and locked it empties it. It does not pop out by itself.
 */
export function numberedParkWays(build: AirBuild): void {
  const { net } = build;
  const [dash, parkLine] = [
    build.at('hand-brake-valve', 'supply'),
    build.at('hand-brake-valve', 'park'),
  ];
  const asked = net.follower('hand brake', 0.05);
  meteringValve(net, 'hand brake valve', 'hand-brake-valve', asked, dash, parkLine, 1.5);
  net.latch({
    id: 'park valve',
    role: 'knob',
    part: 'hand-brake-valve',
    node: dash,
    lowPa: -Infinity,
    highPa: Infinity,
  });
}

/**
 * The trailer control valve [std: ISO 6786 for the numbers]: what rises at 41 or 42, and what is missing at 43, it
 * gives to the trailer at 22 from its own supply at 11. At 43 stands the hand brake's line; its test position fills
 * that alone, so that the truck's springs hold the rig with the trailer released.
 */
export function numberedTrailerWays(build: AirBuild): void {
  const { net } = build;
  const [dash, parkLine] = [
    build.at('hand-brake-valve', 'supply'),
    build.at('hand-brake-valve', 'park'),
  ];
  const handLine = build.at('hand-brake-valve', 'trailer');
  net.way('hand brake valve: drive', parkLine, handLine, 3, { part: 'hand-brake-valve' });
  net.way('hand brake valve: test', dash, handLine, 1.5, {
    does: 'test position',
    part: 'hand-brake-valve',
    openings: [{ on: [[handLine, -1]], biasPa: pa(HOLD_OFF_MOST_PSI), bandPa: pa(5) }],
  });
  const part = 'trailer-control-valve';
  const supply = build.at(part, 'supply');
  const footSignal = net.node('trailer foot signal', 0.1, { part });
  const [rearSignal, frontSignal] = [build.at(part, 'foot-1'), build.at(part, 'foot-2')];
  net.doubleCheck('trailer control valve: 41 and 42', rearSignal, frontSignal, footSignal, 4, part);
  const handSignal = net.node('hand signal', 0.1, { part });
  const asksAt = build.at(part, 'hand');
  net.way('trailer control valve: 43 rises', supply, handSignal, 3, {
    part,
    openings: [
      {
        on: [
          [asksAt, -1],
          [handSignal, -1],
        ],
        biasPa: pa(BRAKES_UNDER_PSI),
        bandPa: SEAT_PA,
      },
    ],
  });
  net.way('trailer control valve: 43 falls', handSignal, OUTSIDE, 4.5, {
    does: 'exhaust',
    part,
    openings: [
      {
        on: [
          [asksAt, 1],
          [handSignal, 1],
        ],
        biasPa: -pa(BRAKES_UNDER_PSI) - LAP_PA,
        bandPa: SEAT_PA,
      },
    ],
  });
  const signal = net.node('trailer signal', 0.2, { part });
  net.doubleCheck('trailer control valve: 4', footSignal, handSignal, signal, 4, part);
  relayValve(net, 'trailer control valve', part, signal, supply, build.at(part, 'blue'), {
    crackPsi: 2,
    conductance: 5,
  });
  net.way('trailer supply', supply, build.at(part, 'red'), 3, { part: 'trailer-supply-line' });
}

/** The hand brake's own line to the trailer control valve. */
export function trailerControlPlaces(build: AirBuild): void {
  if (!build.has('trailer-control-valve')) return;
  const part = 'hand-brake-valve';
  build.own(part, 'trailer', { role: 'hand brake line', litres: 0.15, part });
}
