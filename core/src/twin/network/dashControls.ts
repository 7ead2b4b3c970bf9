import { OUTSIDE, type NetworkBuilder } from './network';
import { pa } from './pascal';
import { meteringValve } from './valves';
import type { VehicleEnds } from './vehicle';

/** Most that holds the springs off, so that what a lost primary lets out starts from a known pressure. */
export const HOLD_OFF_MOST_PSI = 95;
const POPS_AT_PSI = 40;

/** The park control on the dash: pushed in it feeds the park line, out it empties it; it pops out by itself. */
export function dashPark(net: NetworkBuilder, dash: number, parkLine: number): void {
  const part = 'park-control';
  net.way('park valve: feed', dash, parkLine, 1.5, {
    part,
    openings: [{ on: [[parkLine, -1]], biasPa: pa(HOLD_OFF_MOST_PSI), bandPa: pa(5) }],
  });
  // What the shuttle lets over from the service side as it goes across is let out again.
  net.way('park valve: relief', parkLine, OUTSIDE, 1.5, {
    does: 'relief',
    part,
    openings: [{ on: [[parkLine, 1]], biasPa: -pa(HOLD_OFF_MOST_PSI), bandPa: pa(5) }],
  });
  net.way('park valve: exhaust', parkLine, OUTSIDE, 1.5, { does: 'exhaust', part });
  net.latch({
    id: 'park valve',
    part,
    node: dash,
    lowPa: pa(POPS_AT_PSI - 3),
    highPa: Infinity,
    openHigh: ['park valve: feed'],
    openLow: ['park valve: exhaust'],
    startsHigh: false,
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
    part,
    node: dash,
    lowPa: pa(POPS_AT_PSI),
    highPa: Infinity,
    openHigh: ['trailer supply valve: feed'],
    openLow: ['trailer supply valve: exhaust'],
    startsHigh: false,
  });
  const footSignal = net.node('trailer foot signal', 0.1, { part: 'foot-double-check' });
  net.shuttle('foot double check', frontSignal, rearSignal, footSignal, 4, 'foot-double-check');
  const hand = net.follower('hand valve', 0.05);
  const handSignal = net.node('hand signal', 0.1, { part: 'hand-valve' });
  meteringValve(net, 'hand valve', 'hand-valve', hand, dash, handSignal, 3);
  const signal = net.node('trailer signal', 0.2, { part: 'hand-double-check' });
  net.shuttle('hand double check', footSignal, handSignal, signal, 4, 'hand-double-check');
  const serviceLine = net.node('trailer service line', 0.3, { part: 'trailer-service-line' });
  net.way('tractor protection', signal, serviceLine, 4, {
    part: 'tractor-protection',
    openings: [{ on: [[supplyLine, 1]], biasPa: -pa(42), bandPa: pa(6) }],
  });
  return { supplyLine, serviceLine };
}
