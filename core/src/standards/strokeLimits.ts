import type { ChamberType, ChamberStroke } from '@keen-bleed/contract';

const MM_PER_IN = 25.4;

/**
 * Adjustment limits of the pushrod’s stroke, in, by chamber type and stroke mark [std: 49 CFR 393.47(e), values from
 * memory]. Types that are not named have no published limit here.
 */
const LIMIT_IN: Readonly<Record<ChamberStroke, Readonly<Partial<Record<ChamberType, number>>>>> = {
  standard: {
    '6': 1.25,
    '9': 1.375,
    '12': 1.375,
    '16': 1.75,
    '20': 1.75,
    '24': 1.75,
    '30': 2,
    '36': 2.25,
  },
  long: { '12': 1.75, '16': 2, '20': 2, '24': 2, '30': 2.5 },
  'long-3': { '24': 2.5 },
};

/** Where the adjustment limit of a stroke comes from. */
export const STROKE_SOURCE = '49 CFR 393.47(e)';

/**
 * The most a pushrod may come out at full pedal, mm.
 *
 * @returns null where no limit is published for the type
 * @example strokeLimitMm('30', 'standard') // 50.8
 */
export function strokeLimitMm(type: ChamberType, stroke: ChamberStroke): number | null {
  const inches = LIMIT_IN[stroke][type];
  return inches === undefined ? null : inches * MM_PER_IN;
}

/** A wheel in adjustment comes out by this share of its limit [common practice, no source]. */
const USUAL_SHARE = 0.79;
/** Where no limit is published: the limits of the types on either side of 14 and 18. */
const BESIDE_IN: Readonly<Partial<Record<ChamberType, number>>> = { '14': 1.5, '18': 1.75 };

/** What a rod in adjustment comes out by at full pedal, mm; a house value by its type’s limit. */
export function usualStrokeMm(type: ChamberType, stroke: ChamberStroke): number {
  const limit = strokeLimitMm(type, stroke) ?? (BESIDE_IN[type] ?? 2) * MM_PER_IN;
  return USUAL_SHARE * limit;
}
