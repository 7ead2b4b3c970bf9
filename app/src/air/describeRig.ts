import { unitsOf, type RigUnderTest } from '@keen-bleed/core';
import { placeInfo, type Network, type WayDoes } from '@keen-bleed/core/twin';
import type { DrawnRig } from './drawnRig';
import { layOut } from './layOut';
import { outline } from './outline';

/** What only a fault or a hand on the couplers makes, and what goes back through a valve that is drawn already. */
const NOT_DRAWN: ReadonlySet<WayDoes> = new Set(['seal', 'crossed', 'open end', 'back']);

/** What is drawn of a rig’s air, and where it stands. */
export function describeRig({ nodes, elements }: Network, rig: RigUnderTest): DrawnRig {
  const units = unitsOf(rig);
  const places = nodes.map(({ id, name, role, kind, unit }) => {
    const { circuit, ports, isTank } = placeInfo(kind);
    return {
      id,
      name,
      short: name === role ? role : `${units[unit]?.number ?? ''} ${role}`,
      kind,
      circuit,
      ports: ports ?? null,
      isTank: isTank ?? false,
    };
  });
  const ways = elements.map(({ id, name, from, to, openings, does, valve }) => ({
    id,
    name,
    from,
    to,
    valve: does === 'inlet' ? (valve?.id ?? null) : null,
    device: openings.length > 0,
    drawn: from >= 0 && to >= 0 && !NOT_DRAWN.has(does),
  }));
  const across = layOut(places, ways);
  return { places, ways, layouts: { across, down: outline(across, ways) } };
}
