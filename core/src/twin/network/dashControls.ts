import type { AirBuild } from './airBuild';
import { OUTSIDE } from './network';
import { pa } from './pascal';
import { setPa } from './setPa';
import { meteringValve } from './valves';

const POPS_AT_PSI = 40;

/** The park control on the dash: pushed in it feeds the park line, out it empties it; it pops out by itself. */
export function dashParkWays(build: AirBuild): void {
  const { net } = build;
  const part = 'park-control';
  const [supply, parkLine] = [build.at(part, 'supply'), build.at(part, 'delivery')];
  net.way('park valve: feed', supply, parkLine, 1.5, { part });
  net.way('park valve: exhaust', parkLine, OUTSIDE, 1.5, { does: 'exhaust', part });
  net.latch({
    id: 'park valve',
    role: 'knob',
    part,
    node: supply,
    lowPa: setPa(build, part, POPS_AT_PSI - 3),
    highPa: Infinity,
    openHigh: ['park valve: feed'],
    openLow: ['park valve: exhaust'],
  });
}

/** Trailer supply on the dash, hand valve, double checks, and tractor protection. */
export function dashTrailerWays(build: AirBuild): void {
  trailerSupply(build);
  const { net } = build;
  const doubleCheck = (part: string, name: string) => {
    if (!build.has(part)) return;
    const [first, second] = [build.at(part, 'first'), build.at(part, 'second')];
    net.doubleCheck(name, first, second, build.at(part, 'out'), 6, part);
  };
  doubleCheck('foot-double-check', 'foot double check');
  if (build.has('hand-valve')) {
    const hand = net.follower('hand valve', 0.05);
    const [supply, delivery] = [
      build.at('hand-valve', 'supply'),
      build.at('hand-valve', 'delivery'),
    ];
    meteringValve(net, 'hand valve', 'hand-valve', hand, supply, delivery, 3);
  }
  doubleCheck('hand-double-check', 'hand double check');
  if (!build.has('tractor-protection')) return;
  const part = 'tractor-protection';
  const [signal, serviceLine] = [build.at(part, 'signal'), build.at(part, 'service')];
  net.way('tractor protection', signal, serviceLine, 6, {
    part,
    openings: [
      { on: [[build.at(part, 'sense'), 1]], biasPa: -setPa(build, part, 42), bandPa: pa(6) },
    ],
  });
  // It stops what would go out to the trailer; what is in its line goes back with the pedal.
  net.check('tractor protection, back', serviceLine, signal, 6, { does: 'back', part });
}

function trailerSupply(build: AirBuild): void {
  const part = 'trailer-supply-control';
  if (!build.has(part)) return;
  const { net } = build;
  const [supply, supplyLine] = [build.at(part, 'supply'), build.at(part, 'delivery')];
  net.way('trailer supply valve: feed', supply, supplyLine, 3, { part });
  net.way('trailer supply valve: exhaust', supplyLine, OUTSIDE, 4, { does: 'exhaust', part });
  net.latch({
    id: 'trailer supply valve',
    role: 'knob',
    part,
    node: supply,
    lowPa: setPa(build, part, POPS_AT_PSI),
    highPa: Infinity,
    openHigh: ['trailer supply valve: feed'],
    openLow: ['trailer supply valve: exhaust'],
  });
}
