import type { UnitDraft, UnitKind } from '@keen-bleed/contract';
import { chamberVolumeIn3 } from './chamberVolume';
import { brakeTankVolumeIn3 } from './tankVolume';

/** What the reservoir rule makes of a unit. */
export interface ReservoirCheck {
  /** Times the chambers' volume that the tanks must hold. */
  factor: 8 | 12;
  chambersIn3: number | null;
  requiredIn3: number | null;
  actualIn3: number;
  /** Null where a chamber type has no rated volume. */
  enough: boolean | null;
  source: string;
}

const towed: readonly UnitKind[] = ['trailer', 'dolly'];

/**
 * Tanks against chambers: 12 times on a truck, tractor or bus [std: 49 CFR 571.121 S5.1.2.1], 8 times on
 * a towed unit [std: 571.121 S5.2.1.1]; both values from memory.
 */
export function reservoirCheck(
  unit: Pick<UnitDraft, 'kind' | 'tanks' | 'chambers'>,
): ReservoirCheck {
  const isTowed = towed.includes(unit.kind);
  const factor = isTowed ? 8 : 12;
  const chambersIn3 = chamberVolumeIn3(unit.chambers);
  const actualIn3 = brakeTankVolumeIn3(unit.tanks);
  const requiredIn3 = chambersIn3 === null ? null : factor * chambersIn3;
  return {
    factor,
    chambersIn3,
    requiredIn3,
    actualIn3,
    enough: requiredIn3 === null ? null : actualIn3 >= requiredIn3,
    source: isTowed ? '49 CFR 571.121 S5.2.1.1' : '49 CFR 571.121 S5.1.2.1',
  };
}
