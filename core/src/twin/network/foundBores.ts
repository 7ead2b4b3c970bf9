import { chamberOf } from '../../rig/plumbing/ports';
import type { AirBuild } from './airBuild';

/** Sonic conductance of a usual line of this bore, dm³/(s·bar): the rear control line's 8 for its 10 mm. */
const USUAL = { conductance: 8, boreMm: 10 } as const;

/** Lines whose bore was measured, as ways of their own: they pass by their section. */
export function foundBores(build: AirBuild): void {
  const { parts, lines } = build.plumbing;
  for (const { id, from, to, boreMm } of lines) {
    const [one, other] = [from, to].map(({ part }) => parts.find((each) => each.id === part));
    if (boreMm === null || !one || !other) continue;
    const ends = [
      build.at(from.part, chamberOf(one.role, from.port)),
      build.at(to.part, chamberOf(other.role, to.port)),
    ] as const;
    if (ends[0] === ends[1]) continue;
    build.net.way(`line: ${id}`, ...ends, USUAL.conductance * (boreMm / USUAL.boreMm) ** 2, {
      part: to.part,
    });
  }
}
