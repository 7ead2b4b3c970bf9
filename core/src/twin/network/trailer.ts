import type { Unit } from '@keen-bleed/contract';
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

/** One towed unit behind `ends`: couplers, tank, relay, springs, and the couplers at its own rear. */
export function trailer(
  net: NetworkBuilder,
  unit: Unit,
  name: string,
  ends: VehicleEnds,
  { load, sides }: { load: number; sides: Sides },
): VehicleEnds {
  net.towed = name;
  const supply = net.node(`${name} supply line`, 1);
  const control = net.node(`${name} service line`, 0.8);
  net.way(`${name} supply coupler`, ends.supplyLine, supply, 4);
  net.way(`${name} service coupler`, ends.serviceLine, control, 4);
  net.way(`${name} supply on service coupler`, ends.supplyLine, control, 0);
  net.way(`${name} service on supply coupler`, ends.serviceLine, supply, 0);
  // Open ends, where nothing is coupled.
  net.way(`${name} supply coupler, front`, ends.supplyLine, OUTSIDE, 0);
  net.way(`${name} supply coupler, rear`, supply, OUTSIDE, 0);
  net.way(`${name} service coupler, front`, ends.serviceLine, OUTSIDE, 0);
  net.way(`${name} service coupler, rear`, control, OUTSIDE, 0);

  const air = tank(net, `${name} tank`, volumeOf(unit, 'trailer') || 2850);
  net.way(`${name} tank fill`, supply, air, 3, [
    {
      on: [
        [supply, 1],
        [air, -1],
      ],
      biasPa: -3_000,
      bandPa: 6_000,
    },
    { on: [[supply, 1]], biasPa: -pa(TANK_FILLS_OVER_PSI), bandPa: pa(5) },
  ]);
  net.way(`${name} drain`, air, OUTSIDE, 4);

  const sprung = unit.chambers.some((group) => group.springBrake);
  let relayControl = control;
  if (!sprung) {
    relayControl = net.node(`${name} relay control`, 0.15);
    net.way(`${name} emergency`, air, relayControl, 3, [
      { on: [[supply, -1]], biasPa: pa(EMERGENCY_PSI), bandPa: pa(8) },
    ]);
    net.way(`${name} service to relay`, control, relayControl, 4, [
      { on: [[supply, 1]], biasPa: -pa(EMERGENCY_PSI), bandPa: pa(8) },
    ]);
  }
  if (unit.chambers.some((group) => group.loadSensing)) {
    const scaled = net.node(`${name} load control`, 0.05);
    loadSensing(net, `${name} load-sensing valve`, relayControl, scaled, air, load);
    relayControl = scaled;
  }
  const feed = net.node(`${name} delivery`, 0.3);
  relayValve(net, `${name} relay`, relayControl, air, feed, { conductance: 18 });
  const springs = sprung ? net.node(`${name} spring line`, 0.3) : null;
  if (springs !== null) net.way(`${name} spring feed`, supply, springs, 3);
  unit.chambers.forEach((group, i) => {
    axle(net, `${name}${i === 0 ? '' : ` ${i + 1}`}`, group, { feed, springs, hose: 10, sides });
  });

  const rearSupply = net.node(`${name} rear supply`, 0.1);
  const rearControl = net.node(`${name} rear service`, 0.1);
  net.way(`${name} supply cock`, supply, rearSupply, 4);
  net.way(`${name} service cock`, control, rearControl, 4);
  net.towed = null;
  return { supplyLine: rearSupply, serviceLine: rearControl };
}
