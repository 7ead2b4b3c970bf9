import type { PadNow } from '../run/awaiting';
import { fittedLine, linkResolutionPsi } from './fitted';
import type { GaugeSample } from './sampleLog';

/** A moment a linked gauge has seen that the pad waits for. */
export interface CaughtMark {
  atMs: number;
  psi: number;
  /** To what it was read, in terms of a dial's half division, psi. */
  resolutionPsi: number;
}

/** Readings to either side of a crossing that its line is fitted to, ms. */
const FITTED_MS = 3_000;
/** A climb has stopped once the line over so long, ms, rises by less than this share of the climb. */
const STOPPED_OVER_MS = 6_000;
const STILL_SHARE = 0.04;
/** The bend itself belongs to neither line, ms. */
const CLIMB_BEFORE_MS = 2_000;
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

/**
 * When a level is passed: where the line through the readings of three seconds to either side meets it, so that one
 * reading's noise, or one that was lost, moves it little.
 */
function passed(seen: readonly GaugeSample[], psi: number): CaughtMark | null {
  for (let i = 1; i < seen.length; i += 1) {
    const before = seen[i - 1]!;
    const after = seen[i]!;
    if (before.psi === after.psi) continue;
    const share = (psi - before.psi) / (after.psi - before.psi);
    if (share < 0 || share > 1) continue;
    const roughMs = before.atMs + share * (after.atMs - before.atMs);
    // What follows it belongs to the line as well.
    if (seen.at(-1)!.atMs < roughMs + FITTED_MS) return null;
    const line = fittedLine(seen, roughMs - FITTED_MS, roughMs + FITTED_MS);
    const offMs = line && line.psiPerS !== 0 ? ((psi - line.at(roughMs)) / line.psiPerS) * 1000 : 0;
    const fromMs = Math.max(roughMs - FITTED_MS, seen[0]!.atMs);
    const atMs = Math.max(fromMs, roughMs + Math.min(FITTED_MS, offMs));
    return { atMs: Math.round(atMs), psi, resolutionPsi: linkResolutionPsi(seen, line) };
  }
  return null;
}

/**
 * Where a climb ends: the line through six seconds no longer climbs, and it meets the line of the climb before. A
 * single reading tells neither.
 */
function stopped(seen: readonly GaugeSample[]): CaughtMark | null {
  const [first] = seen;
  if (!first) return null;
  let steepest = 0;
  for (const { atMs } of everySecond(seen)) {
    const lately = fittedLine(seen, atMs - STOPPED_OVER_MS, atMs);
    if (!lately || atMs - first.atMs < STOPPED_OVER_MS) continue;
    const climbed = lately.at(atMs) - first.psi;
    steepest = Math.max(steepest, lately.psiPerS);
    if (climbed < CLIMB_PSI || lately.psiPerS > STILL_SHARE * steepest) continue;
    const climb = fittedLine(
      seen,
      atMs - 2 * STOPPED_OVER_MS - CLIMB_BEFORE_MS,
      atMs - STOPPED_OVER_MS - CLIMB_BEFORE_MS,
    );
    const bentMs = atMs - STOPPED_OVER_MS;
    const apart = climb ? climb.psiPerS - lately.psiPerS : 0;
    const metMs =
      climb && apart > 0
        ? bentMs + ((lately.at(bentMs) - climb.at(bentMs)) / apart) * 1000
        : bentMs;
    const topMs = Math.min(atMs, Math.max(bentMs - CLIMB_BEFORE_MS, metMs));
    return {
      atMs: Math.round(topMs),
      psi: lately.at(topMs),
      resolutionPsi: linkResolutionPsi(seen, lately),
    };
  }
  return null;
}

/** One reading for each second, the newest among them: a line of six seconds changes little between. */
function everySecond(seen: readonly GaugeSample[]): GaugeSample[] {
  let nextMs = -Infinity;
  return seen.filter((sample, i) => {
    if (sample.atMs < nextMs && i < seen.length - 1) return false;
    nextMs = sample.atMs + 1_000;
    return true;
  });
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
      return { atMs: bottom.atMs, psi: bottom.psi, resolutionPsi: readingOf(seen) };
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
    ? { atMs: last.atMs, psi: last.psi, resolutionPsi: readingOf(seen) }
    : null;
}

/** To what a single reading of now is good. */
const readingOf = (seen: readonly GaugeSample[]) => linkResolutionPsi(seen, null);
