import type { Unit, UnitDraft } from '@keen-bleed/contract';
import type { Plumbing, PlumbingProblem } from './plumbing';
import { plumbingOf } from './plumbingOf';

/** Problems with which there is no telling where air goes. */
const STOPS: ReadonlySet<PlumbingProblem['what']> = new Set(['no-port', 'no-part', 'loop']);

/**
 * The parts and lines of a unit as its air is made of them. Lines whose ends are at nothing are taken as they usually
 * are, so that what was said of one line never takes a unit's air away; its problems tell of it.
 */
export function plumbingThatRuns(unit: Pick<Unit, keyof UnitDraft>): Plumbing {
  const said = plumbingOf(unit);
  const bad = new Set(said.problems.flatMap(({ at, what }) => (STOPS.has(what) ? [at] : [])));
  if (bad.size === 0) return said;
  const lines = (unit.lines ?? []).filter(({ lineId }) => !bad.has(lineId));
  const runs = plumbingOf({ ...unit, lines });
  return { ...runs, problems: said.problems };
}
