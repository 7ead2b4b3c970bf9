/**
 * Factorises matrices of one fixed pattern without pivoting, for networks of pipes, whose matrices are sparse and
 * lean on their diagonal. Which places fill in, and where each value lies, is worked out once; a matrix is a short
 * list of values, each in its own slot, and a factorisation walks that list from its front to its end.
 */
export class SparseLu {
  /** Slots of a matrix; one more stands behind them, for what has no place in it. */
  readonly slots: number;
  /** Pivots in the order of elimination. */
  private readonly order: Int32Array;
  /** For the n-th pivot: rows under it, and columns right of it, as ranges into `rows` and `columns`. */
  private readonly rowStart: Int32Array;
  private readonly rows: Int32Array;
  private readonly columnStart: Int32Array;
  private readonly columns: Int32Array;
  /** Slots that each pivot's products are taken off from, in the order of the products. */
  private readonly targets: Int32Array;
  /** Rows and columns of what lies under the diagonal and right of it, in the order of their slots. */
  private readonly underColumn: Int32Array;
  private readonly besideRow: Int32Array;
  /** By row and column: its slot. */
  private readonly slot: Int32Array;

  /**
   * @param size rows and columns
   * @param pattern true where an entry may differ from 0; row by row, the diagonal included
   */
  constructor(
    readonly size: number,
    pattern: readonly boolean[],
  ) {
    const filled = [...pattern];
    const left = new Set(Array.from({ length: size }, (_, i) => i));
    const order: number[] = [];
    const under: number[][] = [];
    const beside: number[][] = [];
    while (left.size > 0) {
      let best = -1;
      let cheapest = Infinity;
      // Fewest products next (Markowitz), the usual way to keep fill small.
      for (const k of left) {
        let down = 0;
        let right = 0;
        for (const i of left) {
          if (i === k) continue;
          if (filled[i * size + k]) down += 1;
          if (filled[k * size + i]) right += 1;
        }
        if (down * right < cheapest) {
          cheapest = down * right;
          best = k;
        }
      }
      left.delete(best);
      order.push(best);
      const rows = [...left].filter((i) => filled[i * size + best]);
      const columns = [...left].filter((j) => filled[best * size + j]);
      for (const i of rows) for (const j of columns) filled[i * size + j] = true;
      under.push(rows);
      beside.push(columns);
    }
    this.order = Int32Array.from(order);
    this.rows = Int32Array.from(under.flat());
    this.columns = Int32Array.from(beside.flat());
    this.rowStart = startsOf(under);
    this.columnStart = startsOf(beside);

    // First the diagonal, then what lies under it pivot by pivot, then what lies right of it.
    const firstUnder = size;
    const firstBeside = firstUnder + this.rows.length;
    this.slots = firstBeside + this.columns.length;
    this.slot = new Int32Array(size * size).fill(this.slots);
    order.forEach((k, n) => {
      this.slot[k * size + k] = n;
      under[n]!.forEach((i, r) => {
        this.slot[i * size + k] = firstUnder + this.rowStart[n]! + r;
      });
      beside[n]!.forEach((j, c) => {
        this.slot[k * size + j] = firstBeside + this.columnStart[n]! + c;
      });
    });
    this.targets = Int32Array.from(
      order.flatMap((_, n) => under[n]!.flatMap((i) => beside[n]!.map((j) => this.slotOf(i, j)))),
    );
    this.underColumn = Int32Array.from(order.flatMap((k, n) => under[n]!.map(() => k)));
    this.besideRow = Int32Array.from(order.flatMap((k, n) => beside[n]!.map(() => k)));
  }

  /** Where an entry lies in a list of values; behind all slots where it has no place. */
  slotOf(row: number, column: number): number {
    return this.slot[row * this.size + column]!;
  }

  /** Factorises in place, into L·D·U with ones on the diagonals of L and U, and D turned over. */
  factorise(values: Float64Array): void {
    const { size, rowStart, columnStart, targets } = this;
    const firstUnder = size;
    const firstBeside = size + this.rows.length;
    let t = 0;
    for (let n = 0; n < size; n += 1) {
      const inverse = 1 / values[n]!;
      values[n] = inverse;
      const from = firstBeside + columnStart[n]!;
      const to = firstBeside + columnStart[n + 1]!;
      const last = firstUnder + rowStart[n + 1]!;
      for (let r = firstUnder + rowStart[n]!; r < last; r += 1) {
        const factor = values[r]! * inverse;
        values[r] = factor;
        for (let c = from; c < to; c += 1) {
          const at = targets[t]!;
          values[at] = values[at]! - factor * values[c]!;
          t += 1;
        }
      }
      for (let c = from; c < to; c += 1) values[c] = values[c]! * inverse;
    }
  }

  /** Solves in place with what `factorise` left. */
  solve(values: Float64Array, b: Float64Array): void {
    // Each of the three is one straight walk: loops within loops, as short as these are, cost more than they do.
    const { size, order, rows, columns, underColumn, besideRow } = this;
    const firstBeside = size + rows.length;
    for (let l = 0; l < rows.length; l += 1) {
      const i = rows[l]!;
      b[i] = b[i]! - values[size + l]! * b[underColumn[l]!]!;
    }
    for (let n = 0; n < size; n += 1) {
      const k = order[n]!;
      b[k] = b[k]! * values[n]!;
    }
    for (let u = columns.length - 1; u >= 0; u -= 1) {
      const k = besideRow[u]!;
      b[k] = b[k]! - values[firstBeside + u]! * b[columns[u]!]!;
    }
  }
}

function startsOf(lists: readonly (readonly number[])[]): Int32Array {
  const out = new Int32Array(lists.length + 1);
  lists.forEach((list, n) => (out[n + 1] = out[n]! + list.length));
  return out;
}
