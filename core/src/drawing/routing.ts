import FlatQueue from 'flatqueue';
import type { Box, Point } from './plan';

/** Side of a square of the routing grid, px: two lines side by side stand so far apart. */
export const GRID = 6;

/** What a step costs, in steps: turns and crossings are dear, running along another line is dearer. */
const TURN = 5;
const CROSSING = 24;
const ALONG_ANOTHER = 40;
/** Beside another line, or beside a symbol. */
const CLOSE = 1.5;
/** Along an axle, which would hide it. */
const ALONG_AXLE = 12;
/** On a line of the same air: lines to several places leave as one. */
const OWN = 0.35;

/** A line to be led: from one box to another. Lines of one net may share their way. */
export interface Wanted {
  net: string;
  from: string;
  to: string;
}

/** A way that was found, or a straight one where there is none. */
export interface Led {
  points: readonly Point[];
  forced: boolean;
}

const STEPS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** Leads lines at right angles around boxes: the shortest first, each by the cheapest way on a grid. */
export class Router {
  private readonly columns: number;
  private readonly rows: number;
  /** By cell: 0 free, −1 a label or an edge, otherwise 1 + the number of the box. */
  private readonly blocked: Int32Array;
  /** By cell: nets of lines that run along it, across and down. */
  private readonly across: (string | undefined)[];
  private readonly down: (string | undefined)[];
  private readonly numbers = new Map<string, number>();
  /** By cell: 1 where an axle runs across, 2 where one runs down. */
  private readonly axle: Uint8Array;

  constructor(
    width: number,
    height: number,
    private readonly boxes: ReadonlyMap<string, Box>,
    labels: readonly Box[],
  ) {
    this.columns = Math.ceil(width / GRID);
    this.rows = Math.ceil(height / GRID);
    this.blocked = new Int32Array(this.columns * this.rows);
    this.across = new Array<string | undefined>(this.blocked.length);
    this.down = new Array<string | undefined>(this.blocked.length);
    this.axle = new Uint8Array(this.blocked.length);
    for (const label of labels) this.fill(label, -1, 0);
    for (const [key, box] of boxes) {
      const number = this.numbers.size + 1;
      this.numbers.set(key, number);
      this.fill(box, number, 1);
    }
  }

  private fill({ x, y, width, height }: Box, value: number, margin: number): void {
    const [left, top] = [Math.floor((x - margin) / GRID), Math.floor((y - margin) / GRID)];
    const [right, foot] = [
      Math.ceil((x + width + margin) / GRID),
      Math.ceil((y + height + margin) / GRID),
    ];
    for (let r = Math.max(0, top); r < Math.min(this.rows, foot); r += 1) {
      for (let c = Math.max(0, left); c < Math.min(this.columns, right); c += 1) {
        const at = r * this.columns + c;
        if (this.blocked[at] === 0 || value > 0) this.blocked[at] = value;
      }
    }
  }

  /** Says where an axle is: lines cross it, and do not run along it. */
  axleAt(from: Point, to: Point): void {
    const [a, b] = [this.cellOf(from), this.cellOf(to)].sort((one, other) => one - other);
    const isAcross = Math.abs(from.x - to.x) > Math.abs(from.y - to.y);
    for (let cell = a!; cell <= b!; cell += isAcross ? 1 : this.columns) {
      for (const beside of [0, isAcross ? this.columns : 1, isAcross ? -this.columns : -1]) {
        if (this.axle[cell + beside] !== undefined) this.axle[cell + beside] = isAcross ? 1 : 2;
      }
    }
  }

  /** Leads a line, and keeps its way for those that come after. */
  lead({ net, from, to }: Wanted): Led {
    const [start, end] = [this.boxes.get(from)!, this.boxes.get(to)!];
    const path = this.search(net, this.numbers.get(from)!, this.numbers.get(to)!, start, end);
    if (!path) {
      const [a, b] = [middle(start), middle(end)];
      return { points: [a, { x: a.x, y: b.y }, b], forced: true };
    }
    this.keep(net, path);
    return {
      points: trimmed(
        path.map((cell) => this.pointOf(cell)),
        start,
        end,
      ),
      forced: false,
    };
  }

  private pointOf(cell: number): Point {
    return {
      x: (cell % this.columns) * GRID + GRID / 2,
      y: Math.floor(cell / this.columns) * GRID + GRID / 2,
    };
  }

  private cellOf({ x, y }: Point): number {
    return Math.floor(y / GRID) * this.columns + Math.floor(x / GRID);
  }

  /** The cheapest way from one box to another: A* over cells and directions. */
  private search(net: string, from: number, to: number, start: Box, end: Box): number[] | null {
    const { columns, blocked } = this;
    const goal = this.cellOf(middle(end));
    const [goalX, goalY] = [goal % columns, Math.floor(goal / columns)];
    const size = blocked.length * 4;
    const cost = new Float64Array(size).fill(Infinity);
    const came = new Int32Array(size).fill(-1);
    const queue = new FlatQueue<number>();
    const rest = (cell: number) =>
      OWN * (Math.abs((cell % columns) - goalX) + Math.abs(Math.floor(cell / columns) - goalY));
    const first = this.cellOf(middle(start));
    for (let d = 0; d < 4; d += 1) {
      cost[first * 4 + d] = 0;
      queue.push(first * 4 + d, rest(first));
    }
    for (let state = queue.pop(); state !== undefined; state = queue.pop()) {
      const cell = state >> 2;
      const direction = state & 3;
      if (cell === goal) return this.walkBack(came, state);
      const x = cell % columns;
      const y = (cell - x) / columns;
      for (let d = 0; d < 4; d += 1) {
        // Never straight back.
        if (d === ((direction + 2) & 3) && cell !== first) continue;
        const [dx, dy] = STEPS[d]!;
        const [nx, ny] = [x + dx, y + dy];
        if (nx < 0 || ny < 0 || nx >= columns || ny >= this.rows) continue;
        const next = ny * columns + nx;
        const block = blocked[next]!;
        if (block !== 0 && block !== from && block !== to) continue;
        // A target is entered, not passed through sideways to somewhere else.
        const step =
          cost[state]! +
          this.stepCost(net, next, d, block) +
          (d === direction || cell === first ? 0 : TURN);
        const nextState = next * 4 + d;
        if (step >= cost[nextState]!) continue;
        cost[nextState] = step;
        came[nextState] = state;
        queue.push(nextState, step + rest(next));
      }
    }
    return null;
  }

  private stepCost(net: string, cell: number, d: number, block: number): number {
    if (block > 0) return 1;
    const along = d % 2 === 0 ? this.across[cell] : this.down[cell];
    const over = d % 2 === 0 ? this.down[cell] : this.across[cell];
    if (along === net) return OWN;
    let cost = 1;
    if (this.axle[cell] === (d % 2 === 0 ? 1 : 2)) cost += ALONG_AXLE;
    if (along !== undefined) cost += ALONG_ANOTHER;
    if (over !== undefined && over !== net) cost += CROSSING;
    const side = d % 2 === 0 ? this.columns : 1;
    const lines = d % 2 === 0 ? this.across : this.down;
    for (const beside of [cell - side, cell + side]) {
      const other = lines[beside];
      if (other !== undefined && other !== net) cost += CLOSE;
      if ((this.blocked[beside] ?? 0) !== 0) cost += CLOSE;
    }
    return cost;
  }

  private walkBack(came: Int32Array, last: number): number[] {
    const path: number[] = [];
    for (let state = last; state >= 0; state = came[state]!) path.push(state >> 2);
    return path.reverse();
  }

  private keep(net: string, path: readonly number[]): void {
    for (let n = 1; n < path.length; n += 1) {
      const [a, b] = [path[n - 1]!, path[n]!];
      const lines = Math.abs(a - b) === 1 ? this.across : this.down;
      lines[a] ??= net;
      lines[b] ??= net;
    }
  }
}

const middle = ({ x, y, width, height }: Box): Point => ({ x: x + width / 2, y: y + height / 2 });

const inside = ({ x, y }: Point, box: Box): boolean =>
  x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height;

/** From the edge of one box to the edge of the other, with points only where it turns. */
function trimmed(path: readonly Point[], start: Box, end: Box): Point[] {
  let a = 0;
  while (a < path.length - 2 && inside(path[a + 1]!, start)) a += 1;
  let b = path.length - 1;
  while (b > a + 1 && inside(path[b - 1]!, end)) b -= 1;
  const kept = path.slice(a, b + 1);
  if (kept.length > 1) {
    kept[0] = onEdge(kept[0]!, kept[1]!, start);
    kept[kept.length - 1] = onEdge(kept[kept.length - 1]!, kept[kept.length - 2]!, end);
  }
  return kept.filter((point, n) => {
    const [before, after] = [kept[n - 1], kept[n + 1]];
    if (!before || !after) return true;
    return !(
      (before.x === point.x && point.x === after.x) ||
      (before.y === point.y && point.y === after.y)
    );
  });
}

/** Where a step out of a box leaves it. */
function onEdge(inBox: Point, out: Point, { x, y, width, height }: Box): Point {
  if (out.x > inBox.x) return { x: Math.min(x + width, out.x), y: inBox.y };
  if (out.x < inBox.x) return { x: Math.max(x, out.x), y: inBox.y };
  return { x: inBox.x, y: out.y > inBox.y ? Math.min(y + height, out.y) : Math.max(y, out.y) };
}
