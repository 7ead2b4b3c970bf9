/**
 * Factorises matrices of one fixed pattern without pivoting, for networks of pipes, whose matrices are sparse and
 * lean on their diagonal. Which places fill in, and where each value lies, is worked out once; a matrix is a short
 * list of values, each in its own slot, and a factorisation walks that list from its front to its end.
 */
export class SparseLu {
  /** Slots of a matrix; one more stands behind them, for what has no place in it. */
  readonly slots: number;
  /** By slot: on the diagonal its row, in the order of elimination; left and right of it the column. */
  private readonly places: Int32Array;
  /** Rows with anything left of the diagonal, in the order of elimination, and the slot behind each one's last. */
  private readonly leftRows: Int32Array;
  private readonly leftEnds: Int32Array;
  /** For the n-th pivot: the first slot right of it; one more for the end. */
  private readonly rightStarts: Int32Array;
  /** For the n-th pivot: slots under it, as ranges into `under`. */
  private readonly underStarts: Int32Array;
  private readonly under: Int32Array;
  /** Slots that each pivot's products are taken off from, in the order of the products. */
  private readonly targets: Int32Array;
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
    const waiting = new Set(Array.from({ length: size }, (_, i) => i));
    const order: number[] = [];
    const under: number[][] = [];
    const beside: number[][] = [];
    while (waiting.size > 0) {
      let best = -1;
      let cheapest = Infinity;
      // Fewest products next (Markowitz), the usual way to keep fill small.
      for (const k of waiting) {
        let down = 0;
        let right = 0;
        for (const i of waiting) {
          if (i === k) continue;
          if (filled[i * size + k]) down += 1;
          if (filled[k * size + i]) right += 1;
        }
        if (down * right < cheapest) {
          cheapest = down * right;
          best = k;
        }
      }
      waiting.delete(best);
      order.push(best);
      const rows = [...waiting].filter((i) => filled[i * size + best]);
      const columns = [...waiting].filter((j) => filled[best * size + j]);
      for (const i of rows) for (const j of columns) filled[i * size + j] = true;
      under.push(rows);
      beside.push(columns);
    }
    // First the diagonal, then what lies left of it row by row, then what lies right of it.
    const turn = new Int32Array(size);
    order.forEach((k, n) => (turn[k] = n));
    const left = order.map((i) =>
      order.filter((k) => turn[k]! < turn[i]! && under[turn[k]!]!.includes(i)),
    );
    const leftStarts = startsOf(left, size);
    this.rightStarts = startsOf(beside, leftStarts[size]!);
    this.slots = this.rightStarts[size]!;
    this.places = Int32Array.from([...order, ...left.flat(), ...beside.flat()]);
    this.slot = new Int32Array(size * size).fill(this.slots);
    order.forEach((k, n) => {
      this.slot[k * size + k] = n;
      left[n]!.forEach((j, c) => (this.slot[k * size + j] = leftStarts[n]! + c));
      beside[n]!.forEach((j, c) => (this.slot[k * size + j] = this.rightStarts[n]! + c));
    });
    const withLeft = order.flatMap((_, n) => (left[n]!.length > 0 ? [n] : []));
    this.leftRows = Int32Array.from(withLeft, (n) => order[n]!);
    this.leftEnds = Int32Array.from(withLeft, (n) => leftStarts[n + 1]!);
    this.underStarts = startsOf(under, 0);
    this.under = Int32Array.from(order.flatMap((k, n) => under[n]!.map((i) => this.slotOf(i, k))));
    this.targets = Int32Array.from(
      order.flatMap((_, n) => under[n]!.flatMap((i) => beside[n]!.map((j) => this.slotOf(i, j)))),
    );
  }

  /** Where an entry lies in a list of values; behind all slots where it has no place. */
  slotOf(row: number, column: number): number {
    return this.slot[row * this.size + column]!;
  }

  /** Factorises in place, into L·D·U with ones on the diagonals of L and U, and D turned over. */
  factorise(values: Float64Array): void {
    const { size, underStarts, under, rightStarts, targets } = this;
    let t = 0;
    for (let n = 0; n < size; n += 1) {
      const inverse = 1 / values[n]!;
      values[n] = inverse;
      const from = rightStarts[n]!;
      const to = rightStarts[n + 1]!;
      const last = underStarts[n + 1]!;
      for (let r = underStarts[n]!; r < last; r += 1) {
        const at = under[r]!;
        const factor = values[at]! * inverse;
        values[at] = factor;
        for (let c = from; c < to; c += 1) {
          const target = targets[t]!;
          values[target] = values[target]! - factor * values[c]!;
          t += 1;
        }
      }
      for (let c = from; c < to; c += 1) values[c] = values[c]! * inverse;
    }
  }

  /** Solves in place with what `factorise` left. */
  solve(values: Float64Array, b: Float64Array): void {
    // Each row is summed up by itself and written once: a sum that goes by way of the list waits for it at each term.
    const { size, places, leftRows, leftEnds, rightStarts } = this;
    let at = size;
    for (let r = 0; r < leftRows.length; r += 1) {
      const i = leftRows[r]!;
      const end = leftEnds[r]!;
      let sum = b[i]!;
      for (; at < end; at += 1) sum -= values[at]! * b[places[at]!]!;
      b[i] = sum;
    }
    at = this.slots - 1;
    for (let n = size - 1; n >= 0; n -= 1) {
      const i = places[n]!;
      const start = rightStarts[n]!;
      let sum = b[i]! * values[n]!;
      for (; at >= start; at -= 1) sum -= values[at]! * b[places[at]!]!;
      b[i] = sum;
    }
  }
}

/** Where each of some lists starts when they stand in a row, counted from `first`; one more for the end. */
function startsOf(lists: readonly (readonly unknown[])[], first: number): Int32Array {
  const out = new Int32Array(lists.length + 1).fill(first);
  lists.forEach((list, n) => (out[n + 1] = out[n]! + list.length));
  return out;
}
