import type { StopMeasured } from '@keen-bleed/contract';
import { GRAVITY_MPS2, MPS_PER_MPH, WHOLE_STOP_FROM_MPH } from './stopping';

/** A braking that was measured: share of the weight in percent, with its standard uncertainty. */
export interface Braking {
  outcome: 'braking';
  pct: number;
  sdPct: number;
  /** What was averaged; null on rollers. */
  part: { of: 'after-ramp' | 'whole'; seconds: number } | null;
}

/** Why a measured stop says nothing. */
export interface NoBraking {
  outcome: 'none';
  why: 'too-short' | 'not-still' | 'no-stop' | 'speed-unlike' | 'cut-off' | 'uneven' | 'too-much';
}

type Vector = readonly [number, number, number];
type OnPhone = Extract<StopMeasured, { by: 'phone' }>;

/** A roller tester’s force and the weight it is divided by are good to so much, each as a share. House values. */
const ROLLER_SHARE = { force: 0.02, weight: 0.01 };

/** The after-ramp part of a stop from walking pace must last so long, s. */
export const SHORTEST_PART_S = 0.3;
/** More shaking than this is not standing still, m/s²: a diesel at idle shakes by a tenth of it. House value. */
const STILL_MPS2 = 0.6;
/** Less than this at its strongest is no stop, m/s². */
const NO_STOP_MPS2 = 0.5;
/** The series is smoothed over this, s: the shaking of a floor is quicker, a stop slower. */
const SMOOTHED_S = 0.1;
/** The nose dives as it brakes, and the phone with it: so much of the reading is gravity. House values. */
const DIVE = { share: 0.04, sd: 0.02 };
/** What an accelerometer of a phone is off by, as a share. House value. */
const SCALE_SD = 0.01;
/** Speed by the readings beside the speedometer’s: outside this the phone slid, or another speed was meant. */
const SPEED_RATIO = { least: 0.6, most: 1.6 };

/** Beside what counts there is no braking: longer than this before it, or at all after it, m/s². House values. */
const BESIDE_MPS2 = { before: 1, after: 0.5 };
/** Where that is looked at, from its edge, s: a pedal that goes down or is eased needs the first of it. */
const BESIDE_S = { from: 0.3, to: 0.8 };
/** No tyres of a heavy vehicle hold more than its weight, percent [common practice, no source]. */
const MOST_PCT = 100;

/** The braking of a stop that was measured; standard deviations, not bounds. */
export function brakingOf(measured: StopMeasured): Braking | NoBraking {
  if (measured.by === 'phone') return brakingOnPhone(measured);
  const pct = (100 * measured.forceN) / (measured.massKg * GRAVITY_MPS2);
  if (pct > MOST_PCT) return none('too-much');
  return {
    outcome: 'braking',
    pct,
    sdPct: pct * Math.hypot(ROLLER_SHARE.force, ROLLER_SHARE.weight),
    part: null,
  };
}

const none = (why: NoBraking['why']): NoBraking => ({ outcome: 'none', why });

function brakingOnPhone({ still, hz, motion, fromMph }: OnPhone): Braking | NoBraking {
  if (still.sd > STILL_MPS2) return none('not-still');
  // The slope, and how the phone lies, are what it read standing still.
  const along = alongStop(motion, still.mean, hz);
  const peakAt = indexOfMost(along);
  const peak = along[peakAt] ?? 0;
  if (peak < NO_STOP_MPS2) return none('no-stop');
  let begins = peakAt;
  while (begins > 0 && along[begins - 1]! > 0.1 * peak) begins -= 1;
  let ends = peakAt;
  while (ends < along.length && along[ends]! >= 0.5 * peak) ends += 1;
  // Nothing of a standstill behind it: it was still braking when the recording stopped.
  if (ends >= along.length) return none('cut-off');
  if (isBraking(along, begins, ends, hz)) return none('uneven');
  const stop = along.slice(begins, ends);
  const level = median(stop.filter((each) => each >= 0.5 * peak));
  const ramp = stop.findIndex((each) => each >= 0.9 * level);
  const speed = stop.reduce((sum, each) => sum + each, 0) / hz / MPS_PER_MPH;
  if (speed < SPEED_RATIO.least * fromMph || speed > SPEED_RATIO.most * fromMph)
    return none('speed-unlike');
  const isWhole = fromMph >= WHOLE_STOP_FROM_MPH;
  const part = isWhole ? stop : stop.slice(ramp);
  const seconds = part.length / hz;
  if (seconds < SHORTEST_PART_S) return none('too-short');
  const free = Math.max(1, seconds / SMOOTHED_S);
  // A whole stop climbs and falls: only what is left around its own smooth course is noise.
  const noise = roughness(part) / Math.sqrt(free);
  const braking = mean(part) * (1 - DIVE.share);
  const sd = Math.hypot(noise, braking * DIVE.sd, braking * SCALE_SD, still.sd / Math.sqrt(free));
  const toPct = 100 / GRAVITY_MPS2;
  if (braking * toPct > MOST_PCT) return none('too-much');
  return {
    outcome: 'braking',
    pct: braking * toPct,
    sdPct: sd * toPct,
    part: { of: isWhole ? 'whole' : 'after-ramp', seconds },
  };
}

/**
 * Whether it was braking beside the part that counts, too: a jolt in a weak stop is stronger than the stop, and would
 * be taken for it.
 */
function isBraking(along: readonly number[], begins: number, ends: number, hz: number): boolean {
  const [from, to] = [BESIDE_S.from * hz, BESIDE_S.to * hz].map(Math.round) as [number, number];
  const before = along.slice(Math.max(0, begins - to), Math.max(0, begins - from));
  const after = along.slice(ends + from, ends + to);
  return mean(before) > BESIDE_MPS2.before || mean(after) > BESIDE_MPS2.after;
}

/** Deceleration along the way the vehicle was braked, smoothed, m/s², with gravity taken out. */
function alongStop(motion: readonly Vector[], still: Vector, hz: number): number[] {
  const up = scaled(still, 1 / length(still));
  const level = motion.map((each): Vector => {
    const change = minus(each, still);
    return minus(change, scaled(up, dot(change, up)));
  });
  const width = Math.max(1, Math.round(SMOOTHED_S * hz));
  const smooth = level.map((_, at) =>
    meanOf(level.slice(Math.max(0, at - (width >> 1)), at - (width >> 1) + width)),
  );
  // Driving off pushes the other way, and less: the strongest push is the stop.
  const strongest = smooth[indexOfMost(smooth.map(length))] ?? still;
  const way = scaled(strongest, 1 / Math.max(1e-9, length(strongest)));
  return smooth.map((each) => dot(each, way));
}

/** The standard deviation around a smooth course, from second differences (von Neumann’s way). */
function roughness(series: readonly number[]): number {
  if (series.length < 3) return 0;
  let sum = 0;
  for (let at = 1; at + 1 < series.length; at += 1)
    sum += (series[at - 1]! - 2 * series[at]! + series[at + 1]!) ** 2;
  return Math.sqrt(sum / (series.length - 2) / 6) * Math.sqrt(SMOOTHED_BY);
}
/** Smoothing hides so much of the variance that neighbours show. House value. */
const SMOOTHED_BY = 5;

const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const length = (a: Vector) => Math.sqrt(dot(a, a));
const scaled = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const meanOf = (all: readonly Vector[]): Vector =>
  scaled(
    all.reduce(
      (sum, each): Vector => [sum[0] + each[0], sum[1] + each[1], sum[2] + each[2]],
      [0, 0, 0],
    ),
    1 / Math.max(1, all.length),
  );
const mean = (all: readonly number[]) =>
  all.reduce((sum, each) => sum + each, 0) / Math.max(1, all.length);
const median = (all: readonly number[]) => {
  const sorted = [...all].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
};
const indexOfMost = (all: readonly number[]) =>
  all.reduce((best, each, at) => (each > all[best]! ? at : best), 0);
