import type { HoldAct, Procedure, Step } from '../procedure/procedure';
import { heatAfter, heatLater, type Climb, type Drop, type Heat } from '../leak/heat';
import type { LiveMark } from './runState';

/** A change between two marks that is no more than this says nothing of heat, psi. */
const CHANGE_PSI = 3;
/** How fast a needle climbs where no build-up was timed, psi/s. House value. */
const USUAL_CLIMB_PSI_PER_S = 0.8;
/** A stroke or a release came about so long before the needle was read after it, s. House value. */
const READ_AFTER_S = 4;

/**
 * What heat is still to do when a hold begins, from every mark made before it: between two of them the needle climbed,
 * and warmed the air, or was let down, and chilled it.
 *
 * @returns null where the hold has not begun: neither its settling nor its start is marked
 */
export function heatAtStart(
  procedure: Procedure,
  marks: readonly LiveMark[],
  step: Step & { act: HoldAct },
): Heat | null {
  const { settle, start } = step.act;
  const markOf = (key: string | undefined) =>
    marks.find((mark) => mark.stepId === step.id && mark.key === key) ?? null;
  const began = markOf(start.key);
  const settled = markOf(settle?.key);
  const from = settled ?? began;
  if (!from) return null;
  const heat = heatAt(from, procedure, marks);
  return began ? heatLater(heat, Math.max(0, (began.atMs - from.atMs) / 1000)) : heat;
}

function heatAt(ref: LiveMark, procedure: Procedure, marks: readonly LiveMark[]): Heat {
  const before = marks
    .filter((mark) => mark.atMs < ref.atMs && !isApart(mark, procedure))
    .sort((a, b) => a.atMs - b.atMs);
  const rate = climbRate(procedure, before);
  const cutOut = levelMark('cut-out', procedure, before);
  const climbs: Climb[] = [];
  const drops: Drop[] = [];
  const since = (atMs: number) => Math.max(0, (ref.atMs - atMs) / 1000);
  const all = [...before, ref];
  for (let i = 1; i < all.length; i += 1) {
    const from = all[i - 1]!;
    const to = all[i]!;
    if (sameHold(from, to, procedure)) continue;
    // What climbs after the cut-in climbs to cut-out; what is missing from that was let out again.
    const topPsi =
      cutOut && to.readingPsi > from.readingPsi && to.atMs > cutOut.atMs
        ? Math.max(to.readingPsi, cutOut.readingPsi)
        : to.readingPsi;
    const risePsi = topPsi - from.readingPsi;
    if (risePsi > CHANGE_PSI) {
      const apartS = (to.atMs - from.atMs) / 1000;
      const ratePsiPerS = Math.max(rate, risePsi / Math.max(apartS, 1));
      const earliestMs = from.atMs + (risePsi / ratePsiPerS) * 1000;
      climbs.push({ risePsi, ratePsiPerS, sinceS: [since(to.atMs), since(earliestMs)] });
    }
    const fallPsi = topPsi > to.readingPsi ? topPsi - to.readingPsi : -risePsi;
    if (fallPsi > CHANGE_PSI / 2) {
      drops.push({ dropPsi: fallPsi, sinceS: since(to.atMs) + READ_AFTER_S });
    }
  }
  return heatAfter(climbs, drops);
}

/** A climb rate by the build-up's marks, psi/s. */
function climbRate({ steps }: Procedure, marks: readonly LiveMark[]): number {
  for (const { id, reckon } of steps) {
    for (const each of reckon) {
      if (each.kind !== 'build-up') continue;
      const of = (key: string) => marks.find((mark) => mark.stepId === id && mark.key === key);
      const [from, to] = [of(each.fromKey), of(each.toKey)];
      if (!from || !to || to.atMs <= from.atMs || to.readingPsi <= from.readingPsi) continue;
      return ((to.readingPsi - from.readingPsi) / (to.atMs - from.atMs)) * 1000;
    }
  }
  return USUAL_CLIMB_PSI_PER_S;
}

function levelMark(
  figure: 'cut-out',
  { steps }: Procedure,
  marks: readonly LiveMark[],
): LiveMark | null {
  for (const { id, reckon } of steps) {
    for (const each of reckon) {
      if (each.kind !== 'level' || each.figure !== figure) continue;
      const found = marks.find((mark) => mark.stepId === id && mark.key === each.key);
      if (found) return found;
    }
  }
  return null;
}

const stepOf = ({ stepId }: LiveMark, { steps }: Procedure) =>
  steps.find((step) => step.id === stepId);

/** Read from another dial than the run's gauge, or at another place. */
function isApart(mark: LiveMark, procedure: Procedure): boolean {
  if (mark.suggested) return true;
  const step = stepOf(mark, procedure);
  if (step?.act.kind === 'hold') {
    const { other } = step.act;
    return other !== null && (mark.key === other.start.key || mark.key === other.end.key);
  }
  return (
    step?.reckon.some(
      (each) => each.kind === 'level' && each.key === mark.key && each.by !== undefined,
    ) ?? false
  );
}

/** Within one hold the needle falls too slowly to leave heat behind. */
function sameHold(a: LiveMark, b: LiveMark, procedure: Procedure): boolean {
  if (a.stepId !== b.stepId) return false;
  const step = stepOf(a, procedure);
  return step?.act.kind === 'hold';
}
