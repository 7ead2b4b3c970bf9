/** A stretch of a trace that is looked at, s. */
export type TraceView = readonly [fromS: number, toS: number];

/** Nothing closer than this is looked at, s. */
const CLOSEST_S = 2;

/** A stretch within the trace's ends, not closer than is worth looking at. */
export function within([fromS, toS]: TraceView, endS: number): TraceView {
  const span = Math.min(endS, Math.max(CLOSEST_S, toS - fromS));
  const from = Math.min(Math.max(0, fromS), endS - span);
  return [from, from + span];
}

/** Nearer by so many times, or farther with less than 1, about a moment or the middle. */
export function zoomed([fromS, toS]: TraceView, times: number, endS: number, aboutS?: number) {
  const about = aboutS ?? (fromS + toS) / 2;
  return within([about - (about - fromS) / times, about + (toS - about) / times], endS);
}

/** Moved on by a share of what is seen; back with less than 0. */
export function moved([fromS, toS]: TraceView, share: number, endS: number): TraceView {
  const by = (toS - fromS) * share;
  return within([fromS + by, toS + by], endS);
}
