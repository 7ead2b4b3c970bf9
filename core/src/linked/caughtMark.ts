import type { PadNow } from '../run/awaiting';
import type { GaugeSample } from './sampleLog';

/** A moment a linked gauge has seen that the pad waits for. */
export interface CaughtMark {
  atMs: number;
  psi: number;
}

/** A needle that has not risen by more than this, psi, has stopped; the set's own noise is under it. */
const STILL_PSI = 0.4;
const STOPPED_FOR_MS = 3_000;
/** A climb of this much, psi, is one. */
const CLIMB_PSI = 1;
/** A tank comes back a little after each pump of the pedal; a climb lasts longer than that. */
const TURNED_FOR_MS = 7_000;
const CLIMBING_FOR_MS = 4_000;
const CLIMBING_PSI = 0.3;
/** Settled: within this over the time below, psi. */
const STEADY_PSI = 0.5;
const STEADY_FOR_MS = 5_000;

/**
 * The moment the pad waits for, if it lies in what the gauge has sent since the last mark: a level passed, the
 * needle's turning points, or its coming to rest. What does not show in the pressure is null.
 *
 * @param log readings, oldest first
 * @param sinceMs time of the newest mark; what lies before it belongs to that
 */
export function caughtMark(
  pad: PadNow,
  log: readonly GaugeSample[],
  sinceMs: number,
): CaughtMark | null {
  const seen = log.filter((sample) => sample.atMs > sinceMs);
  if (pad.method === 'crossing') return passed(seen, pad.proposedPsi);
  switch (pad.spec.shows) {
    case 'stops-rising':
      return stopped(seen);
    case 'starts-rising':
      return turnedUp(seen);
    case 'steady':
      return steady(seen);
    default:
      return null;
  }
}

/** The first time a level is passed, between the two readings at either side of it. */
function passed(seen: readonly GaugeSample[], psi: number): CaughtMark | null {
  for (let i = 1; i < seen.length; i += 1) {
    const before = seen[i - 1];
    const after = seen[i];
    if (!before || !after || before.psi === after.psi) continue;
    const share = (psi - before.psi) / (after.psi - before.psi);
    if (share < 0 || share > 1) continue;
    return { atMs: Math.round(before.atMs + share * (after.atMs - before.atMs)), psi };
  }
  return null;
}

/** The top of a climb that has not gone on for a while. */
function stopped(seen: readonly GaugeSample[]): CaughtMark | null {
  const [first] = seen;
  if (!first) return null;
  let top = first;
  for (const sample of seen) {
    if (sample.psi > top.psi + (sample.atMs - top.atMs > STOPPED_FOR_MS ? STILL_PSI : 0)) {
      top = sample;
    }
    if (top.psi - first.psi >= CLIMB_PSI && sample.atMs - top.atMs >= STOPPED_FOR_MS) {
      return { atMs: top.atMs, psi: top.psi };
    }
  }
  return null;
}

/** The bottom of a fall after which it has climbed, and climbs on. */
function turnedUp(seen: readonly GaugeSample[]): CaughtMark | null {
  const [first] = seen;
  if (!first) return null;
  let bottom = first;
  let lately = 0;
  for (const sample of seen) {
    if (sample.psi < bottom.psi) bottom = sample;
    while ((seen[lately]?.atMs ?? Infinity) < sample.atMs - CLIMBING_FOR_MS) lately += 1;
    const before = seen[lately] ?? sample;
    const climbed =
      sample.psi - bottom.psi >= CLIMB_PSI && sample.atMs - bottom.atMs >= TURNED_FOR_MS;
    const climbs = sample.psi - before.psi >= CLIMBING_PSI;
    if (first.psi - bottom.psi >= CLIMB_PSI && climbed && climbs) {
      return { atMs: bottom.atMs, psi: bottom.psi };
    }
  }
  return null;
}

/** Now, once it has stood within a little for a while. */
function steady(seen: readonly GaugeSample[]): CaughtMark | null {
  const last = seen.at(-1);
  if (!last) return null;
  const lately = seen.filter((sample) => sample.atMs >= last.atMs - STEADY_FOR_MS);
  const [earliest] = lately;
  if (!earliest || last.atMs - earliest.atMs < STEADY_FOR_MS * 0.8) return null;
  const levels = lately.map((sample) => sample.psi);
  return Math.max(...levels) - Math.min(...levels) <= STEADY_PSI
    ? { atMs: last.atMs, psi: last.psi }
    : null;
}
