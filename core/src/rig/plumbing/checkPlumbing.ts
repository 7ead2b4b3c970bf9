import type { Unit } from '@keen-bleed/contract';
import { hasCompressor } from '../hasCompressor';
import type { PlumbedLine, PlumbedPart, PlumbingProblem } from './plumbing';
import { chamberOf, portTitle } from './ports';

/**
 * What cannot be of some parts and lines: a port that is not there, two lines on one port, a line that ends where it
 * began, a tank nothing feeds, brakes no air reaches, a part nobody has placed.
 */
export function checkPlumbing(
  unit: Pick<Unit, 'kind'>,
  parts: readonly PlumbedPart[],
  lines: readonly PlumbedLine[],
): PlumbingProblem[] {
  const byId = new Map(parts.map((part) => [part.id, part]));
  const problems: PlumbingProblem[] = [];
  const titleOf = (id: string) => byId.get(id)?.title ?? `“${id}”`;
  const onPort = new Map<string, string[]>();
  for (const { id, title, from, to } of lines) {
    for (const end of [from, to]) {
      const part = byId.get(end.part);
      if (!part) {
        problems.push({
          at: id,
          what: 'no-part',
          text: `${title} goes to ${titleOf(end.part)}, which is not fitted: connect it elsewhere, or take it away.`,
        });
      } else if (portTitle(part.role, end.port) === null) {
        problems.push({
          at: id,
          what: 'no-port',
          text: `${title} goes to a port “${end.port}” that ${part.title.toLowerCase()} does not have: choose one of its ports.`,
        });
      } else {
        const key = `${end.part} ${end.port}`;
        onPort.set(key, [...(onPort.get(key) ?? []), id]);
      }
    }
    const [one, other] = [byId.get(from.part), byId.get(to.part)];
    if (one && one === other && chamberOf(one.role, from.port) === chamberOf(one.role, to.port)) {
      problems.push({
        at: id,
        what: 'loop',
        text: `${title} ends where it begins, at ${one.title.toLowerCase()}: its other end goes somewhere else.`,
      });
    }
  }
  for (const [key, ids] of onPort) {
    if (ids.length < 2) continue;
    const [partId = '', port = ''] = key.split(' ');
    const part = byId.get(partId)!;
    problems.push({
      at: ids[1]!,
      what: 'two-lines',
      text: `${ids.length} lines are on one port, ${portTitle(part.role, port)?.toLowerCase()} of ${part.title.toLowerCase()}: give each a port of its own.`,
    });
  }
  for (const part of parts) {
    if (part.place.row >= 50) {
      problems.push({
        at: part.id,
        what: 'no-place',
        text: `${part.title} has no place yet: say where it sits.`,
      });
    }
  }
  return [...problems, ...feedProblems(unit, parts, lines)];
}

/** Which ports of a part air goes between, and which way: from what it is fed by to what it feeds. */
function feeds({ role }: PlumbedPart, port: string): readonly string[] {
  const chamber = chamberOf(role, port);
  switch (role) {
    case 'tank':
      return ['air'];
    case 'compressor':
      return [];
    case 'foot-valve':
      return chamber === 'supply-1' ? ['delivery-1'] : chamber === 'supply-2' ? ['delivery-2'] : [];
    case 'relay':
    case 'park-relay':
    case 'load-sensing':
      return chamber === 'supply' ? ['delivery'] : [];
    case 'relay-emergency':
      return chamber === 'supply' ? ['delivery'] : chamber === 'emergency' ? ['supply'] : [];
    case 'double-check':
      return chamber === 'out' ? [] : ['out'];
    case 'hand-brake-valve':
      return chamber === 'supply' ? ['park', 'trailer'] : [];
    case 'trailer-control-valve':
      return chamber === 'supply' ? ['red', 'blue'] : [];
    case 'tractor-protection':
      return chamber === 'signal' ? ['service'] : [];
    case 'modulating-valve':
      return [];
    case 'coupler':
      return ['rear'];
    default:
      return chamber === 'out' || chamber === 'delivery' ? [] : ['out', 'delivery'];
  }
}

/** Where air gets to from the compressor, or from the couplers of a towed unit; and what it does not reach. */
function feedProblems(
  unit: Pick<Unit, 'kind'>,
  parts: readonly PlumbedPart[],
  lines: readonly PlumbedLine[],
): PlumbingProblem[] {
  const byId = new Map(parts.map((part) => [part.id, part]));
  const keyOf = (part: PlumbedPart, chamber: string) => `${part.id} ${chamber}`;
  const ends = new Map<string, { part: PlumbedPart; port: string }[]>();
  for (const { from, to } of lines) {
    const [one, other] = [byId.get(from.part), byId.get(to.part)];
    if (!one || !other) continue;
    const [a, b] = [
      keyOf(one, chamberOf(one.role, from.port)),
      keyOf(other, chamberOf(other.role, to.port)),
    ];
    ends.set(a, [...(ends.get(a) ?? []), { part: other, port: to.port }]);
    ends.set(b, [...(ends.get(b) ?? []), { part: one, port: from.port }]);
  }
  const reached = new Set<string>();
  const todo: [PlumbedPart, string][] = parts.flatMap((part): [PlumbedPart, string][] =>
    hasCompressor(unit.kind)
      ? part.role === 'compressor'
        ? [[part, 'delivery']]
        : []
      : part.role === 'coupler'
        ? [[part, 'front']]
        : [],
  );
  for (let next = todo.pop(); next; next = todo.pop()) {
    const [part, chamber] = next;
    const key = keyOf(part, chamber);
    if (reached.has(key)) continue;
    reached.add(key);
    for (const out of feeds(part, chamber)) todo.push([part, out]);
    for (const { part: other, port } of ends.get(key) ?? [])
      todo.push([other, chamberOf(other.role, port)]);
  }
  return parts.flatMap((part): PlumbingProblem[] => {
    const at = part.role === 'tank' ? 'air' : part.role === 'chamber' ? 'service' : null;
    if (at === null || reached.has(keyOf(part, at))) return [];
    return [
      {
        at: part.id,
        what: 'no-feed',
        text:
          part.role === 'tank'
            ? `Nothing feeds ${part.title.toLowerCase()}: a line must bring it air.`
            : `No air can reach ${part.title.toLowerCase()}: follow its hose back to where it is cut off.`,
      },
    ];
  });
}
