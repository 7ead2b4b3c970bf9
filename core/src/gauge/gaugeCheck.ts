import type { GaugeRole, UnitDraft } from '@keen-bleed/contract';
import { halfDivisionPsi } from './graduation';
import { levelUncertaintyPsi, MASTER_GAUGE_SHARE, readingUncertaintyPsi } from './uncertainty';

/** How much a dash gauge may have moved since it was checked, as a share of cut-out (standard deviation). House value. */
const DRIFT_SHARE = 0.004;

/** A level as the gauge showed it, put right by what is known of the gauge. */
export interface Level {
  psi: number;
  standardUncertaintyPsi: number;
  /** A comparison with a master gauge was used. */
  checked: boolean;
}

/**
 * A level read from a gauge. Where the unit keeps a comparison of that gauge with a master gauge, the reading
 * is moved by what the two differed, and the doubt shrinks to the comparison's own.
 */
export function levelOf(
  readingPsi: number,
  resolutionPsi: number,
  gauge: GaugeRole,
  unit: Pick<UnitDraft, 'gauge' | 'gaugeChecks'>,
  cutOutPsi: number,
): Level {
  const check = unit.gaugeChecks.find((each) => each.gauge === gauge);
  if (!check) {
    return {
      psi: readingPsi,
      standardUncertaintyPsi: levelUncertaintyPsi(resolutionPsi, gauge, cutOutPsi),
      checked: false,
    };
  }
  return {
    psi: readingPsi + check.masterPsi - check.dashPsi,
    standardUncertaintyPsi: Math.hypot(
      readingUncertaintyPsi(resolutionPsi),
      readingUncertaintyPsi(halfDivisionPsi(unit.gauge)),
      MASTER_GAUGE_SHARE * cutOutPsi,
      DRIFT_SHARE * cutOutPsi,
    ),
    checked: true,
  };
}
