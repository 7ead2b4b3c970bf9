import type { AirLayout, DrawnWay } from './drawnRig';

type Box = AirLayout['nodes'][number];
type Way = Pick<DrawnWay, 'from' | 'to' | 'drawn'>;

const MARGIN = 12;
/** Room for what is drawn on a phone held upright, px. */
const WIDEST = 330;
/** Step to the right with each place the air goes on to, at most, px. */
const INDENT = 18;
/** Between two places below each other, and between two ways that join the same places, px. */
const ROW = 12;
const APART = 8;

/**
 * The same drawing for a phone: one place below the other in the order in which air comes to them, each a step to
 * the right of where its air comes from, so that the whole rig is read downwards.
 *
 * @param across the drawing from left to right, which knows what comes after what
 */
export function outline(across: AirLayout, ways: readonly Way[]): AirLayout {
  const drawn = ways.filter((way) => way.drawn);
  const { order, depths } = inOrder(across.nodes, drawn);
  const width = Math.max(0, ...across.nodes.map((box) => box.width));
  const deepest = Math.max(1, ...depths);
  const indent = Math.min(INDENT, Math.floor((WIDEST - width) / deepest));
  const nodes: Box[] = [];
  let y = MARGIN;
  for (const i of order) {
    const { width: w, height } = across.nodes[i]!;
    nodes[i] = { x: MARGIN + depths[i]! * indent, y, width: w, height };
    y += height + ROW;
  }
  const joined = new Map<string, number>();
  return {
    width: 2 * MARGIN + width + deepest * indent,
    height: y - ROW + MARGIN,
    nodes,
    ways: ways.map((way) => {
      if (!drawn.includes(way)) return [];
      const ends = [nodes[way.from]!, nodes[way.to]!] as const;
      const [upper, lower] = ends[0].y < ends[1].y ? ends : [ends[1], ends[0]];
      const key = [upper.y, lower.y].join();
      const before = joined.get(key) ?? 0;
      joined.set(key, before + 1);
      return led(upper, lower, indent / 2, before * APART);
    }),
  };
}

/** Down from one place and into another: from its left, from its right, or from above, as they stand. */
function led(upper: Box, lower: Box, step: number, aside: number): { x: number; y: number }[] {
  const x = upper.x + step + aside;
  const start = { x, y: upper.y + upper.height };
  const y = lower.y + lower.height / 2 + aside;
  if (x < lower.x) return [start, { x, y }, { x: lower.x, y }];
  if (x > lower.x + lower.width) return [start, { x, y }, { x: lower.x + lower.width, y }];
  return [start, { x, y: lower.y - ROW / 2 }, { x, y: lower.y }];
}

/** Every place after the one its air comes from, with how many come before it on that way. */
function inOrder(
  boxes: readonly Box[],
  ways: readonly Way[],
): { order: number[]; depths: number[] } {
  const all = [...boxes.keys()];
  const first = (a: number, b: number) => boxes[a]!.x - boxes[b]!.x || boxes[a]!.y - boxes[b]!.y;
  const source = all.map((i) => {
    const before = ways
      .flatMap(({ from, to }) => (from === i ? [to] : to === i ? [from] : []))
      .filter((other) => boxes[other]!.x < boxes[i]!.x);
    const far = (other: number) => Math.abs(boxes[other]!.y - boxes[i]!.y);
    return before.sort((a, b) => boxes[b]!.x - boxes[a]!.x || far(a) - far(b))[0] ?? null;
  });
  const nextOf = all.map((i) => all.filter((each) => source[each] === i));
  const size = (i: number): number => 1 + nextOf[i]!.reduce((sum, next) => sum + size(next), 0);
  const order: number[] = [];
  const depths: number[] = [];
  // What ends soon comes first: nothing stands far from where its air comes from for the sake of a whole trailer.
  const soonest = (a: number, b: number) => size(a) - size(b) || first(a, b);
  const visit = (i: number, depth: number) => {
    order.push(i);
    depths[i] = depth;
    for (const next of nextOf[i]!.sort(soonest)) visit(next, depth + 1);
  };
  for (const root of all.filter((i) => source[i] === null).sort(first)) visit(root, 0);
  return { order, depths };
}
