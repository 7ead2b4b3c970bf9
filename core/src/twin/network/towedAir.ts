import type { AirBuild } from './airBuild';
import { consumerWays } from './accessories';
import { chamberWays } from './chamberWays';
import { foundBores } from './foundBores';
import { OUTSIDE } from './network';
import { litresFromIn3, pa } from './pascal';
import type { VehicleEnds } from './poweredAir';
import { tankWall, volumeOf } from './supplySide';
import { loadSensing, relayValve } from './valves';

/** Under this in the supply line a trailer without springs brakes from its own tank, psi. */
const EMERGENCY_PSI = 45;
/** A trailer's tank is filled once its supply line has this, psi: the springs come off first. */
const TANK_FILLS_OVER_PSI = 55;

/** The places that parts of a towed unit have of their own. */
export function towedPlaces(build: AirBuild): void {
  const { unit } = build;
  build.own('supply-line', 'in', {
    role: 'supply line',
    litres: 1,
    kind: 'towed supply line',
    part: 'supply-line',
  });
  build.own('service-line', 'in', {
    role: 'service line',
    litres: 0.8,
    kind: 'towed service line',
    part: 'service-line',
  });
  const litres = litresFromIn3(volumeOf(unit, 'trailer') || 2850);
  build.own('tank', 'air', {
    role: 'tank',
    litres,
    kind: 'towed tank',
    wall: tankWall(litres),
    part: 'tank',
  });
  if (build.has('load-sensing')) {
    build.own('load-sensing', 'delivery', {
      role: 'load control',
      litres: 0.05,
      kind: 'towed load control',
      part: 'load-sensing',
    });
  }
  // Without a relay the service line itself feeds the axles.
  if (build.has('relay')) {
    build.own('relay', 'delivery', {
      role: 'delivery',
      litres: 0.3,
      kind: 'towed delivery',
      part: 'relay',
    });
  }
  if (build.has('spring-line')) {
    build.own('spring-line', 'out', {
      role: 'spring line',
      litres: 0.3,
      kind: 'towed spring line',
      part: 'spring-line',
    });
  }
  if (build.has('supply-cock'))
    build.own('supply-cock', 'out', { role: 'rear supply', litres: 0.1, part: 'supply-cock' });
  if (build.has('service-cock'))
    build.own('service-cock', 'out', { role: 'rear service', litres: 0.1, part: 'service-cock' });
}

/** The ways through the parts of a towed unit, behind `ends`; gives the ends at its own rear. */
export function towedWays(
  build: AirBuild,
  ends: VehicleEnds,
  { load, isLast }: { load: number; isLast: boolean },
): VehicleEnds {
  const { net } = build;
  couplers(build, ends);
  const supply = build.at('tank-check', 'in');
  if (build.has('tank-check')) {
    net.way('tank fill', supply, build.at('tank-check', 'out'), 3, {
      does: 'check',
      part: 'tank-check',
      openings: [
        {
          on: [
            [supply, 1],
            [build.at('tank-check', 'out'), -1],
          ],
          biasPa: -3_000,
          bandPa: 6_000,
        },
        { on: [[supply, 1]], biasPa: -pa(TANK_FILLS_OVER_PSI), bandPa: pa(5) },
      ],
    });
  }
  if (build.has('drain'))
    net.way('drain', build.at('drain', 'in'), OUTSIDE, 4, { does: 'drain', part: 'drain' });
  if (build.has('load-sensing')) {
    loadSensing(net, 'load-sensing valve', 'load-sensing', {
      control: build.at('load-sensing', 'control'),
      supply: build.at('load-sensing', 'supply'),
      delivery: build.at('load-sensing', 'delivery'),
      load,
    });
  }
  const relay = build.part('relay');
  if (relay) {
    const control =
      relay.role === 'relay-emergency' ? emergencyControl(build) : build.at('relay', 'control');
    const crackPsi = relay.setPsi ?? undefined;
    relayValve(
      net,
      'relay',
      'relay',
      control,
      build.at('relay', 'supply'),
      build.at('relay', 'delivery'),
      {
        conductance: 18,
        ...(crackPsi === undefined ? {} : { crackPsi }),
      },
    );
  }
  if (build.has('spring-line')) {
    net.way('spring feed', build.at('spring-line', 'in'), build.at('spring-line', 'out'), 3, {
      part: 'spring-line',
    });
  }
  chamberWays(build, 'chambers', '', 12);
  if (build.has('antilock')) {
    net.way('modulator: exhaust', build.at('antilock', 'rear'), OUTSIDE, 0, {
      does: 'exhaust',
      part: 'antilock',
    });
  }
  consumerWays(build);
  foundBores(build);
  return rearEnds(build, isLast);
}

function couplers(build: AirBuild, ends: VehicleEnds): void {
  const { net } = build;
  const red = { part: 'supply-coupler' } as const;
  const blue = { part: 'service-coupler' } as const;
  const [supply, control] = [
    build.at('supply-coupler', 'rear'),
    build.at('service-coupler', 'rear'),
  ];
  net.way('supply coupler', ends.supplyLine, supply, 4, { does: 'coupler', ...red });
  net.way('service coupler', ends.serviceLine, control, 4, { does: 'coupler', ...blue });
  net.way('supply on service coupler', ends.supplyLine, control, 0, { does: 'crossed', ...blue });
  net.way('service on supply coupler', ends.serviceLine, supply, 0, { does: 'crossed', ...red });
  // Open ends, where nothing is coupled.
  net.way('supply coupler, front', ends.supplyLine, OUTSIDE, 0, { does: 'open end', ...red });
  net.way('supply coupler, rear', supply, OUTSIDE, 0, { does: 'open end', ...red });
  net.way('service coupler, front', ends.serviceLine, OUTSIDE, 0, { does: 'open end', ...blue });
  net.way('service coupler, rear', control, OUTSIDE, 0, { does: 'open end', ...blue });
}

/** What a relay-emergency valve's relay is told: the service line, or its own tank once the supply line is lost. */
function emergencyControl(build: AirBuild): number {
  const { net } = build;
  const part = 'relay';
  const [supply, service] = [build.at(part, 'emergency'), build.at(part, 'control')];
  const control = net.node('relay control', 0.15, { kind: 'towed relay control', part });
  net.way('emergency', build.at(part, 'supply'), control, 3, {
    part,
    openings: [{ on: [[supply, -1]], biasPa: pa(EMERGENCY_PSI), bandPa: pa(8) }],
  });
  net.way('service to relay', service, control, 4, {
    part,
    openings: [{ on: [[supply, 1]], biasPa: -pa(EMERGENCY_PSI), bandPa: pa(8) }],
  });
  return control;
}

function rearEnds(build: AirBuild, isLast: boolean): VehicleEnds {
  const { net } = build;
  const end = (line: 'supply' | 'service'): number => {
    const part = `${line}-cock`;
    if (!build.has(part)) return build.at(`${line}-line`, 'in');
    const [from, to] = [build.at(part, 'in'), build.at(part, 'out')];
    net.way(`${line} cock`, from, to, 4, { does: 'cock', part });
    // Behind the last cocks there is nothing: what one lets by that is left open is lost.
    if (isLast) {
      net.way(`${line} cock, open end`, to, OUTSIDE, 0, {
        does: 'open end',
        part: `${line}-coupler`,
      });
    }
    return to;
  };
  return { supplyLine: end('supply'), serviceLine: end('service') };
}
