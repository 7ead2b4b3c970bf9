import type { Box, PlanLabel } from './plan';
import { LABEL } from './sizes';

const widthOf = (lines: readonly string[]): number =>
  Math.max(0, ...lines.map((line) => line.length)) * LABEL.perLetter;

export const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** Between a symbol and its name, px. */
const GAP = 2;

/** A name in the first place beside its symbol that nothing else has: below, above, right, left. */
export function placedLabel(
  lines: readonly string[],
  symbol: Box,
  taken: readonly Box[],
  within: { width: number; height: number },
): PlanLabel | null {
  if (lines.length === 0) return null;
  const width = widthOf(lines);
  const height = lines.length * LABEL.line;
  const [cx, cy] = [symbol.x + symbol.width / 2, symbol.y + symbol.height / 2];
  const candidates = [
    { x: cx - width / 2, y: symbol.y + symbol.height + GAP },
    { x: cx - width / 2, y: symbol.y - GAP - height },
    { x: symbol.x + symbol.width + GAP, y: cy - height / 2 },
    { x: symbol.x - GAP - width, y: cy - height / 2 },
  ].map((at): PlanLabel => ({ ...at, width, height, lines }));
  return (
    candidates.find(
      (box) =>
        box.x >= 0 &&
        box.y >= 0 &&
        box.x + box.width <= within.width &&
        box.y + box.height <= within.height &&
        !taken.some((other) => overlap(box, other)),
    ) ?? null
  );
}
