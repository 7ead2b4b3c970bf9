/** What a factorisation leaves, L·D·U with ones on the diagonals of L and U: the terms alone that are not 0. */
export interface Factors {
  /** By pivot: 1 over its entry of D. */
  pivots: Float64Array;
  lower: Terms;
  upper: Terms;
}

/** Terms of a triangle, so many of them, in the order of elimination. */
interface Terms {
  count: number;
  values: Float64Array;
  rows: Int32Array;
  columns: Int32Array;
}

/**
 * Where the values of matrices of one pattern lie, and in which order they are eliminated. Plain data: it can be
 * handed to another thread.
 */
export interface LuPattern {
  /** Rows and columns. */
  size: number;
  /** Slots of a matrix; one more stands behind them, for what has no place in it. */
  slots: number;
  /** Pivots in the order of elimination. */
  order: Int32Array;
  /** For the n-th pivot: first slot under it, one more for the end; by those slots, their row. */
  underStarts: Int32Array;
  underRows: Int32Array;
  /** For the n-th pivot: first slot right of it, one more for the end; by those slots, their column. */
  rightStarts: Int32Array;
  rightColumns: Int32Array;
  /** Slots that each pivot's products are taken off from, in the order of the products. */
  targets: Int32Array;
  /** By row and column: its slot. */
  slot: Int32Array;
}

/**
 * Works out which places of a matrix may fill in, and where each value lies: the slow part, done once for each
 * pattern.
 *
 * @param size rows and columns
 * @param mayDiffer true where an entry may differ from 0; row by row, the diagonal included
 */
export function luPattern(size: number, mayDiffer: readonly boolean[]): LuPattern {
  const filled = [...mayDiffer];
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
  // First the diagonal, then what lies under it pivot by pivot, then what lies right of it.
  const underStarts = startsOf(under, size);
  const rightStarts = startsOf(beside, underStarts[size]!);
  const slots = rightStarts[size]!;
  const slot = new Int32Array(size * size).fill(slots);
  order.forEach((k, n) => {
    slot[k * size + k] = n;
    under[n]!.forEach((i, r) => (slot[i * size + k] = underStarts[n]! + r));
    beside[n]!.forEach((j, c) => (slot[k * size + j] = rightStarts[n]! + c));
  });
  return {
    size,
    slots,
    order: Int32Array.from(order),
    underStarts,
    underRows: Int32Array.from(under.flat()),
    rightStarts,
    rightColumns: Int32Array.from(beside.flat()),
    targets: Int32Array.from(
      order.flatMap((_, n) => under[n]!.flatMap((i) => beside[n]!.map((j) => slot[i * size + j]!))),
    ),
    slot,
  };
}

/**
 * Factorises matrices of one fixed pattern without pivoting, for networks of pipes, whose matrices are sparse and
 * lean on their diagonal. A matrix is a short list of values, each in its own slot. Half of these are 0 at any
 * moment, where valves are shut: what a factorisation leaves is the other half alone.
 */
export class SparseLu {
  readonly size: number;
  readonly slots: number;
  private readonly order: Int32Array;
  private readonly underStarts: Int32Array;
  private readonly underRows: Int32Array;
  private readonly rightStarts: Int32Array;
  private readonly rightColumns: Int32Array;
  private readonly targets: Int32Array;
  private readonly slot: Int32Array;

  constructor(pattern: LuPattern) {
    this.size = pattern.size;
    this.slots = pattern.slots;
    this.order = pattern.order;
    this.underStarts = pattern.underStarts;
    this.underRows = pattern.underRows;
    this.rightStarts = pattern.rightStarts;
    this.rightColumns = pattern.rightColumns;
    this.targets = pattern.targets;
    this.slot = pattern.slot;
  }

  /** Room for what a factorisation leaves. */
  newFactors(): Factors {
    return {
      pivots: new Float64Array(this.size),
      lower: newTerms(this.underRows.length),
      upper: newTerms(this.rightColumns.length),
    };
  }

  /** Where an entry lies in a list of values; behind all slots where it has no place. */
  slotOf(row: number, column: number): number {
    return this.slot[row * this.size + column]!;
  }

  /** Factorises a matrix, which is written over. */
  factorise(values: Float64Array, { pivots, lower, upper }: Factors): void {
    const { size, order, underStarts, underRows, rightStarts, rightColumns, targets } = this;
    const { values: lowerValues, rows: lowerRows, columns: lowerColumns } = lower;
    const { values: upperValues, rows: upperRows, columns: upperColumns } = upper;
    const firstRight = rightStarts[0]!;
    let product = 0;
    let l = 0;
    let u = 0;
    for (let n = 0; n < size; n += 1) {
      const pivot = order[n]!;
      const inverse = 1 / values[n]!;
      pivots[n] = inverse;
      const from = rightStarts[n]!;
      const to = rightStarts[n + 1]!;
      const last = underStarts[n + 1]!;
      for (let at = underStarts[n]!; at < last; at += 1) {
        const entry = values[at]!;
        if (entry === 0) {
          product += to - from;
          continue;
        }
        const factor = entry * inverse;
        lowerValues[l] = factor;
        lowerRows[l] = underRows[at - size]!;
        lowerColumns[l] = pivot;
        l += 1;
        for (let c = from; c < to; c += 1) {
          const target = targets[product]!;
          values[target] = values[target]! - factor * values[c]!;
          product += 1;
        }
      }
      for (let c = from; c < to; c += 1) {
        const entry = values[c]!;
        if (entry === 0) continue;
        upperValues[u] = entry * inverse;
        upperRows[u] = pivot;
        upperColumns[u] = rightColumns[c - firstRight]!;
        u += 1;
      }
    }
    lower.count = l;
    upper.count = u;
  }

  /** Solves in place with what `factorise` left. */
  solve({ pivots, lower, upper }: Factors, b: Float64Array): void {
    // Each of the three is one straight walk: loops within loops, as short as these are, cost more than they do.
    const { size, order } = this;
    const { values: lowerValues, rows: lowerRows, columns: lowerColumns, count } = lower;
    for (let l = 0; l < count; l += 1) {
      const i = lowerRows[l]!;
      b[i] = b[i]! - lowerValues[l]! * b[lowerColumns[l]!]!;
    }
    for (let n = 0; n < size; n += 1) {
      const i = order[n]!;
      b[i] = b[i]! * pivots[n]!;
    }
    const { values: upperValues, rows: upperRows, columns: upperColumns } = upper;
    for (let u = upper.count - 1; u >= 0; u -= 1) {
      const i = upperRows[u]!;
      b[i] = b[i]! - upperValues[u]! * b[upperColumns[u]!]!;
    }
  }
}

function newTerms(most: number): Terms {
  return {
    count: 0,
    values: new Float64Array(most),
    rows: new Int32Array(most),
    columns: new Int32Array(most),
  };
}

/** Where each of some lists starts when they stand in a row, counted from `first`; one more for the end. */
function startsOf(lists: readonly (readonly unknown[])[], first: number): Int32Array {
  const out = new Int32Array(lists.length + 1).fill(first);
  lists.forEach((list, n) => (out[n + 1] = out[n]! + list.length));
  return out;
}
