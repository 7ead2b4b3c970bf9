/**
 * Factorises matrices of one fixed pattern without pivoting: which places fill in is worked out once, then each
 * factorisation only walks the list. For networks of pipes, whose matrices are sparse and lean on their diagonal.
 */
export class SparseLu {
  /** Pivots in the order of elimination. */
  private readonly order: Int32Array;
  /** For the n-th pivot: rows under it, and columns right of it, as ranges into `rows` and `columns`. */
  private readonly rowStart: Int32Array;
  private readonly rows: Int32Array;
  private readonly columnStart: Int32Array;
  private readonly columns: Int32Array;

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
    const rows: number[] = [];
    const columns: number[] = [];
    const rowStart = [0];
    const columnStart = [0];
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
      const under = [...left].filter((i) => filled[i * size + best]);
      const beside = [...left].filter((j) => filled[best * size + j]);
      for (const i of under) for (const j of beside) filled[i * size + j] = true;
      rows.push(...under);
      columns.push(...beside);
      rowStart.push(rows.length);
      columnStart.push(columns.length);
    }
    this.order = Int32Array.from(order);
    this.rows = Int32Array.from(rows);
    this.columns = Int32Array.from(columns);
    this.rowStart = Int32Array.from(rowStart);
    this.columnStart = Int32Array.from(columnStart);
  }

  /** Factorises in place: `matrix` is full, row by row. */
  factorise(matrix: Float64Array): void {
    const { size, order, rows, columns, rowStart, columnStart } = this;
    for (let n = 0; n < size; n += 1) {
      const k = order[n]!;
      const top = k * size;
      const inverse = 1 / matrix[top + k]!;
      matrix[top + k] = inverse;
      const lastColumn = columnStart[n + 1]!;
      const firstColumn = columnStart[n]!;
      const lastRow = rowStart[n + 1]!;
      for (let r = rowStart[n]!; r < lastRow; r += 1) {
        const row = rows[r]! * size;
        const factor = matrix[row + k]! * inverse;
        if (factor === 0) continue;
        matrix[row + k] = factor;
        for (let c = firstColumn; c < lastColumn; c += 1) {
          const j = columns[c]!;
          matrix[row + j] = matrix[row + j]! - factor * matrix[top + j]!;
        }
      }
    }
  }

  /** Solves in place with what `factorise` left. */
  solve(matrix: Float64Array, b: Float64Array): void {
    const { size, order, rows, columns, rowStart, columnStart } = this;
    for (let n = 0; n < size; n += 1) {
      const k = order[n]!;
      const value = b[k]!;
      if (value === 0) continue;
      const last = rowStart[n + 1]!;
      for (let r = rowStart[n]!; r < last; r += 1) {
        const i = rows[r]!;
        b[i] = b[i]! - matrix[i * size + k]! * value;
      }
    }
    for (let n = size - 1; n >= 0; n -= 1) {
      const k = order[n]!;
      const top = k * size;
      let value = b[k]!;
      const last = columnStart[n + 1]!;
      for (let c = columnStart[n]!; c < last; c += 1) {
        const j = columns[c]!;
        value -= matrix[top + j]! * b[j]!;
      }
      b[k] = value * matrix[top + k]!;
    }
  }
}
