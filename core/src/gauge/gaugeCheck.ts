import type { GaugeCheck, GaugeRole, UnitDraft } from '@keen-bleed/contract';
import { evenAndNormalCdf } from '../statistics/normal';
import { halfDivisionPsi } from './graduation';
import {
  DASH_GAUGE_SHARE,
  gaugeShare,
  MASTER_GAUGE_SHARE,
  readingUncertaintyPsi,
  SLIP_CHANCE,
  SLIP_HALF_DIVISIONS,
  slopeShare,
} from './uncertainty';

/** How much a dash gauge moves in a year, as a share of cut-out (standard deviation). House value. */
const DRIFT_SHARE_A_YEAR = 0.01;
const YEAR_MS = 365.25 * 86_400_000;
/** Between two compared pressures a dial bends a little: a share of the distance to the nearer (standard deviation). House value. */
const BEND_SHARE = 0.02;
/** A comparison this near another one of the same gauge takes its place, psi. */
const SAME_POINT_PSI = 20;
/** Points kept of one gauge. */
const POINTS = 2;
const EVEN_TO_DEVIATION = Math.sqrt(3);

/** A level as the gauge showed it, put right by what is known of the gauge. */
export interface Level {
  psi: number;
  /** Anything within this is as likely, psi: a dial of which nothing is known but its allowance. */
  halfWidthPsi: number;
  /** What is left beside it: the eye, and what is known of the dial (standard deviation). */
  eyePsi: number;
  /** A comparison with a master gauge was used. */
  checked: boolean;
}

/** The spread of a level as one standard uncertainty, psi. */
export function levelUncertaintyPsi({
  halfWidthPsi,
  eyePsi,
}: Pick<Level, 'halfWidthPsi' | 'eyePsi'>): number {
  return Math.hypot(halfWidthPsi / EVEN_TO_DEVIATION, eyePsi);
}

/** Chance that a level is at most something; one reading in fifty is a slip. */
export const levelChance =
  (
    { psi, halfWidthPsi, eyePsi }: Pick<Level, 'psi' | 'halfWidthPsi' | 'eyePsi'>,
    resolutionPsi: number,
  ) =>
  (atMostPsi: number): number => {
    const by = (sd: number) => evenAndNormalCdf(atMostPsi - psi, halfWidthPsi, sd);
    const slipPsi = Math.hypot(eyePsi, SLIP_HALF_DIVISIONS * resolutionPsi);
    return (1 - SLIP_CHANCE) * by(eyePsi) + SLIP_CHANCE * by(slipPsi);
  };

/**
 * A level read from a gauge. Where the unit keeps comparisons of that gauge with a master gauge, the reading is moved
 * by what the two differed, between two compared pressures by what lies between; the doubt is the comparison's own,
 * and grows with the distance from what was compared and with its age.
 *
 * @param atMs when it was read
 */
export function levelOf(
  readingPsi: number,
  resolutionPsi: number,
  gauge: GaugeRole,
  unit: Pick<UnitDraft, 'gauge' | 'gaugeChecks'>,
  cutOutPsi: number,
  atMs: number,
): Level {
  const eyePsi = readingUncertaintyPsi(resolutionPsi);
  const points = unit.gaugeChecks
    .filter((each) => each.gauge === gauge)
    .sort((a, b) => a.dashPsi - b.dashPsi);
  const [low, high] = [points[0], points.at(-1)];
  if (!low || !high) {
    return {
      psi: readingPsi,
      halfWidthPsi: gaugeShare(gauge) * cutOutPsi,
      eyePsi,
      checked: false,
    };
  }
  const off = (point: GaugeCheck) => point.masterPsi - point.dashPsi;
  const between = readingPsi > low.dashPsi && readingPsi < high.dashPsi;
  const share = between ? (readingPsi - low.dashPsi) / (high.dashPsi - low.dashPsi) : 0;
  const near =
    Math.abs(readingPsi - low.dashPsi) <= Math.abs(readingPsi - high.dashPsi) ? low : high;
  const distance = Math.abs(readingPsi - near.dashPsi);
  const years = Math.max(0, atMs - near.atMs) / YEAR_MS;
  return {
    psi: readingPsi + (between ? off(low) * (1 - share) + off(high) * share : off(near)),
    halfWidthPsi: 0,
    eyePsi: Math.hypot(
      eyePsi,
      readingUncertaintyPsi(halfDivisionPsi(unit.gauge)),
      (MASTER_GAUGE_SHARE / EVEN_TO_DEVIATION) * cutOutPsi,
      DRIFT_SHARE_A_YEAR * Math.sqrt(years) * cutOutPsi,
      (between ? BEND_SHARE : slopeShare(gauge)) * distance,
    ),
    checked: true,
  };
}

/** How far a dial was off where it was compared, and how far it may be. */
export interface DialError {
  offPsi: number;
  allowedPsi: number;
  standardUncertaintyPsi: number;
}

/**
 * The worst that comparisons found of a gauge, against what a dash gauge may be off [std: 49 CFR 571.121 S5.1.4, value
 * from memory].
 *
 * @returns null where it was not compared
 */
export function dialError(
  gauge: GaugeRole,
  { gauge: dial, gaugeChecks }: Pick<UnitDraft, 'gauge' | 'gaugeChecks'>,
  cutOutPsi: number,
): DialError | null {
  const offs = gaugeChecks
    .filter((each) => each.gauge === gauge)
    .map((each) => Math.abs(each.dashPsi - each.masterPsi));
  if (offs.length === 0) return null;
  return {
    offPsi: Math.max(...offs),
    allowedPsi: DASH_GAUGE_SHARE * cutOutPsi,
    standardUncertaintyPsi: Math.hypot(
      readingUncertaintyPsi(halfDivisionPsi(dial)),
      (MASTER_GAUGE_SHARE / EVEN_TO_DEVIATION) * cutOutPsi,
    ),
  };
}

/** Comparisons with a new one: of each gauge two are kept, and one near another takes its place. */
export function withGaugeCheck(checks: readonly GaugeCheck[], check: GaugeCheck): GaugeCheck[] {
  const others = checks.filter((each) => each.gauge !== check.gauge);
  const kept = checks
    .filter(
      (each) =>
        each.gauge === check.gauge && Math.abs(each.dashPsi - check.dashPsi) > SAME_POINT_PSI,
    )
    .sort((a, b) => b.atMs - a.atMs)
    .slice(0, POINTS - 1);
  return [...others, ...kept, check];
}
