/** A figure and its standard uncertainty. */
export interface Sure {
  value: number;
  sd: number;
}

/** A reading this many deviations from the middle of four or more is one that was read wrongly. */
const WRONG_AT = 4;

/** The readings without one that was read wrongly: by the median and the median of what lies from it. */
export function withoutWrong(values: readonly number[], readSd: number): number[] {
  if (values.length < 4) return [...values];
  const middleOf = (all: readonly number[]) => {
    const sorted = [...all].sort((a, b) => a - b);
    const half = Math.floor(sorted.length / 2);
    return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
  };
  const middle = middleOf(values);
  // 1.4826 makes it a standard deviation on the normal law.
  const spread = Math.max(readSd, 1.4826 * middleOf(values.map((each) => Math.abs(each - middle))));
  return values.filter((each) => Math.abs(each - middle) <= WRONG_AT * spread);
}

/**
 * The mean of some readings, and its doubt: by how they stray, and not less than each could be read. One that was read
 * wrongly does not count.
 *
 * @param readSd what one reading may be off by, one standard deviation
 */
export function mean(all: readonly number[], readSd: number): Sure {
  const values = withoutWrong(all, readSd);
  const value = values.reduce((sum, each) => sum + each, 0) / values.length;
  const stray =
    values.length < 2
      ? readSd
      : Math.sqrt(values.reduce((sum, each) => sum + (each - value) ** 2, 0) / (values.length - 1));
  return { value, sd: Math.max(readSd, stray) / Math.sqrt(values.length) };
}
