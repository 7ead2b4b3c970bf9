import type { StopMeasured } from '@keen-bleed/contract';
import { GRAVITY_MPS2, MPS_PER_MPH } from './stopping';

/** A stop to be felt by a phone that is not there. */
export interface SimulatedStop {
  fromMph: number;
  /** Braking once it stays, share of g. */
  g: number;
  /** How long it takes to get there, s. */
  rampS: number;
  /** Uphill positive, share of g. */
  slope?: number;
  /** Turned on the floor by so much, rad. */
  turned?: number;
  /** Nose dive at 1 g, rad. */
  dive?: number;
  /** Shaking, standard deviation, m/s². */
  shake?: number;
  hz?: number;
}

type Vector = [number, number, number];
type OnPhone = Extract<StopMeasured, { by: 'phone' }>;

const STILL_S = 2;
/** Driving off, share of g. */
const DRIVES_OFF = 0.08;
/** The springs push the cab back after a stop, for so long, s. */
const REBOUND_S = 0.3;
/** Samples that a fact takes. */
const MOST = 600;

/**
 * What a phone on the floor feels of a stop: it stands, drives off, brakes, and rocks back. For tests, practice and
 * the Bay; no proof of anything.
 *
 * @param random from 0 to 1, seeded by whoever calls
 */
export function simulatedStop(stop: SimulatedStop, random: () => number): OnPhone {
  const { fromMph, g, rampS, slope = 0, turned = 0, dive = 0.04, shake = 0.15, hz = 50 } = stop;
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  /** What the axes read at a deceleration along the vehicle, m/s². */
  const felt = (deceleration: number): Vector => {
    const pitch = Math.asin(slope) - (dive * deceleration) / GRAVITY_MPS2;
    // Back along the floor, and up off it: braking pushes back, a climb pulls back.
    const back = deceleration + GRAVITY_MPS2 * -Math.sin(pitch);
    const up = GRAVITY_MPS2 * Math.cos(pitch);
    return [
      back * Math.cos(turned) + shake * normal(),
      back * Math.sin(turned) + shake * normal(),
      up + shake * normal(),
    ];
  };
  const speed = fromMph * MPS_PER_MPH;
  const still = Array.from({ length: Math.round(STILL_S * hz) }, () => felt(0));
  const motion: Vector[] = [];
  const rollS = Math.min(speed / (DRIVES_OFF * GRAVITY_MPS2), 5);
  for (let n = 0; n < rollS * hz; n += 1) motion.push(felt(-DRIVES_OFF * GRAVITY_MPS2));
  let left = speed;
  for (let n = 0; left > 0 && n < 60 * hz; n += 1) {
    const now = g * GRAVITY_MPS2 * Math.min(1, rampS > 0 ? (n + 1) / hz / rampS : 1);
    motion.push(felt(now));
    left -= now / hz;
    if (g <= 0) break;
  }
  for (let n = 0; n < REBOUND_S * hz; n += 1)
    motion.push(felt(-0.15 * g * GRAVITY_MPS2 * (1 - n / hz / REBOUND_S)));
  for (let n = 0; n < 0.7 * hz; n += 1) motion.push(felt(0));
  const mean: Vector = [0, 0, 0];
  for (const each of still) each.forEach((value, axis) => (mean[axis]! += value / still.length));
  const sd = Math.sqrt(
    still.reduce(
      (sum, each) => sum + each.reduce((all, value, axis) => all + (value - mean[axis]!) ** 2, 0),
      0,
    ) /
      (3 * still.length),
  );
  return {
    by: 'phone',
    still: { mean, sd, samples: still.length },
    hz,
    motion: motion.slice(-MOST),
    fromMph,
    simulated: true,
  };
}
