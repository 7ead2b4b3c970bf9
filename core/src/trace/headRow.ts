import { readMoment, readNumber } from './readTable';

/** Rows of a file's start that are looked at for its heads: loggers write a few lines about themselves first. */
export const HEAD_WITHIN_ROWS = 60;

/** Whether a row holds readings: a moment, and at least one number beside it. */
function isReading(row: readonly string[] | undefined): boolean {
  if (!row) return false;
  const numbers = row.filter((cell) => !Number.isNaN(readNumber(cell))).length;
  const moments = row.filter((cell) => !Number.isNaN(readMoment(cell, 's'))).length;
  return numbers >= 1 && moments >= 2;
}

/**
 * Which row of a file heads its columns: the one right before the first two rows of readings. What stands above it,
 * such as the logger's name, is passed over.
 *
 * @param rows the first rows, without empty ones
 * @returns -1 where the readings begin at once; 0 where no readings are found
 */
export function headRow(rows: readonly (readonly string[])[]): number {
  const first = rows.findIndex(
    (row, at) => isReading(row) && (at + 1 >= rows.length || isReading(rows[at + 1])),
  );
  return first < 0 ? 0 : first - 1;
}
