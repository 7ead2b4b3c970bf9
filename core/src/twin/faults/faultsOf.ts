import type { RigUnderTest } from '../../rig/rigUnderTest';
import { Twin } from '../twin';
import { circuitFaults } from './circuitFaults';
import { blocked, type Fault } from './fault';
import { supplyFaults } from './supplyFaults';
import { towedFaults } from './towedFaults';

/** Outside air under this lets water in the lines freeze, °C. */
const FREEZES_UNDER_C = 2;

/**
 * What can be wrong on a rig: only faults of parts that it has.
 *
 * @param outsideC outside air, °C: nothing ices over in warm air
 */
export function faultsOf(rig: RigUnderTest, outsideC = 20): Fault[] {
  const twin = new Twin(rig);
  const freezes = outsideC < FREEZES_UNDER_C;
  const towed = twin.system.network.nodes
    .filter(({ name, role }) => role === 'tank' && name !== role)
    .map(({ name }) => name.slice(0, -' tank'.length))
    .flatMap((name) => towedFaults(name, twin, freezes));
  const powered = twin.hasPlace('governor line')
    ? [
        ...supplyFaults,
        ...(freezes
          ? [blocked('purge valve', 'dryer purge valve', 'iced shut: water stays in', 2, 0.05, 0)]
          : []),
      ]
    : [];
  return [...powered, ...circuitFaults(twin), ...towed];
}
