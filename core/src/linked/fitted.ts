import { weightedLine } from '../statistics/weightedLine';
import type { GaugeSample } from './sampleLog';

/** A straight line through a stretch of a linked gauge's readings. */
export interface FittedLine {
  psiPerS: number;
  /** Where the line stands at a moment, psi. */
  at: (atMs: number) => number;
  /** What single readings scatter about it (standard deviation), psi. */
  scatterPsi: number;
  samples: number;
}

/** Place of the first reading at a moment or after it, in a log that stands in order. */
function firstFrom(log: readonly GaugeSample[], atMs: number): number {
  let low = 0;
  let high = log.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (log[middle]!.atMs < atMs) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** What a linked gauge says at a moment from every reading of a stretch before it. */
export function readOver(
  log: readonly GaugeSample[],
  fromMs: number,
  atMs: number,
): { psi: number; resolutionPsi: number } | null {
  const line = fittedLine(log, fromMs, atMs);
  return line && { psi: line.at(atMs), resolutionPsi: linkResolutionPsi(log, line) };
}

/** To what a linked gauge is read now, from its newest readings, psi of a dial's half division. */
export function linkedNowPsi(log: readonly GaugeSample[]): number {
  const last = log.at(-1);
  return linkResolutionPsi(log, last ? fittedLine(log, last.atMs - NOW_OVER_MS, last.atMs) : null);
}

/**
 * The least-squares line through readings from one moment to another, both included.
 *
 * @returns null with fewer than three of them
 */
export function fittedLine(
  log: readonly GaugeSample[],
  fromMs: number,
  toMs: number,
): FittedLine | null {
  const part = log.slice(firstFrom(log, fromMs), firstFrom(log, toMs + 1));
  if (part.length < 3) return null;
  const line = weightedLine(
    part.map(({ atMs, psi }) => ({ x: (atMs - fromMs) / 1000, y: psi, u: 1 })),
  );
  if (!line) return null;
  const at = (atMs: number) => line.intercept + line.slope * ((atMs - fromMs) / 1000);
  const squares = part.reduce((sum, { atMs, psi }) => sum + (psi - at(atMs)) ** 2, 0);
  return {
    psiPerS: line.slope,
    at,
    scatterPsi: Math.sqrt(squares / (part.length - 2)),
    samples: part.length,
  };
}

/** Readings that say how the needle moves now, ms. */
const NOW_OVER_MS = 3_000;
/** Least digit that is told from noise, psi. */
const LEAST_STEP_PSI = 0.02;
/** Readings that are looked at for the digit and the pace of the link. */
const LATELY = 80;
/** A reading to the half division is good to this share of it: what is good otherwise is put in its terms. */
const GOOD_TO_SHARE = 0.8;

/**
 * To what a linked gauge can be read, in terms of a dial's half division, psi: its last digit, and either the scatter
 * of its readings about their line, the less of them the worse, or where there is no line what the needle may have
 * moved between two readings.
 */
export function linkResolutionPsi(log: readonly GaugeSample[], line: FittedLine | null): number {
  const lately = log.slice(-LATELY);
  let stepPsi = Infinity;
  let mostPsi = 0;
  for (let i = 1; i < lately.length; i += 1) {
    const moved = Math.abs(lately[i]!.psi - lately[i - 1]!.psi);
    if (moved >= LEAST_STEP_PSI) stepPsi = Math.min(stepPsi, moved);
    mostPsi = Math.max(mostPsi, moved);
  }
  const digitPsi = Number.isFinite(stepPsi) ? stepPsi : LEAST_STEP_PSI;
  const restPsi = line ? (2 * line.scatterPsi) / Math.sqrt(line.samples) : mostPsi / Math.sqrt(12);
  return Math.min(
    5,
    Math.max(LEAST_STEP_PSI, Math.hypot(digitPsi / Math.sqrt(12), restPsi) / GOOD_TO_SHARE),
  );
}
