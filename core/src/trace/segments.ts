/** A recorded pressure curve: times from its start, s, rising; gauge pressures, psi. Both of one length. */
export interface Trace {
  seconds: Float64Array;
  psi: Float64Array;
}

export const segmentKinds = [
  'build-up',
  'cut-out',
  'purge',
  'cut-in',
  'hold',
  'application',
  'fall',
  'gap',
] as const;
export type SegmentKind = (typeof segmentKinds)[number];

/** A stretch, or a moment, of a trace that a run knows. */
export interface Segment {
  kind: SegmentKind;
  fromS: number;
  toS: number;
  fromPsi: number;
  toPsi: number;
  /** Slope of the line through it, psi/s, where one was fitted. */
  slopePsiPerS: number | null;
  /** Standard deviation of what the line leaves, psi. */
  residualPsi: number | null;
}

/** Traces are looked at in steps of this, s: shorter things than an application are not sought. */
const STEP_S = 0.25;
/** No reading for this long is a gap, s. */
const GAP_S = 3;
/** Slopes are least-squares ones over this, s: an eight-bit logger's steps and half a psi of noise are evened out by it. */
const SPAN_S = 10;
/** A reading that its neighbours in time do not bear out is a spike: the middle one of so many stands. */
const MIDDLE_OF = 5;
const CLIMBS_PSI_PER_S = 0.06;
const CLIMB_LEAST_S = 8;
const CLIMB_LEAST_PSI = 4;
/** A hold moves less than this, psi/s, for this long, s. */
const HOLD_PSI_PER_S = 0.12;
const HOLD_LEAST_S = 40;
/** A digit more or less within the span of a slope looks like so much of it. */
const DIGIT_IN_SLOPE = 1.5 / SPAN_S;
const DIGITS_LOOKED_AT = 5_000;
/** A pedal takes this much, psi, within this time, s. */
const APPLICATION_PSI = 2.5;
const APPLICATION_S = 1.5;
/** A cut-in has a fall before it within this many steps: a minute. */
const FALLS_WITHIN = 240;
/** A fall that is the fanning down: from over the warning to under the pop-out. */
const FALL_FROM_PSI = 75;
const FALL_TO_PSI = 20;

interface Grid {
  t0: number;
  psi: Float64Array;
  /** 1 where no reading lies near. */
  empty: Uint8Array;
}

/** Least-squares line through a stretch of a trace. */
export function lineThrough(
  { seconds, psi }: Trace,
  fromS: number,
  toS: number,
): { slope: number; at: (s: number) => number; residualPsi: number; count: number } | null {
  let n = 0;
  let sumT = 0;
  let sumP = 0;
  let sumTT = 0;
  let sumTP = 0;
  let sumPP = 0;
  for (let i = firstAt(seconds, fromS); i < seconds.length; i += 1) {
    const t = (seconds[i] ?? 0) - fromS;
    if (t > toS - fromS) break;
    const p = psi[i] ?? 0;
    n += 1;
    sumT += t;
    sumP += p;
    sumTT += t * t;
    sumTP += t * p;
    sumPP += p * p;
  }
  const spread = n * sumTT - sumT * sumT;
  if (n < 3 || spread <= 0) return null;
  const slope = (n * sumTP - sumT * sumP) / spread;
  const start = (sumP - slope * sumT) / n;
  const left = sumPP - start * sumP - slope * sumTP;
  return {
    slope,
    at: (s) => start + slope * (s - fromS),
    residualPsi: Math.sqrt(Math.max(0, left / (n - 2))),
    count: n,
  };
}

/** Index of the first reading at or after a time. */
export function firstAt(seconds: Float64Array, s: number): number {
  let low = 0;
  let high = seconds.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((seconds[middle] ?? Infinity) < s) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Pressure at a time, between the readings at either side of it. */
export function psiAt({ seconds, psi }: Trace, s: number): number {
  const after = firstAt(seconds, s);
  if (after === 0) return psi[0] ?? NaN;
  if (after >= seconds.length) return psi.at(-1) ?? NaN;
  const t0 = seconds[after - 1] ?? 0;
  const t1 = seconds[after] ?? 0;
  const share = t1 > t0 ? (s - t0) / (t1 - t0) : 1;
  return (psi[after - 1] ?? 0) * (1 - share) + (psi[after] ?? 0) * share;
}

function gridOf(trace: Trace): Grid {
  const { seconds } = trace;
  const t0 = seconds[0] ?? 0;
  const end = seconds.at(-1) ?? t0;
  const count = Math.floor((end - t0) / STEP_S) + 1;
  const psi = new Float64Array(count);
  const empty = new Uint8Array(count);
  for (let n = 0; n < count; n += 1) {
    const s = t0 + n * STEP_S;
    psi[n] = psiAt(trace, s);
    const after = firstAt(seconds, s);
    const before = seconds[Math.max(0, after - 1)] ?? s;
    if ((seconds[after] ?? s) - before > GAP_S) empty[n] = 1;
  }
  return { t0, psi: despiked(psi), empty };
}

/** The middle one of each few in a row. */
function despiked(psi: Float64Array): Float64Array {
  const reach = (MIDDLE_OF - 1) / 2;
  const near = new Float64Array(MIDDLE_OF);
  return psi.map((value, n) => {
    if (n < reach || n >= psi.length - reach) return value;
    near.set(psi.subarray(n - reach, n + reach + 1));
    return near.sort()[reach] ?? value;
  });
}

/** Least-squares slope about each step of a grid, psi/s. */
function slopesOf(psi: Float64Array): Float64Array {
  const half = Math.round(SPAN_S / 2 / STEP_S);
  const sum = new Float64Array(psi.length + 1);
  const moment = new Float64Array(psi.length + 1);
  for (let n = 0; n < psi.length; n += 1) {
    sum[n + 1] = sum[n]! + psi[n]!;
    moment[n + 1] = moment[n]! + n * psi[n]!;
  }
  return psi.map((_, n) => {
    const a = Math.max(0, n - half);
    const b = Math.min(psi.length - 1, n + half);
    const count = b - a + 1;
    if (count < 2) return 0;
    const middle = (a + b) / 2;
    const spread = (count * (count * count - 1)) / 12;
    return (moment[b + 1]! - moment[a]! - middle * (sum[b + 1]! - sum[a]!)) / spread / STEP_S;
  });
}

/** What a logger's last digit is worth, psi: the usual change where one reading differs from the one before it. */
function digitPsi(psi: Float64Array): number {
  const changes: number[] = [];
  for (let n = 1; n < psi.length && changes.length < DIGITS_LOOKED_AT; n += 1) {
    const change = Math.abs(psi[n]! - psi[n - 1]!);
    if (change > 1e-6) changes.push(change);
  }
  // A fall at a stroke changes by more than a digit: the smaller half tells.
  return changes.sort((a, b) => a - b)[Math.floor(changes.length / 4)] ?? 0;
}

/** Runs of steps for which something holds, as index ranges, end not included. */
function stretches(count: number, holds: (n: number) => boolean): [number, number][] {
  const found: [number, number][] = [];
  let from = -1;
  for (let n = 0; n <= count; n += 1) {
    const is = n < count && holds(n);
    if (is && from < 0) from = n;
    if (!is && from >= 0) {
      found.push([from, n]);
      from = -1;
    }
  }
  return found;
}

/**
 * Finds what a run knows in a recorded curve of one tank: climbs with the cut-out at their top and the cut-in at
 * their foot, holds, pedal applications, the fall past warning and pop-out, and gaps. In the order of their times.
 */
export function segmentsOf(trace: Trace): Segment[] {
  if (trace.seconds.length < 8) return [];
  const { t0, psi, empty } = gridOf(trace);
  const count = psi.length;
  const at = (n: number) => t0 + n * STEP_S;
  const level = (n: number) => psi[Math.min(count - 1, Math.max(0, n))] ?? 0;
  const half = Math.round(SPAN_S / 2 / STEP_S);
  const slopes = slopesOf(psi);
  const slope = (n: number) => slopes[Math.min(count - 1, Math.max(0, n))] ?? 0;
  const found: Segment[] = [];
  const add = (kind: SegmentKind, from: number, to: number, fitted = false) => {
    const line = fitted ? lineThrough(trace, at(from), at(to)) : null;
    found.push({
      kind,
      fromS: at(from),
      toS: at(to),
      fromPsi: level(from),
      toPsi: level(to),
      slopePsiPerS: line?.slope ?? null,
      residualPsi: line?.residualPsi ?? null,
    });
  };

  for (const [from, to] of stretches(count, (n) => empty[n] === 1)) add('gap', from, to);

  const pedal = Math.round(APPLICATION_S / STEP_S);
  for (const [from, to] of stretches(
    count,
    (n) => level(n) - level(n + pedal) >= APPLICATION_PSI && empty[n] === 0,
  )) {
    add('application', from, Math.min(count - 1, to + pedal));
  }

  for (const [from, to] of stretches(
    count,
    (n) => slope(n) >= CLIMBS_PSI_PER_S && empty[n] === 0,
  )) {
    const rise = level(to) - level(from);
    if ((to - from) * STEP_S < CLIMB_LEAST_S || rise < CLIMB_LEAST_PSI) continue;
    add('build-up', from, to, true);
    // The top and the foot lie within half a span of where the slope turned.
    const top = extreme(level, to - half, Math.min(count - 1, to + half), 1);
    const ends = slope(Math.min(count - 1, to + 2 * half)) < CLIMBS_PSI_PER_S / 2;
    if (ends && to < count - half && level(to) > 80) add('cut-out', top, top);
    const foot = extreme(level, Math.max(0, from - half), from + half, -1);
    const fellBefore =
      level(extreme(level, Math.max(0, foot - FALLS_WITHIN), foot, 1)) - level(foot) > 1;
    if (fellBefore && foot > half && level(foot) > 70) add('cut-in', foot, foot);
  }

  const stillPsiPerS = HOLD_PSI_PER_S + DIGIT_IN_SLOPE * Math.min(digitPsi(trace.psi), 2);
  for (const [from, to] of stretches(
    count,
    (n) => Math.abs(slope(n)) < stillPsiPerS && empty[n] === 0,
  )) {
    // The slope's own span reaches half into what comes before and after.
    const first = from + half;
    const last = to - half;
    if ((last - first) * STEP_S >= HOLD_LEAST_S) add('hold', first, last, true);
  }

  let over = -1;
  for (let n = 0; n < count; n += 1) {
    if (level(n) >= FALL_FROM_PSI) over = n;
    if (over >= 0 && level(n) <= FALL_TO_PSI) {
      add('fall', over, n);
      over = -1;
    }
  }
  return found.sort((a, b) => a.fromS - b.fromS || a.toS - b.toS);
}

function extreme(level: (n: number) => number, from: number, to: number, sign: 1 | -1): number {
  let best = from;
  for (let n = from; n <= to; n += 1) if (sign * level(n) > sign * level(best)) best = n;
  return best;
}
