import type { Unit } from '@keen-bleed/contract';
import type { NetworkBuilder } from './network';
import { pa } from './pascal';

const WARNS_AT_PSI = 62;
const WARNING_OFF_PSI = 76;
const STOP_LAMP_PSI = 5;

/** The low-air and stop-lamp switches of a powered unit. */
export function switches(
  net: NetworkBuilder,
  unit: Unit,
  { supply, primary, secondary }: { supply: number; primary: number; secondary: number },
  { frontSignal, rearSignal }: { frontSignal: number; rearSignal: number },
): void {
  const dual = unit.circuits === 'dual';
  // Some vehicles have a single switch on the supply tank [trade].
  const watched =
    unit.air?.lowAirSwitches === 'supply-tank'
      ? ([['supply', supply]] as const)
      : ([['primary', primary], ...(dual ? [['secondary', secondary] as const] : [])] as const);
  for (const [name, node] of watched) {
    net.latch({
      id: `${name} warning`,
      role: 'low-air switch',
      part: `${name}-low-air-switch`,
      node,
      lowPa: pa(WARNS_AT_PSI),
      highPa: pa(WARNING_OFF_PSI),
    });
  }
  const lamp = {
    role: 'stop-lamp switch',
    lowPa: pa(STOP_LAMP_PSI - 1),
    highPa: pa(STOP_LAMP_PSI),
  } as const;
  if (unit.air?.stopLampSwitches === 'two') {
    const [one, two] = ['primary-stop-lamp-switch', 'secondary-stop-lamp-switch'] as const;
    net.latch({ ...lamp, id: 'primary stop lamp', part: one, node: rearSignal });
    net.latch({ ...lamp, id: 'secondary stop lamp', part: two, node: frontSignal });
    return;
  }
  // One switch behind a double check: it feels the higher of both circuits.
  net.latch({
    ...lamp,
    id: 'stop lamp',
    part: 'stop-lamp-switch',
    node: rearSignal,
    orNode: frontSignal,
  });
}
