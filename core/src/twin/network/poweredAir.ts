import type { AirBuild, UnitAirOptions } from './airBuild';
import { chamberWays } from './chamberWays';
import { dashParkWays, dashTrailerWays } from './dashControls';
import { foundBores } from './foundBores';
import { OUTSIDE } from './network';
import { numberedParkWays, numberedTrailerWays, trailerControlPlaces } from './numberedControls';
import { shopAirTo } from './shopAir';
import {
  compressorWays,
  drainWay,
  dryerWays,
  governorWays,
  purgeAir,
  safetyValveWay,
  supplyPlaces,
  tankPlace,
} from './supplySide';
import { lowAirSwitch, stopLampSwitch } from './switches';
import { auxiliaryWays, consumerWays, takeOffWays } from './accessories';
import {
  loadSensing,
  meteringValve,
  modulatedParkRelay,
  protectedBy,
  quickRelease,
  relayValve,
} from './valves';

/** Where the towed units take their air from. */
export interface VehicleEnds {
  supplyLine: number;
  serviceLine: number;
}

/** The places that parts of a powered unit have of their own, from the compressor on. */
export function poweredPlaces(build: AirBuild): void {
  const { unit } = build;
  const numbered = unit.ports === 'numbers';
  supplyPlaces(build);
  tankPlace(build, 'primary-tank', 'primary', 1800);
  tankPlace(build, 'secondary-tank', 'secondary', 1800);
  build.own('dash-feed', 'out', {
    role: 'dash feed',
    litres: numbered ? 5 : 0.6,
    part: 'dash-feed',
  });
  build.own('foot-valve', 'delivery-1', { role: 'rear signal', litres: 0.35, part: 'foot-valve' });
  build.own('foot-valve', 'delivery-2', { role: 'front signal', litres: 0.25, part: 'foot-valve' });
  const own = (part: string, port: string, role: string, litres: number, of = part) => {
    if (build.has(part)) build.own(part, port, { role, litres, part: of });
  };
  own('front-load-sensing', 'delivery', 'front load control', 0.05);
  own('front-quick-release', 'out', 'front delivery', 0.2);
  own('load-sensing', 'delivery', 'rear relay control', 0.05, 'rear-control-line');
  const hasControlLine = build.has('rear-control-line') && !build.has('load-sensing');
  if (hasControlLine && build.has('rear-relay'))
    own('rear-control-line', 'out', 'rear relay control', 0.05);
  own('rear-relay', 'delivery', 'rear delivery', 0.3);
  // Where a rear axle has no relay its line from the foot valve feeds it.
  if (hasControlLine && !build.has('rear-relay'))
    own('rear-control-line', 'out', 'rear delivery', 0.35);
  own('park-relay', 'delivery', 'spring line', 0.3);
  own('park-line', 'in', 'park line', 0.3);
  own('anti-compounding', 'out', 'park relay control', 0.1);
  trailerControlPlaces(build);
  own('foot-double-check', 'out', 'trailer foot signal', 0.1);
  own('hand-valve', 'delivery', 'hand signal', 0.1);
  own('hand-double-check', 'out', 'trailer signal', 0.2);
  own('trailer-supply-line', 'in', 'trailer supply line', 0.5);
  own('trailer-service-line', 'in', 'trailer service line', 0.3);
}

/** The ways through the parts of a powered unit, and what switches in it. */
export function poweredWays(
  build: AirBuild,
  { load, shopAir }: UnitAirOptions & { shopAir: boolean },
): VehicleEnds | null {
  const { net, unit } = build;
  supplyWays(build);
  circuitWays(build);
  footWays(build);
  if (build.has('front-load-sensing')) {
    loadSensing(net, 'front load-sensing valve', 'front-load-sensing', {
      ...ports(build, 'front-load-sensing'),
      load,
    });
  }
  if (build.has('front-quick-release')) {
    const [from, to] = [
      build.at('front-quick-release', 'in'),
      build.at('front-quick-release', 'out'),
    ];
    quickRelease(net, 'front quick-release', 'front-quick-release', from, to, 8);
  }
  if (build.has('load-sensing')) {
    loadSensing(net, 'load-sensing valve', 'load-sensing', {
      ...ports(build, 'load-sensing'),
      load,
    });
  } else {
    const [from, to] = [build.at('rear-control-line', 'in'), build.at('rear-control-line', 'out')];
    net.way('rear control line', from, to, 8, { part: 'rear-control-line' });
  }
  if (build.has('rear-relay')) {
    const { control, supply, delivery } = ports(build, 'rear-relay');
    const crackPsi = build.part('rear-relay')?.setPsi ?? undefined;
    relayValve(net, 'rear relay', 'rear-relay', control, supply, delivery, {
      conductance: 16,
      ...(crackPsi === undefined ? {} : { crackPsi }),
    });
  }
  chamberWays(build, 'front-chambers', 'front', 5);
  chamberWays(build, 'rear-chambers', 'rear', 14);
  if (build.has('antilock')) {
    // A modulator lets off at its own port what its seats do not hold; a sound one passes nothing.
    for (const end of ['front', 'rear'] as const) {
      net.way(`${end} modulator: exhaust`, build.at('antilock', end), OUTSIDE, 0, {
        does: 'exhaust',
        part: 'antilock',
      });
    }
  }
  parkWays(build);
  switchWays(build);
  foundBores(build);
  const [supply, dash] = [build.at('supply-tank', 'air'), build.at('dash-feed', 'out')];
  if (shopAir) shopAirTo(net, supply, dash);
  const numbered = unit.ports === 'numbers' && build.has('hand-brake-valve');
  if (!build.has('trailer-supply-line')) return null;
  if (numbered) numberedTrailerWays(build);
  else dashTrailerWays(build);
  return {
    supplyLine: build.at('trailer-supply-line', 'in'),
    serviceLine: build.at('trailer-service-line', 'in'),
  };
}

const ports = (build: AirBuild, part: string) => ({
  control: build.at(part, 'control'),
  supply: build.at(part, 'supply'),
  delivery: build.at(part, 'delivery'),
});

function supplyWays(build: AirBuild): void {
  compressorWays(build);
  if (build.has('dryer')) dryerWays(build);
  if (build.has('safety-valve')) safetyValveWay(build);
  governorWays(build);
}

function circuitWays(build: AirBuild): void {
  const { net, unit } = build;
  if (build.has('dryer')) purgeAir(build);
  for (const name of ['primary', 'secondary'] as const) {
    const part = `${name}-check`;
    if (!build.has(part)) continue;
    const [from, to] = [build.at(part, 'in'), build.at(part, 'out')];
    if (unit.ports === 'numbers') protectedBy(net, `${name} check`, part, from, to);
    else net.check(`${name} check`, from, to, 8, { part });
  }
  for (const name of ['supply', 'primary', 'secondary'] as const) drainWay(build, name);
  if (build.has('accessories')) takeOffWays(build);
  consumerWays(build);
  auxiliaryWays(build);
  // The third circuit of the protection valve is the hand brake's and the trailer's own.
  if (build.has('third-circuit')) {
    protectedBy(
      net,
      'third circuit',
      'third-circuit',
      build.at('third-circuit', 'in'),
      build.at('third-circuit', 'out'),
    );
  }
  if (build.has('dash-double-check')) {
    const [one, other] = [
      build.at('dash-double-check', 'first'),
      build.at('dash-double-check', 'second'),
    ];
    net.doubleCheck(
      'dash double check',
      one,
      other,
      build.at('dash-double-check', 'out'),
      10,
      'dash-double-check',
    );
  } else if (!build.areJoined('dash-feed', 'in', 'dash-feed', 'out')) {
    net.way('dash feed line', build.at('dash-feed', 'in'), build.at('dash-feed', 'out'), 10, {
      part: 'dash-feed',
    });
  }
}

function footWays(build: AirBuild): void {
  const { net } = build;
  const pedal = net.follower('pedal', 0.03);
  for (const [half, n] of [
    ['primary', 1],
    ['secondary', 2],
  ] as const) {
    const [from, to] = [
      build.at('foot-valve', `supply-${n}`),
      build.at('foot-valve', `delivery-${n}`),
    ];
    meteringValve(net, `foot valve, ${half}`, 'foot-valve', pedal, from, to, 7);
  }
}

/** The park relay, behind the anti-compounding check where there is one, with the modulating valve where there is one. */
function parkWays(build: AirBuild): void {
  const { net } = build;
  if (build.has('hand-brake-valve')) numberedParkWays(build);
  else if (build.has('park-control')) dashParkWays(build);
  if (build.has('anti-compounding')) {
    const part = 'anti-compounding';
    const [one, other] = [build.at(part, 'first'), build.at(part, 'second')];
    net.doubleCheck('anti-compounding check', one, other, build.at(part, 'out'), 3, part);
  }
  if (!build.has('park-relay')) return;
  const { control, supply, delivery } = ports(build, 'park-relay');
  const isModulated =
    build.has('modulating-valve') &&
    build.areJoined('modulating-valve', 'springs', 'park-relay', 'delivery');
  if (isModulated) {
    modulatedParkRelay(net, 5, {
      control,
      tank: supply,
      delivery,
      frontSignal: build.at('modulating-valve', 'control'),
      primary: build.at('modulating-valve', 'sense'),
    });
  } else relayValve(net, 'park relay', 'park-relay', control, supply, delivery, { conductance: 5 });
}

function switchWays(build: AirBuild): void {
  for (const name of ['supply', 'primary', 'secondary'] as const) lowAirSwitch(build, name);
  stopLampSwitch(build, 'primary-stop-lamp-switch', 'primary stop lamp');
  stopLampSwitch(build, 'secondary-stop-lamp-switch', 'secondary stop lamp');
  stopLampSwitch(build, 'stop-lamp-switch', 'stop lamp');
}
