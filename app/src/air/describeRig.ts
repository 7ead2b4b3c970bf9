import { placeInfo, type Network } from '@keen-bleed/core/twin';
import type { DrawnRig } from './drawnRig';

/** What a rig’s air is made of, in words. */
export function describeRig({ nodes, elements }: Network): DrawnRig {
  return {
    places: nodes.map(({ id, name, kind, unit, part }) => {
      const { circuit, ports, isTank } = placeInfo(kind);
      return { id, name, kind, circuit, ports: ports ?? null, isTank: isTank ?? false, unit, part };
    }),
    ways: elements.map(({ id, name, from, to, does, valve, unit, part }) => ({
      id,
      unit,
      part,
      name,
      from,
      to,
      valve: does === 'inlet' ? (valve?.id ?? null) : null,
    })),
  };
}
