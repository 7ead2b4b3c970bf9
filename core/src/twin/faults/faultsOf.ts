import { unitsOf, type RigUnderTest } from '../../rig/rigUnderTest';
import { unitTitle } from '../../rig/unitTitle';
import { Twin } from '../twin';
import { circuitFaults } from './circuitFaults';
import type { Fault } from './fault';
import { parkFaults } from './parkFaults';
import { supplyFaults } from './supplyFaults';
import { switchFaults } from './switchFaults';
import { towedFaults } from './towedFaults';
import { trailerControlFaults } from './trailerControlFaults';

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
  const units = unitsOf(rig);
  const towed = twin.towedUnits.flatMap((at) => {
    const unit = units[at];
    return unit ? towedFaults(at, unitTitle(unit), twin, freezes) : [];
  });
  const powered = twin.hasPlace('governor line')
    ? [
        ...supplyFaults(twin, freezes),
        ...circuitFaults(twin),
        ...parkFaults(twin),
        ...switchFaults(twin),
        ...trailerControlFaults(twin),
      ]
    : [];
  return [...powered, ...towed].filter((fault) => isOf(twin, fault));
}

/** Whether a rig has all that a fault changes: what is not fitted cannot fail. */
const isOf = (twin: Twin, { at, does }: Fault): boolean =>
  does.every((effect) => {
    if ('place' in effect) return twin.hasPlace(effect.place);
    if ('way' in effect) return twin.hasWay(effect.way);
    if ('latch' in effect) return twin.hasLatch(effect.latch);
    return true;
  }) &&
  (at === 'compressor' || twin.hasPlace(at) || twin.hasWay(at) || twin.hasLatch(at));

/** Which part of which unit of the rig a fault is of. */
export function partOf({ at }: Pick<Fault, 'at'>, twin: Twin): { unit: number; part: string } {
  if (at === 'compressor') return { unit: 0, part: 'compressor' };
  const { nodes, elements, latches } = twin.system.network;
  const found =
    nodes.find(({ id }) => id === at) ??
    elements.find(({ id }) => id === at) ??
    latches.find(({ id }) => id === at);
  if (found?.part == null) throw new Error(`no part of this rig is at ${at}`);
  return { unit: found.unit, part: found.part };
}
