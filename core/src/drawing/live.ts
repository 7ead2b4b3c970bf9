import { chamberOf } from '../rig/plumbing/ports';
import { plumbingOf } from '../rig/plumbing/plumbingOf';
import { unitsOf, type RigUnderTest } from '../rig/rigUnderTest';
import { airOf, type AirOptions } from '../twin/network/airOf';
import { placeInfo } from '../twin/network/placeKinds';
import type { Plan } from './plan';

/** What of a twin moves a symbol: places and ways by their number in the network. */
export interface SymbolAir {
  key: string;
  /** Whose pressure it shows; −1 where it shows none. */
  place: number;
  /** The valve whose state it shows, by id. */
  device: string | null;
  /** A latch whose state it shows where it is no such valve, by id. */
  latch: string | null;
}

/** What of a twin moves a line: the place it is part of, and the ways that carry what flows in it. */
export interface LineAir {
  key: string;
  place: number;
  ways: readonly number[];
}

/** How a drawing follows a twin's frames. */
export interface PlanAir {
  symbols: readonly SymbolAir[];
  lines: readonly LineAir[];
}

/** Binds a drawing to the network of the same rig, in the order of its symbols and lines. */
export function planAir(rig: RigUnderTest, plan: Plan, options: AirOptions = {}): PlanAir {
  const network = airOf(rig, options);
  const { nodes, elements, ports, latches } = network;
  const units = unitsOf(rig).map((unit) => plumbingOf(unit));
  const placeOf = (unit: number, part: string): number => {
    const of = (test: (n: number) => boolean) =>
      nodes.findIndex((node, n) => node.unit === unit && node.part === part && test(n));
    const tank = of((n) => placeInfo(nodes[n]!.kind).isTank ?? false);
    if (tank >= 0) return tank;
    const delivery = ports.find(
      (port) =>
        port.unit === unit &&
        port.part === part &&
        /^(delivery|out|air|rear|service)/.test(port.port),
    );
    return delivery?.node ?? of(() => true);
  };
  const wheelPlace = (unit: number, part: string, side: string): number => {
    const group = part.split('.')[0];
    const at = nodes.findIndex(
      (node) =>
        node.unit === unit &&
        node.part === group &&
        node.kind === 'service chamber' &&
        node.role.endsWith(side),
    );
    return at >= 0
      ? at
      : nodes.findIndex(
          (node) => node.unit === unit && node.part === group && node.kind === 'service chamber',
        );
  };
  const symbols = plan.symbols.map(({ key, unit, part, role, side }): SymbolAir => ({
    key,
    place: role === 'chamber' ? wheelPlace(unit, part, side) : placeOf(unit, part),
    device:
      elements.find((way) => way.unit === unit && way.part === part && way.does === 'inlet')?.valve
        ?.id ?? null,
    latch: latches.find((latch) => latch.unit === unit && latch.part === part)?.id ?? null,
  }));
  const lines = plan.lines.map(({ key, unit, line, from, to }): LineAir => {
    const plumbed = units[unit];
    const found = plumbed?.lines.find(({ id }) => id === line);
    const role = plumbed?.parts.find(({ id }) => id === (found?.from.part ?? ''))?.role;
    const place = found
      ? (ports.find(
          (port) =>
            port.unit === unit &&
            port.part === found.from.part &&
            port.port === (role ? chamberOf(role, found.from.port) : found.from.port),
        )?.node ?? -1)
      : placeOf(unit, to);
    // What comes through it is what the part behind it takes from that place, or what is in front gives.
    const group = to.split('.')[0];
    const side = to.includes('right') ? 'right' : to.includes('left') ? 'left' : '';
    const ways = elements.flatMap((way, n) =>
      way.unit === unit &&
      (way.part === to || way.part === group) &&
      (way.from === place || way.to === place) &&
      way.to >= 0 &&
      (side === '' || way.id.includes(side) || !/left|right/.test(way.id))
        ? [n]
        : [],
    );
    const given = elements.flatMap((way, n) =>
      way.unit === unit && way.part === from && way.to === place ? [n] : [],
    );
    return { key, place, ways: ways.length > 0 ? ways : given };
  });
  return { symbols, lines };
}
