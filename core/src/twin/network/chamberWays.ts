import type { AirBuild } from './airBuild';
import { axle } from './chambers';

/**
 * The chambers of one end's axle groups. Wheels of a side that hang on the same air are one place; one that is
 * connected otherwise has a place of its own.
 *
 * @param of how the ids of the groups begin, such as `rear-chambers`
 * @param called how their places begin, such as `rear`; empty on a towed unit
 * @param hose sonic conductance of one side's service hoses, dm³/(s·bar)
 */
export function chamberWays(build: AirBuild, of: string, called: string, hose: number): void {
  const groups = build.plumbing.parts.filter(
    ({ id, role }) => role === 'chambers' && (id === of || id.startsWith(`${of}-`)),
  );
  groups.forEach(({ id: part }, at) => {
    const wheels = build.plumbing.parts.filter(({ wheel }) => wheel?.of === part);
    const first = wheels[0]?.wheel;
    if (!first) return;
    const group = build.group(first.group);
    const known = new Map<
      string,
      { id: string; side: 'left' | 'right'; feed: number; springs: number | null; count: number }
    >();
    for (const { id, wheel } of wheels) {
      if (!wheel) continue;
      const side = build.options.sides === 'apart' ? wheel.side : 'left';
      const feed = build.at(id, 'service');
      const springs = group.springBrake ? build.at(id, 'spring') : null;
      const key = `${side} ${feed} ${springs ?? ''}`;
      const before = known.get(key);
      if (before) before.count += 1;
      else known.set(key, { id, side, feed, springs, count: 1 });
    }
    const usedSides = new Set<string>();
    for (const { id, side, feed, springs, count } of known.values()) {
      const name = [called, at === 0 ? '' : String(at + 1), side].filter(Boolean).join(' ');
      const isOwn = usedSides.has(side);
      usedSides.add(side);
      const share = (count * (build.options.sides === 'apart' ? 2 : 1)) / group.count;
      axle(build.net, isOwn ? `${name}, ${id.split('.')[1] ?? id}` : name, group, {
        part,
        feed,
        springs,
        hose: hose * share * (build.options.sides === 'apart' ? 1 : 2),
        springHoseShare: share * (build.options.sides === 'apart' ? 1 : 2),
        count,
      });
    }
  });
}
