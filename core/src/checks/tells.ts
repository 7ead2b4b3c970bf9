import { climbing, deliveryAt } from '../bench/curve';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { effectsOf, type Fault } from '../twin/faults/fault';
import { Twin, type TwinSite } from '../twin/twin';
import type { Effect } from '../twin/effects';
import { bring } from './bring';
import { PERFECT_SENSES, type Check, type CheckAnswer, type RigStateId } from './check';
import { hasFault, NO_CHANCE, observed } from './observe';

/**
 * How far apart two answers of one check are, in standard deviations of what gauges and sound rigs differ by; a grade
 * or a choice that differs counts as ten.
 */
export function apart({ answer }: Check, one: CheckAnswer, other: CheckAnswer): number {
  if (one.kind === 'number' && other.kind === 'number' && answer.kind === 'number') {
    const by = Math.hypot(answer.error, answer.spread, answer.resolution / Math.sqrt(12));
    return Math.abs(one.value - other.value) / by;
  }
  if (one.kind === 'points' && other.kind === 'points' && answer.kind === 'points') {
    const by = Math.hypot(answer.error, answer.spread, answer.resolution / Math.sqrt(12));
    return Math.max(
      0,
      // What comes out for what goes in, going up; the other may have been read at other pressures.
      ...climbing(one.points).map(
        ([from, to]) => Math.abs(to - deliveryAt(other.points, from)) / by,
      ),
    );
  }
  const said = (each: CheckAnswer) =>
    each.kind === 'grade' ? each.grade : each.kind === 'choice' ? each.choice : '';
  return said(one) === said(other) ? 0 : 10;
}

/** Walks that move nothing. */
const STILL: ReadonlySet<string> = new Set(['air', 'strokes', 'water']);

/** Apart by so much, a check tells one from the other. */
export const TELLS = 3;

/**
 * Does every check on a rig as it is with some faults, each from a moment of its state.
 *
 * @param drawn what else sets the rig apart from its paper
 */
export function doAll(
  rig: RigUnderTest,
  checks: readonly Check[],
  faults: readonly { fault: Fault; severity: number }[],
  site: TwinSite = {},
  drawn: readonly Effect[] = [],
): ReadonlyMap<string, CheckAnswer> {
  const answers = new Map<string, CheckAnswer>();
  const byState = new Map<RigStateId, Check[]>();
  for (const check of checks)
    byState.set(check.state.id, [...(byState.get(check.state.id) ?? []), check]);
  const ids = faults.map(({ fault, severity }) => hasFault(fault, severity));
  const start = new Twin(rig, { tanksPsi: 90, ...site });
  start.apply(drawn);
  start.apply(faults.flatMap(({ fault, severity }) => effectsOf(fault, severity)));
  const found = start.save();
  for (const some of byState.values()) {
    start.restore(found);
    bring(start, some[0]!.state);
    const inState = start.save();
    for (const check of some) {
      const isStill =
        check.doing.does === 'listen' ||
        check.doing.does === 'wet' ||
        check.doing.does === 'read' ||
        (check.doing.does === 'walk' && STILL.has(check.doing.of));
      answers.set(check.id, observed(start, check, PERFECT_SENSES, NO_CHANCE, ids));
      if (!isStill) start.restore(inState);
    }
  }
  return answers;
}
