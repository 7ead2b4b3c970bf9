import type { Check, CheckAnswer } from '../checks/check';
import { NOTHING } from '../checks/walkChecks';
import type { Wetted } from './budget';

/** A walk round with an open ear before anything is wetted: what was named as the loudest. */
export interface Heard {
  /** Whose joints were named; null where it was quiet all round, or where an exhaust was named. */
  place: string | null;
  /** Places that it passed, all of them under air. */
  among: readonly string[];
  atMs: number;
}

/** How ears err; shares, and scfm for a hiss heard close by. */
export interface Ears {
  missed: number;
  imagined: number;
  heardQuietScfm: number;
}

export const USUAL_EARS: Ears = { missed: 0.1, imagined: 0.02, heardQuietScfm: 0.1 };

/** From two paces away air has to be so much louder than at an ear held close [common practice, no source]. */
const FROM_AFAR = 2.5;
/** Louder than its threshold by a little it is heard now and then: how steeply that rises. */
const STEEP = 4;
/** The one beside is named for the right one so often [common practice, no source]. */
const BESIDE = 0.1;
/** Something that is none of the joints is named this much more often than is imagined. */
const ELSE = 0.02;

/**
 * How many times likelier what was heard is with a leak at a place than with none.
 *
 * @param scfm what it loses, free air
 * @param of walks that count: those whose name is not already explained by a leak that was found
 */
export function heardRatio(
  place: string,
  scfm: number,
  of: readonly Heard[],
  { missed, imagined, heardQuietScfm }: Ears = USUAL_EARS,
): number {
  let ratio = 1;
  for (const { place: named, among } of of) {
    if (!among.includes(place)) continue;
    const heard = (1 - missed) / (1 + ((FROM_AFAR * heardQuietScfm) / scfm) ** STEEP);
    const strange = (imagined + ELSE) / among.length;
    // Quiet is as likely to be said of an unheard leak as of none.
    if (named === null) ratio *= 1 - heard;
    else {
      const right = named === place ? 1 - BESIDE : BESIDE / Math.max(1, among.length - 1);
      ratio *= (heard * right + (1 - heard) * strange) / strange;
    }
  }
  return ratio;
}

/** The newest walk of each set of places whose name no leak explains that was found since. */
export function heardThatCounts(heard: readonly Heard[], wetted: readonly Wetted[]): Heard[] {
  const found = wetted.filter(({ grade }) => grade !== 'dry');
  const newest = new Map<string, Heard>();
  for (const each of heard) {
    const key = each.among.join();
    const before = newest.get(key);
    if (!before || before.atMs <= each.atMs) newest.set(key, each);
  }
  return [...newest.values()].filter(
    ({ place, among, atMs }) =>
      // A leak that was found there is what was heard, and drowns the rest; one mended before it was not.
      !found.some(
        (leak) =>
          (leak.place === place || (place !== null && among.includes(leak.place))) &&
          (leak.mendedAtMs === null || leak.mendedAtMs > atMs),
      ),
  );
}

/** What a walk with an open ear gave, as a hunt takes it; null for any other check, and where an exhaust was named. */
export function heardOf(
  { doing }: Pick<Check, 'doing'>,
  answer: CheckAnswer,
  atMs: number,
): Heard | null {
  if (doing.does !== 'walk' || doing.of !== 'air' || answer.kind !== 'choice') return null;
  const joints = doing.spots.filter(({ is }) => is === 'joints');
  const among = joints.map(({ at }) => at);
  if (answer.choice === NOTHING) return { place: null, among, atMs };
  const named = joints.find(({ id }) => id === answer.choice);
  return named ? { place: named.at, among, atMs } : null;
}
