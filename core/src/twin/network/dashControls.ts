import { OUTSIDE, type NetworkBuilder } from './network';
import { pa } from './pascal';
import { meteringValve } from './valves';
import type { VehicleEnds } from './vehicle';

const POPS_AT_PSI = 40;

/** The park control on the dash: pushed in it feeds the park line, out it empties it; it pops out by itself. */
export function dashPark(net: NetworkBuilder, dash: number, parkLine: number): void {
  const part = 'park-control';
  net.way('park valve: feed', dash, parkLine, 1.5, { part });
  net.way('park valve: exhaust', parkLine, OUTSIDE, 1.5, { does: 'exhaust', part });
  net.latch({
    id: 'park valve',
    role: 'knob',
    part,
    node: dash,
    lowPa: pa(POPS_AT_PSI - 3),
    highPa: Infinity,
    openHigh: ['park valve: feed'],
    openLow: ['park valve: exhaust'],
  });
}

/** Where the trailer's controls take their air and their orders from. */
export interface TrailerFeeds {
  dash: number;
  frontSignal: number;
  rearSignal: number;
}

/** Trailer supply on the dash, hand valve, double checks, and tractor protection. */
export function dashTrailer(
  net: NetworkBuilder,
  { dash, frontSignal, rearSignal }: TrailerFeeds,
): VehicleEnds {
  const supplyLine = net.node('trailer supply line', 0.5, { part: 'trailer-supply-line' });
  const part = 'trailer-supply-control';
  net.way('trailer supply valve: feed', dash, supplyLine, 3, { part });
  net.way('trailer supply valve: exhaust', supplyLine, OUTSIDE, 4, { does: 'exhaust', part });
  net.latch({
    id: 'trailer supply valve',
    role: 'knob',
    part,
    node: dash,
    lowPa: pa(POPS_AT_PSI),
    highPa: Infinity,
    openHigh: ['trailer supply valve: feed'],
    openLow: ['trailer supply valve: exhaust'],
  });
  const footSignal = net.node('trailer foot signal', 0.1, { part: 'foot-double-check' });
  net.doubleCheck('foot double check', frontSignal, rearSignal, footSignal, 6, 'foot-double-check');
  const hand = net.follower('hand valve', 0.05);
  const handSignal = net.node('hand signal', 0.1, { part: 'hand-valve' });
  meteringValve(net, 'hand valve', 'hand-valve', hand, dash, handSignal, 3);
  const signal = net.node('trailer signal', 0.2, { part: 'hand-double-check' });
  net.doubleCheck('hand double check', footSignal, handSignal, signal, 6, 'hand-double-check');
  const serviceLine = net.node('trailer service line', 0.3, { part: 'trailer-service-line' });
  net.way('tractor protection', signal, serviceLine, 6, {
    part: 'tractor-protection',
    openings: [{ on: [[supplyLine, 1]], biasPa: -pa(42), bandPa: pa(6) }],
  });
  // It stops what would go out to the trailer; what is in its line goes back with the pedal.
  net.check('tractor protection, back', serviceLine, signal, 6, {
    does: 'back',
    part: 'tractor-protection',
  });
  return { supplyLine, serviceLine };
}
