import type { Figure, FigureId, Finding } from '@keen-bleed/contract';
import { headVerdict } from './figureParts';

/** Figures on which the brakes themselves hang: they weigh twice. House choice. */
const HEAVY: ReadonlySet<FigureId> = new Set<FigureId>([
  'static-leak',
  'static-leak-other',
  'applied-leak',
  'applied-leak-other',
  'warning',
  'pop-out-park',
  'pop-out-trailer',
]);
/** A bad finding weighs as much as a figure that is outside its limit by this share of it. House choice. */
const FINDING_WEIGHS = 0.75;

/** How far a figure lies outside its limit, as a share of it, by the number that heads its record. */
function excess({ value, read, asRead, verdict, heads, limit }: Figure): number {
  const number = heads === 'as-read' && asRead === 'fail' ? (read ?? value) : value;
  if (number === null || !limit || (asRead !== 'fail' && verdict !== 'fail')) return 0;
  const over = limit.max === null ? 0 : (number - limit.max) / Math.max(limit.max, 1);
  const under = limit.min === null ? 0 : (limit.min - number) / Math.max(limit.min, 1);
  return Math.max(over, under, 0);
}

const weight = (figure: Figure) => (HEAVY.has(figure.id) ? 2 : 1) * (0.01 + excess(figure));

/** The figure a record hangs on: the worst of those that fail, else the least likely of those that can't be told. */
export function decisiveFigure(figures: readonly Figure[]): Figure | null {
  const failed = figures.filter((figure) => headVerdict(figure) === 'fail');
  if (failed.length > 0) return most(failed, weight);
  const open = figures.filter((figure) => isOpen(figure));
  return open.length > 0 ? most(open, ({ within }) => 1 - (within ?? 0.5)) : null;
}

/** Cannot be told, and not for dial or stroke alone where it passes as read: that is said once for the whole record. */
export function isOpen(figure: Figure): boolean {
  return headVerdict(figure) === 'cant-tell' && !isOpenAsRead(figure);
}

/** Passes as read, and only the dial's allowance, or the stroke in which it happened, leaves it open. */
export const isOpenAsRead = ({ openBy, asRead, verdict }: Figure): boolean =>
  verdict === 'cant-tell' && openBy !== undefined && asRead === 'pass';

/** The bad finding that heads a record before its worst figure, or null. */
export function decisiveFinding(
  findings: readonly Finding[],
  decisive: Figure | null,
): Finding | null {
  const bad = findings.find(({ standing }) => standing === 'bad') ?? null;
  if (!bad || decisive === null || headVerdict(decisive) !== 'fail') return bad;
  return weight(decisive) < FINDING_WEIGHS ? bad : null;
}

function most<T>(list: readonly T[], of: (each: T) => number): T {
  return list.reduce((best, each) => (of(each) > of(best) ? each : best));
}
