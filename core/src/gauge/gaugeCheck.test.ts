import type { Gauge, GaugeCheck } from '@keen-bleed/contract';
import { jStat } from 'jstat';
import { dialError, levelChance, levelOf, levelUncertaintyPsi, withGaugeCheck } from './gaugeCheck';

/* What is written of gauges (docs in `uncertainty`), worked by hand: rounding to r is r/√12, an eye 0.75 r beside it;
   what is even within ±h has a deviation of h/√3 [std: JCGM 100 (GUM) 4.3.7 and F.2.2.1, value from memory]. */
const dial: Gauge = { unit: 'psi', top: 150, division: 2 };
const eyeOf = (r: number) => r * Math.hypot(1 / Math.sqrt(12), 0.75);
const YEAR_MS = 365.25 * 86_400_000;
const compared = (
  dashPsi: number,
  masterPsi: number,
  more: Partial<GaugeCheck> = {},
): GaugeCheck => ({
  gauge: 'primary',
  dashPsi,
  masterPsi,
  atMs: 0,
  ...more,
});
const unit = (...gaugeChecks: GaugeCheck[]) => ({ gauge: dial, gaugeChecks });

describe('a level read from a gauge', () => {
  it('may be off by 7 % of cut-out on a dash gauge and by 1 % on a master gauge, any of it alike', () => {
    expect(levelOf(98, 1, 'primary', unit(), 130, 0)).toEqual({
      psi: 98,
      halfWidthPsi: 0.07 * 130,
      eyePsi: eyeOf(1),
      checked: false,
    });
    for (const gauge of ['master', 'simulated'] as const)
      expect(levelOf(98, 2, gauge, unit(), 120, 0)).toMatchObject({
        halfWidthPsi: 0.01 * 120,
        eyePsi: eyeOf(2),
      });
    // What is known of another gauge says nothing of this one.
    expect(levelOf(98, 1, 'secondary', unit(compared(100, 90)), 130, 0).checked).toBe(false);
  });

  const master = (0.01 / Math.sqrt(3)) * 130;
  it('is moved by what one comparison found, and doubted by the comparison’s own doubt', () => {
    const level = levelOf(100, 1, 'primary', unit(compared(100, 97)), 130, 0);
    expect(level).toMatchObject({ psi: 97, halfWidthPsi: 0, checked: true });
    expect(level.eyePsi).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master), 12);
    // 20 psi away a dash gauge's scale is off by 6 % of that, whichever way.
    for (const away of [80, 120]) {
      const far = levelOf(away, 1, 'primary', unit(compared(100, 97)), 130, 0);
      expect(far.psi).toBe(away - 3);
      expect(far.eyePsi).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.06 * 20), 12);
    }
  });

  it('is doubted more as years go by, as the root of them; a clock that went back takes nothing away', () => {
    const at = (years: number) =>
      levelOf(100, 1, 'primary', unit(compared(100, 97)), 130, years * YEAR_MS).eyePsi;
    expect(at(4)).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.01 * 2 * 130), 12);
    expect(at(-3)).toBe(at(0));
  });

  it('goes along the line between two comparisons, and by the nearer one beyond them', () => {
    const two = unit(compared(120, 118), compared(60, 66));
    const at = (psi: number) => levelOf(psi, 1, 'primary', two, 130, 0);
    expect(at(75).psi).toBeCloseTo(75 + 6 * 0.75 - 2 * 0.25, 12);
    expect(at(75).eyePsi).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.02 * 15), 12);
    expect(at(110).eyePsi).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.02 * 10), 12);
    expect(at(60).psi).toBe(66);
    expect(at(120).psi).toBe(118);
    expect(at(40)).toMatchObject({ psi: 46 });
    expect(at(40).eyePsi).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.06 * 20), 12);
    expect(at(140).psi).toBe(138);
  });

  it('is as old as the comparison it lies nearest to', () => {
    const two = unit(compared(60, 66, { atMs: 3 * YEAR_MS }), compared(120, 118));
    const at = (psi: number) => levelOf(psi, 1, 'primary', two, 130, 4 * YEAR_MS).eyePsi;
    expect(at(60)).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.01 * 130), 12);
    expect(at(120)).toBeCloseTo(Math.hypot(eyeOf(1), eyeOf(1), master, 0.01 * 2 * 130), 12);
  });

  it('has one spread of both doubts, and a chance that knows of slips', () => {
    const level = { psi: 100, halfWidthPsi: 3, eyePsi: 4 };
    expect(levelUncertaintyPsi(level)).toBeCloseTo(Math.hypot(3 / Math.sqrt(3), 4), 12);
    const read = { psi: 100, halfWidthPsi: 0, eyePsi: 2 };
    const slip = Math.hypot(2, 6);
    for (const psi of [90, 98, 103])
      expect(levelChance(read, 1)(psi)).toBeCloseTo(
        0.98 * jStat.normal.cdf(psi, 100, 2) + 0.02 * jStat.normal.cdf(psi, 100, slip),
        6,
      );
  });
});

describe('a dial that was compared', () => {
  it('is off by the worst that was found, against 7 % of cut-out', () => {
    const found = dialError('primary', unit(compared(60, 66), compared(120, 118)), 130)!;
    expect(found).toMatchObject({ offPsi: 6, allowedPsi: 0.07 * 130 });
    expect(found.standardUncertaintyPsi).toBeCloseTo(
      Math.hypot(eyeOf(1), (0.01 / Math.sqrt(3)) * 130),
      12,
    );
  });

  it('is not told of where only another was', () => {
    expect(dialError('secondary', unit(compared(60, 66)), 130)).toBeNull();
    expect(dialError('primary', unit(), 130)).toBeNull();
  });
});

describe('comparisons of a unit', () => {
  const old = compared(60, 62, { atMs: 1 });
  const high = compared(120, 119, { atMs: 2 });
  const other = compared(60, 60, { gauge: 'secondary' });

  it('are two of each gauge: the newest of those that are not near the new one stays', () => {
    const made = compared(90, 91, { atMs: 3 });
    expect(withGaugeCheck([other, old, high], made)).toEqual([other, high, made]);
    expect(withGaugeCheck([high, old], made)).toEqual([high, made]);
  });

  it('have one near another take its place, and one 20 psi from it is near', () => {
    expect(withGaugeCheck([old], compared(80, 81, { atMs: 3 }))).toEqual([
      compared(80, 81, { atMs: 3 }),
    ]);
    expect(withGaugeCheck([old], compared(81, 82, { atMs: 3 }))).toHaveLength(2);
    expect(withGaugeCheck([other], old)).toEqual([other, old]);
  });
});
