import type { Unit } from '@keen-bleed/contract';
import { unitTitle } from '../../rig/unitTitle';
import { OUTSIDE, type NetworkBuilder } from './network';
import { axle, type Sides } from './chambers';
import { pa } from './pascal';
import { tank, volumeOf } from './supplySide';
import { loadSensing, relayValve } from './valves';
import type { VehicleEnds } from './vehicle';

/** Under this in the supply line a trailer without springs brakes from its own tank, psi. */
const EMERGENCY_PSI = 45;
/** A trailer's tank is filled once its supply line has this, psi: the springs come off first. */
const TANK_FILLS_OVER_PSI = 55;

/**
 * One towed unit behind `ends`: couplers, tank, relay, springs, and the couplers at its own rear.
 *
 * @param at its place in the rig, from the front
 */
export function trailer(
  net: NetworkBuilder,
  unit: Unit,
  at: number,
  ends: VehicleEnds,
  { load, sides, isLast }: { load: number; sides: Sides; isLast: boolean },
): VehicleEnds {
  net.startUnit(at, unitTitle(unit));
  const supply = net.node('supply line', 1, { kind: 'towed supply line', part: 'supply-line' });
  const control = net.node('service line', 0.8, {
    kind: 'towed service line',
    part: 'service-line',
  });
  const red = { part: 'supply-coupler' } as const;
  const blue = { part: 'service-coupler' } as const;
  net.way('supply coupler', ends.supplyLine, supply, 4, { does: 'coupler', ...red });
  net.way('service coupler', ends.serviceLine, control, 4, { does: 'coupler', ...blue });
  net.way('supply on service coupler', ends.supplyLine, control, 0, { does: 'crossed', ...blue });
  net.way('service on supply coupler', ends.serviceLine, supply, 0, { does: 'crossed', ...red });
  // Open ends, where nothing is coupled.
  net.way('supply coupler, front', ends.supplyLine, OUTSIDE, 0, { does: 'open end', ...red });
  net.way('supply coupler, rear', supply, OUTSIDE, 0, { does: 'open end', ...red });
  net.way('service coupler, front', ends.serviceLine, OUTSIDE, 0, { does: 'open end', ...blue });
  net.way('service coupler, rear', control, OUTSIDE, 0, { does: 'open end', ...blue });

  const air = tank(net, 'tank', volumeOf(unit, 'trailer') || 2850, {
    kind: 'towed tank',
    part: 'tank',
  });
  net.way('tank fill', supply, air, 3, {
    does: 'check',
    part: 'tank-check',
    openings: [
      {
        on: [
          [supply, 1],
          [air, -1],
        ],
        biasPa: -3_000,
        bandPa: 6_000,
      },
      { on: [[supply, 1]], biasPa: -pa(TANK_FILLS_OVER_PSI), bandPa: pa(5) },
    ],
  });
  net.way('drain', air, OUTSIDE, 4, { does: 'drain', part: 'drain' });

  const sprung = unit.chambers.some((group) => group.springBrake);
  let relayControl = control;
  if (!sprung) {
    relayControl = net.node('relay control', 0.15, { kind: 'towed relay control', part: 'relay' });
    net.way('emergency', air, relayControl, 3, {
      part: 'relay',
      openings: [{ on: [[supply, -1]], biasPa: pa(EMERGENCY_PSI), bandPa: pa(8) }],
    });
    net.way('service to relay', control, relayControl, 4, {
      part: 'relay',
      openings: [{ on: [[supply, 1]], biasPa: -pa(EMERGENCY_PSI), bandPa: pa(8) }],
    });
  }
  if (unit.chambers.some((group) => group.loadSensing)) {
    const scaled = net.node('load control', 0.05, {
      kind: 'towed load control',
      part: 'load-sensing',
    });
    loadSensing(net, 'load-sensing valve', 'load-sensing', relayControl, scaled, air, load);
    relayControl = scaled;
  }
  const feed = net.node('delivery', 0.3, { kind: 'towed delivery', part: 'relay' });
  relayValve(net, 'relay', 'relay', relayControl, air, feed, { conductance: 18 });
  const springs = sprung
    ? net.node('spring line', 0.3, { kind: 'towed spring line', part: 'spring-line' })
    : null;
  if (springs !== null) net.way('spring feed', supply, springs, 3, { part: 'spring-line' });
  unit.chambers.forEach((group, i) => {
    axle(net, i === 0 ? '' : String(i + 1), group, {
      part: `chambers${i === 0 ? '' : `-${i + 1}`}`,
      feed,
      springs,
      hose: 12,
      sides,
    });
  });

  const rearSupply = net.node('rear supply', 0.1, { part: 'supply-cock' });
  const rearControl = net.node('rear service', 0.1, { part: 'service-cock' });
  net.way('modulator: exhaust', feed, OUTSIDE, 0, { does: 'exhaust', part: 'antilock' });
  net.way('supply cock', supply, rearSupply, 4, { does: 'cock', part: 'supply-cock' });
  net.way('service cock', control, rearControl, 4, { does: 'cock', part: 'service-cock' });
  if (isLast) {
    // Behind the last cocks there is nothing: what one lets by that is left open is lost.
    net.way('supply cock, open end', rearSupply, OUTSIDE, 0, { does: 'open end', ...red });
    net.way('service cock, open end', rearControl, OUTSIDE, 0, { does: 'open end', ...blue });
  }
  return { supplyLine: rearSupply, serviceLine: rearControl };
}
