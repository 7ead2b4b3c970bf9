import type { Verdict } from '@keen-bleed/contract';
import type { Trace } from './segments';

/** The brakes going on or off in a recorded line or chamber. */
export interface BrakeMove {
  way: 'apply' | 'release';
  /** When it began in the trace, s. */
  atS: number;
  /** Apply: from the line's first rise to 60 psi. Release: from 95 to 5 psi. */
  seconds: number;
  /** Standard deviation of that, s: what lies between two readings is not known. */
  deviation: number;
  /** The widest gap between readings where it was timed, s. */
  sampleS: number;
}

/** Marks that service timing goes by, psi [std: 49 CFR 571.121 S5.3.3 and S5.3.4, values from memory]. */
const APPLIED_PSI = 60;
const RELEASE_FROM_PSI = 95;
const RELEASE_TO_PSI = 5;
/** A line at rest; it has begun to rise over this, psi. */
const RISES_PSI = 1.5;
/** Slower than this it is no stamp on the pedal, s. */
const SLOWEST_S = 5;
/** Readings this far apart say nothing of a stamp, s. */
const COARSEST_S = 0.5;

/** Between which readings a mark was passed, and when, by the line from one to the other; null where it was not. */
interface Crossing {
  s: number;
  gapS: number;
}

const crossingAt = ({ seconds, psi }: Trace, n: number, mark: number): Crossing => {
  const [from, to] = [psi[n - 1]!, psi[n]!];
  const gapS = seconds[n]! - seconds[n - 1]!;
  const share = to === from ? 0.5 : (mark - from) / (to - from);
  return { s: seconds[n - 1]! + gapS * Math.min(1, Math.max(0, share)), gapS };
};

/** Every stamp on the pedal and every letting go that a line or a chamber shows, in their order. */
export function brakeMoves(trace: Trace): BrakeMove[] {
  const { seconds, psi } = trace;
  const moves: BrakeMove[] = [];
  let rest: Crossing | null = null;
  let high: Crossing | null = null;
  for (let n = 1; n < psi.length; n += 1) {
    const [from, to] = [psi[n - 1]!, psi[n]!];
    if (Number.isNaN(from) || Number.isNaN(to)) {
      rest = null;
      high = null;
      continue;
    }
    if (from <= RISES_PSI && to > RISES_PSI) rest = crossingAt(trace, n, RISES_PSI);
    if (from >= RELEASE_FROM_PSI && to < RELEASE_FROM_PSI) {
      high = crossingAt(trace, n, RELEASE_FROM_PSI);
    }
    if (rest && from < APPLIED_PSI && to >= APPLIED_PSI) {
      push(moves, 'apply', rest, crossingAt(trace, n, APPLIED_PSI));
      rest = null;
    }
    if (high && from > RELEASE_TO_PSI && to <= RELEASE_TO_PSI) {
      push(moves, 'release', high, crossingAt(trace, n, RELEASE_TO_PSI));
      high = null;
    }
    // It came down again before it was on, or went up again before it was off.
    if (rest && to <= RISES_PSI) rest = null;
    if (high && to >= RELEASE_FROM_PSI) high = null;
    if (rest && seconds[n]! - rest.s > SLOWEST_S) rest = null;
    if (high && seconds[n]! - high.s > SLOWEST_S) high = null;
  }
  return moves;
}

function push(moves: BrakeMove[], way: BrakeMove['way'], from: Crossing, to: Crossing): void {
  const sampleS = Math.max(from.gapS, to.gapS);
  if (sampleS > COARSEST_S) return;
  moves.push({
    way,
    atS: from.s,
    seconds: to.s - from.s,
    // Each mark was passed somewhere between two readings; a straight line between them is a guess.
    deviation: Math.hypot(from.gapS, to.gapS) / Math.sqrt(12),
    sampleS,
  });
}

/** What is timed: limits differ by it. */
export const timedKinds = ['truck', 'towing-trailer', 'trailer', 'dolly'] as const;
export type TimedKind = (typeof timedKinds)[number];

/** Most seconds, with 100 psi in the tanks and the pedal moved at once [std: 49 CFR 571.121 S5.3.3 and S5.3.4, values from memory]. */
export const TIMING_MOST_S: Readonly<
  Record<TimedKind, Readonly<Record<BrakeMove['way'], number>>>
> = {
  truck: { apply: 0.45, release: 0.55 },
  'towing-trailer': { apply: 0.5, release: 1 },
  trailer: { apply: 0.6, release: 1.2 },
  dolly: { apply: 0.55, release: 1.1 },
};

/** The pedal moves up to so much before the line's first rise, s: what a trace of the line alone does not show. */
const PEDAL_BEFORE_S = 0.15;
const COVERAGE = 1.96;

/** Whether a move was in time; can't tell where its doubt spans the limit. */
export function judgeMove({ way, seconds, deviation }: BrakeMove, kind: TimedKind): Verdict {
  const most = TIMING_MOST_S[kind][way];
  const doubt = COVERAGE * deviation;
  if (seconds - doubt > most) return 'fail';
  const before = way === 'apply' ? PEDAL_BEFORE_S : 0;
  return seconds + before + doubt <= most ? 'pass' : 'cant-tell';
}
