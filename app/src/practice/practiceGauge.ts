import type { Gauge } from '@keen-bleed/contract';
import {
  halfDivisionPsi,
  linkedNowPsi,
  nearestReadingPsi,
  withSample,
  type GaugeSample,
} from '@keen-bleed/core';
import type { LinkedGauge } from '../linked/linkedGauge';

/** A source that is no real gauge sends this often at most, by its own clock, ms. */
const SENDS_EVERY_MS = 100;
const NONE: readonly GaugeSample[] = [];

/** Puts what a source shows now into its log, unless it has just sent. */
export function sampled(
  log: readonly GaugeSample[],
  atMs: number,
  psi: number,
): readonly GaugeSample[] {
  const last = log.at(-1);
  if (last && atMs - last.atMs < SENDS_EVERY_MS) return log;
  return withSample(log, { seq: (last?.seq ?? 0) + 1, atMs, psi });
}

/** A gauge set that sends the pressure itself. */
export const gaugeSet = (log: readonly GaugeSample[], psi: number): LinkedGauge => ({
  log,
  psi: Math.round(psi * 10) / 10,
  resolutionPsi: linkedNowPsi(log),
  asRole: 'simulated',
});

/** The needle in the cab as an eye reads it: it is seen where it stands, and nothing is caught by itself. */
export const byEye = (gauge: Gauge, needlePsi: number): LinkedGauge => ({
  log: NONE,
  psi: nearestReadingPsi(needlePsi, gauge),
  resolutionPsi: halfDivisionPsi(gauge),
  asRole: null,
});
