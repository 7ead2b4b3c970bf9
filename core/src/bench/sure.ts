/** A figure and its standard uncertainty. */
export interface Sure {
  value: number;
  sd: number;
}

/**
 * The mean of some readings, and its doubt: by how they stray, and not less than each could be read.
 *
 * @param readSd what one reading may be off by, one standard deviation
 */
export function mean(values: readonly number[], readSd: number): Sure {
  const value = values.reduce((sum, each) => sum + each, 0) / values.length;
  const stray =
    values.length < 2
      ? readSd
      : Math.sqrt(values.reduce((sum, each) => sum + (each - value) ** 2, 0) / (values.length - 1));
  return { value, sd: Math.max(readSd, stray) / Math.sqrt(values.length) };
}
