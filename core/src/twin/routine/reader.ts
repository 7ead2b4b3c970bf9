import type { Gauge } from '@keen-bleed/contract';
import { nearestReadingPsi } from '../../gauge/graduation';
import type { Draws } from '../random';
import { usualSeenGauge } from '../senses/seenGauge';

/** A gauge, and who reads it. */
export interface Reader {
  /** The dial; null for a linked channel, which sends what it measures. */
  gauge: Gauge | null;
  /** What the needle of a place shows too much, psi. */
  errorPsi: (place: string) => number;
  /** Seconds the needle takes for two thirds of the way. */
  dampingS: number;
  /** What the needle's pivot holds back, psi. */
  stickPsi: number;
  /** Error of one reading, psi, one deviation. */
  eyePsi: number;
  /** How long after the moment it is seen, s: least, and one deviation more. */
  lateS: number;
  lateBy: number;
  /** Draws for eye and hand; null for one who is always at the mean. */
  draws: Draws | null;
}

/** Reads what is there: for what the physics shows, apart from who looks. */
export const exactReader: Reader = {
  gauge: null,
  errorPsi: () => 0,
  dampingS: 0,
  stickPsi: 0,
  eyePsi: 0,
  lateS: 0,
  lateBy: 0,
  draws: null,
};

/** Somebody at a dash gauge. */
export const atDash = (
  gauge: Gauge,
  draws: Draws | null,
  errorPsi: Reader['errorPsi'] = () => 0,
): Reader => ({
  gauge,
  errorPsi,
  dampingS: usualSeenGauge.dampingS,
  stickPsi: 0.7,
  eyePsi: 0.5,
  lateS: 0.3,
  lateBy: 0.1,
  draws,
});

/** What is written down where the needle stands at `needlePsi`. */
export function readingOf({ gauge, eyePsi, draws }: Reader, needlePsi: number): number {
  const seen = needlePsi + (draws ? eyePsi * draws.normal() : 0);
  return gauge ? Math.max(0, nearestReadingPsi(seen, gauge)) : seen;
}

/** How long this one takes this time, s. */
export const lateness = ({ lateS, lateBy, draws }: Reader): number =>
  lateS + (draws ? lateBy * Math.abs(draws.normal()) : 0);
