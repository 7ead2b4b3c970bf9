import type { QuietEnd } from './leakEstimate';
import type { HoldMark } from './leakRate';

/**
 * Where the needle stands at the end of a hold that ended without a reading, psi: as far under the last line as the pace
 * before takes it, and never at or past the next one. With no line crossed it is halfway to it.
 *
 * @param marks in their order, at least one
 */
export function needleAtEnd(marks: readonly HoldMark[], quiet: QuietEnd): number {
  const last = marks.at(-1)!;
  const before = marks.at(-2);
  if (!before) return (last.readingPsi + quiet.belowPsi) / 2;
  const restS = (quiet.untilMs - last.atMs) / 1000;
  const sinceS = (last.atMs - before.atMs) / 1000;
  if (sinceS <= 0) return last.readingPsi;
  // A crossing is where its line is; a reading was anywhere within half of what it was read to.
  const either = before.method === 'crossing' ? 0 : before.resolutionPsi / 2;
  const fallPsi = before.readingPsi - last.readingPsi;
  const most = Math.min(
    Math.max(0, fallPsi + either) / sinceS,
    (last.readingPsi - quiet.belowPsi) / restS,
  );
  const least = Math.min(Math.max(0, fallPsi - either) / sinceS, most);
  return last.readingPsi - ((least + most) / 2) * restS;
}
