/** One point of a line fit: abscissa, ordinate and the ordinate's standard uncertainty, above 0. */
export interface WeightedPoint {
  x: number;
  y: number;
  u: number;
}

/** A fitted line y = intercept + slope·x. */
export interface WeightedLine {
  slope: number;
  intercept: number;
  /** Standard uncertainty of the slope, from the points' own uncertainties. */
  slopeUncertainty: number;
}

/**
 * Weighted least squares through points whose uncertainties are known beforehand.
 *
 * @returns the line, or null with fewer than two different abscissas
 */
export function weightedLine(points: readonly WeightedPoint[]): WeightedLine | null {
  let w = 0;
  let wx = 0;
  let wy = 0;
  for (const point of points) {
    const weight = 1 / point.u ** 2;
    w += weight;
    wx += weight * point.x;
    wy += weight * point.y;
  }
  const meanX = wx / w;
  const meanY = wy / w;
  let sxx = 0;
  let sxy = 0;
  // Sums about the mean: the abscissas are clock times, whose squares would swamp the differences.
  for (const point of points) {
    const weight = 1 / point.u ** 2;
    sxx += weight * (point.x - meanX) ** 2;
    sxy += weight * (point.x - meanX) * (point.y - meanY);
  }
  if (!(sxx > 0)) return null;
  const slope = sxy / sxx;
  return {
    slope,
    intercept: meanY - slope * meanX,
    slopeUncertainty: 1 / Math.sqrt(sxx),
  };
}
