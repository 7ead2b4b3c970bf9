import type { PlumbedLine, PlumbedPart } from '../rig/plumbing/plumbing';
import { chamberOf } from '../rig/plumbing/ports';

/** By line: the air it is part of, so that lines of the same air can leave as one. */
export function netsOf(
  parts: readonly PlumbedPart[],
  lines: readonly PlumbedLine[],
): ReadonlyMap<string, string> {
  const roles = new Map(parts.map(({ id, role }) => [id, role]));
  const ups = new Map<string, string>();
  const root = (key: string): string => {
    let at = key;
    for (let up = ups.get(at); up !== undefined; up = ups.get(at)) at = up;
    return at;
  };
  const keyOf = (part: string, port: string) => {
    const role = roles.get(part);
    // What runs through a line is the same air at both its ends.
    return role === 'line' ? `${part} pipe` : `${part} ${role ? chamberOf(role, port) : port}`;
  };
  for (const { from, to } of lines) {
    const [a, b] = [root(keyOf(from.part, from.port)), root(keyOf(to.part, to.port))];
    if (a !== b) ups.set(b, a);
  }
  return new Map(lines.map(({ id, from }) => [id, root(keyOf(from.part, from.port))]));
}
