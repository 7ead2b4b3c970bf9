import type { Trace } from './segments';

/** Two ports stand still: neither moves by more than this, psi, over so many seconds. */
const STILL_PSI = 0.8;
const STILL_S = 1.5;
/** The first port has been asked for something else once it moved by so much, psi. */
const MOVED_PSI = 1.5;
/** A record takes no more points. */
const MOST_POINTS = 60;

/**
 * The points of a valve's curve in two recorded lines: where both stood still, one for each pressure that was asked for,
 * in the order they came. What was recorded on the move is left out: there the second is late, not low.
 *
 * @param from, to psi at the same moments
 * @returns psi against psi, at most 60
 */
export function steadyPoints(from: Trace, to: Trace): (readonly [from: number, to: number])[] {
  const { seconds } = from;
  const points: { psi: number; to: number; s: number; n: number }[] = [];
  let start = 0;
  for (let end = 0; end < seconds.length; end += 1) {
    while (seconds[end]! - seconds[start]! > STILL_S) start += 1;
    const one = over(from.psi, start, end);
    const other = over(to.psi, start, end);
    if (!one || !other || seconds[end]! - seconds[start]! < STILL_S * 0.7) continue;
    if (one.range > STILL_PSI || other.range > STILL_PSI) continue;
    const last = points.at(-1);
    if (last && Math.abs(one.mean - last.psi) < MOVED_PSI) {
      // The same step, held on: the last of it counts most, when everything has come to rest.
      last.psi = one.mean;
      last.to = other.mean;
      last.s = seconds[end]!;
      last.n += 1;
    } else points.push({ psi: one.mean, to: other.mean, s: seconds[end]!, n: 1 });
  }
  const every = Math.ceil(points.length / MOST_POINTS);
  return points
    .filter((_, n) => every <= 1 || n % every === 0)
    .map(({ psi, to: out }) => [Math.max(0, psi), Math.max(0, out)] as const);
}

function over(
  psi: Float64Array,
  start: number,
  end: number,
): { mean: number; range: number } | null {
  let least = Infinity;
  let most = -Infinity;
  let sum = 0;
  let count = 0;
  for (let n = start; n <= end; n += 1) {
    const value = psi[n]!;
    if (Number.isNaN(value)) continue;
    least = Math.min(least, value);
    most = Math.max(most, value);
    sum += value;
    count += 1;
  }
  return count < 3 ? null : { mean: sum / count, range: most - least };
}
