import type { ChamberGroup, ChamberType } from '@keen-bleed/contract';

/**
 * Rated volume of a service chamber, in³, by type
 * [std: 49 CFR 571.121 Table V, value from memory]. Type 6 is not in the table.
 */
export const RATED_CHAMBER_VOLUME_IN3: Readonly<Record<ChamberType, number | null>> = {
  '6': null,
  '9': 25,
  '12': 30,
  '14': 40,
  '16': 46,
  '18': 50,
  '20': 54,
  '24': 67,
  '30': 89,
  '36': 135,
};

/**
 * Service-side volume of all chambers of a unit.
 *
 * @returns in³, or null where a type is not in the table
 */
export function chamberVolumeIn3(groups: readonly ChamberGroup[]): number | null {
  let total = 0;
  for (const group of groups) {
    const each = RATED_CHAMBER_VOLUME_IN3[group.type];
    if (each === null) return null;
    total += each * group.count;
  }
  return total;
}
