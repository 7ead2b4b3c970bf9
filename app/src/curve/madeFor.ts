import type { FoundAtParts, Unit } from '@keen-bleed/contract';
import type { CurvePoint } from '@keen-bleed/core/bench';
import type { Check } from '@keen-bleed/core/checks';

/** What the valve of a check is made to open at, psi, as it was read off it; null where nobody has. */
export const madeForPsi = (unit: Unit | undefined, { part }: Pick<Check, 'part'>): number | null =>
  // Relays have a crack pressure of their own.
  part.includes('relay')
    ? (unit?.parts?.find(({ partId }) => partId === part)?.setPsi ?? null)
    : null;

/** A curve that was read before. */
export interface EarlierCurve {
  atMs: number;
  points: readonly CurvePoint[];
}

/** Older ones only crowd the drawing. */
const MOST_EARLIER = 3;

/** What the same check gave before, the newest first. */
export const earlierCurves = (
  found: FoundAtParts,
  { id }: Pick<Check, 'id'>,
): readonly EarlierCurve[] =>
  found
    .flatMap(({ atMs, evidence }): EarlierCurve[] =>
      evidence?.kind === 'check' && evidence.checkId === id && evidence.answer.kind === 'points'
        ? [{ atMs, points: evidence.answer.points }]
        : [],
    )
    .sort((a, b) => b.atMs - a.atMs)
    .slice(0, MOST_EARLIER);
