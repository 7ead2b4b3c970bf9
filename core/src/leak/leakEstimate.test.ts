import fc from 'fast-check';
import { seededNumbers } from '../test/seededNumbers';
import { leakEstimate, type QuietEnd } from './leakEstimate';
import type { Heat } from './heat';
import { leakRate, type HoldMark } from './leakRate';

const read = (atS: number, readingPsi: number): HoldMark => ({
  atMs: atS * 1000,
  readingPsi,
  resolutionPsi: 1,
  method: 'read',
});
const crossing = (atS: number, readingPsi: number): HoldMark => ({
  ...read(atS, readingPsi),
  method: 'crossing',
});
const quietTo = (untilS: number, belowPsi: number, abovePsi: number): QuietEnd => ({
  untilMs: untilS * 1000,
  belowPsi,
  abovePsi,
});
/** The eye's scatter and the line's, as they stand in `gauge/uncertainty`. */
const EYE_PSI = 0.75;
const LINE_PSI = 0.6;

describe('a hold in which no line was crossed', () => {
  it('bounds the leak, and says no more than that', () => {
    const found = leakEstimate([read(0, 119)], quietTo(60, 118, 120));
    expect(found?.onlyBounded).toBe(true);
    // Somewhere between 119 and 118: put down halfway.
    expect(found?.readPsiPerMin).toBe(0.5);
    // From 119 to a line at 118 is one psi; the reading may be half a psi and eye and needle three quarters off.
    expect(found?.upperPsiPerMin).toBeGreaterThan(1);
    expect(found?.upperPsiPerMin).toBeLessThan(2.5);
    expect(found?.chanceAtMost(3)).toBeGreaterThan(0.98);
  });

  it('says less than a reading at its end', () => {
    const bounded = leakEstimate([read(0, 120)], quietTo(120, 118, 122));
    const equal = leakEstimate([read(0, 120), read(120, 120)], null);
    expect(equal?.onlyBounded).toBe(false);
    expect(equal?.upperPsiPerMin).toBeLessThan(bounded?.upperPsiPerMin ?? 0);
  });

  it('bounds it twice as well over twice the time', () => {
    const one = leakEstimate([read(0, 120)], quietTo(60, 118, 122))?.upperPsiPerMin ?? 0;
    const two = leakEstimate([read(0, 120)], quietTo(120, 118, 122))?.upperPsiPerMin ?? 0;
    expect(two).toBeCloseTo(one / 2, 1);
  });

  /* Rejection sampling knows nothing of our grid: rates are drawn evenly, needles fall, and those holds are kept
     in which the eye read what was read and reached no line. */
  it('agrees with rejection sampling of made-up holds', () => {
    const random = seededNumbers(31);
    const kept: number[] = [];
    while (kept.length < 4_000) {
      const rate = random.between(0, 6);
      const start = random.between(116, 122);
      if (Math.round(start + EYE_PSI * random.normal()) !== 119) continue;
      const end = start - rate;
      const line = LINE_PSI * random.normal();
      if (end > 118 + line && end < 120 + line) kept.push(rate);
    }
    const mean = kept.reduce((sum, each) => sum + each, 0) / kept.length;
    const below = kept.filter((rate) => rate <= 1).length / kept.length;
    const found = leakEstimate([read(0, 119)], quietTo(60, 118, 120));
    expect(found?.ratePsiPerMin).toBeCloseTo(mean, 1);
    expect(Math.abs((found?.chanceAtMost(1) ?? 0) - below)).toBeLessThan(0.04);
  });
});

describe('lines crossed and then a quiet end', () => {
  it('narrows what the crossings alone say', () => {
    const marks = [read(0, 120), crossing(20, 118)];
    const alone = leakEstimate(marks, null);
    const quiet = leakEstimate(marks, quietTo(60, 116, 120));
    expect(alone?.ratePsiPerMin).toBeCloseTo(6, 0);
    // 6 psi/min would have reached 116 at 40 s; it did not.
    expect(quiet?.ratePsiPerMin).toBeLessThan(5);
    expect(quiet?.standardUncertaintyPsiPerMin).toBeLessThan(
      alone?.standardUncertaintyPsiPerMin ?? 0,
    );
    expect(quiet?.onlyBounded).toBe(false);
  });

  it('says of readings alone what the line through them says, but for a slip and for rates under none', () => {
    const marks = [read(0, 120), read(60, 116), read(120, 112)];
    const line = leakRate(marks);
    const found = leakEstimate(marks, null);
    expect(found?.ratePsiPerMin).toBeCloseTo(line?.ratePsiPerMin ?? NaN, 1);
    const shares = [found, line].map((each) => each?.standardUncertaintyPsiPerMin ?? NaN);
    expect(shares[0]! / shares[1]!).toBeGreaterThan(0.9);
    expect(shares[0]! / shares[1]!).toBeLessThan(1.6);
  });

  it('says nothing of one mark and no time', () => {
    expect(leakEstimate([], null)).toBeNull();
    expect(leakEstimate([read(0, 120)], null)).toBeNull();
    expect(leakEstimate([read(60, 120)], quietTo(60, 118, 122))).toBeNull();
  });
});

describe('heat beside a leak', () => {
  const AT_S = 32;
  const warm =
    (psi: number): Heat =>
    () => ({ meanPsi: psi, sdPsi: 0.3 * Math.abs(psi) + 0.1 });

  /** A needle moved by heat that dies away and by a steady leak, tapped at each half-division line. */
  function moved(heatPsi: number, leak: number, lengthS: number) {
    const at = (s: number) => 120.3 - heatPsi * (1 - Math.exp(-s / AT_S)) - (leak * s) / 60;
    const marks = [read(0, 120)];
    let line = 119;
    for (let s = 0; s < lengthS; s += 0.05) {
      if (at(s) > line) continue;
      marks.push(crossing(s, line));
      line -= 1;
    }
    return { marks, quiet: quietTo(lengthS, line, line + 2) };
  }

  it('of warm air is not called a leak', () => {
    const { marks, quiet } = moved(4, 1, 180);
    const found = leakEstimate(marks, quiet, { heat: warm(4), slopeShare: 0 });
    expect(found?.ratePsiPerMin).toBeGreaterThan(0.6);
    expect(found?.ratePsiPerMin).toBeLessThan(1.4);
    expect(found?.heatPsi).toBeGreaterThan(3);
    // A straight line through the same marks calls a sound rig leaky.
    expect(leakRate(marks)?.ratePsiPerMin).toBeGreaterThan(1.8);
  });

  it('of cold air does not hide a leak', () => {
    const { marks, quiet } = moved(-3, 3, 120);
    const found = leakEstimate(marks, quiet, { heat: warm(-3), slopeShare: 0 });
    expect(found?.ratePsiPerMin).toBeGreaterThan(2.5);
    expect(found?.heatPsi).toBeLessThan(-2);
    expect(leakRate(marks)?.ratePsiPerMin).toBeLessThan(2.4);
  });

  it('is not needed to see that air comes in', () => {
    const rising = [read(0, 110), read(60, 114), read(120, 118)];
    expect(leakEstimate(rising, null)?.risesPsiPerMin).toBeGreaterThan(3);
    // The same rise at first, where a stroke has just chilled the air, is heat.
    const warming = [read(0, 110), read(30, 112), read(120, 113)];
    expect(leakEstimate(warming, null, { heat: warm(-3), slopeShare: 0 })?.risesPsiPerMin).toBe(0);
  });

  it('known less well leaves the leak known less well', () => {
    const { marks, quiet } = moved(2, 1, 120);
    const doubt = (sdPsi: number) =>
      leakEstimate(marks, quiet, { heat: () => ({ meanPsi: 2, sdPsi }), slopeShare: 0 })
        ?.standardUncertaintyPsiPerMin ?? NaN;
    expect(doubt(2)).toBeGreaterThan(doubt(0.2));
  });
});

describe('a slip of the eye', () => {
  it('does not decide where other marks speak against it', () => {
    const plain = [0, 30, 60, 90, 120].map((s) => read(s, 120));
    const slipped = plain.map((mark, n) => (n === 4 ? { ...mark, readingPsi: 110 } : mark));
    const found = leakEstimate(slipped, null);
    expect(leakRate(slipped)?.ratePsiPerMin).toBeGreaterThan(3);
    expect(found?.ratePsiPerMin).toBeLessThan(1);
  });

  it('leaves two readings in doubt, far from the limit as they may be', () => {
    const two = leakEstimate([read(0, 120), read(120, 110)], null);
    expect(two?.chanceAtMost(2)).toBeGreaterThan(0.003);
    expect(two?.chanceAtMost(2)).toBeLessThan(0.2);
  });
});

describe('honesty with quiet ends', () => {
  it('covers the truth at least 93 times in 100 with taps on lines and a watched end', () => {
    const random = seededNumbers(77);
    const runs = 1_000;
    let inside = 0;
    for (let run = 0; run < runs; run += 1) {
      const leak = random.between(0, 6);
      const start = random.between(112, 126);
      const marks = [read(0, Math.round(start + EYE_PSI * random.normal()))];
      // A needle read on a line counts as on it: the next line is one division down.
      let line = (Math.ceil((marks[0]?.readingPsi ?? 0) / 2 - 1e-9) - 1) * 2;
      for (;;) {
        const seenS = ((start - (line + LINE_PSI * random.normal())) / Math.max(leak, 1e-6)) * 60;
        if (seenS >= 60) break;
        marks.push(crossing(Math.max(0.1, seenS) + 0.2 * random.normal(), line));
        line -= 2;
      }
      const found = leakEstimate(marks, quietTo(60, line, line + (marks.length > 1 ? 4 : 3)));
      if (!found) throw new Error('nothing found');
      const low = found.chanceAtMost(leak);
      if (low >= 0.025 && low <= 0.975) inside += 1;
    }
    expect(inside / runs).toBeGreaterThan(0.93);
  });

  it('never says of a longer hold that it knows less', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 113, max: 125 }),
        fc.integer({ min: 30, max: 200 }),
        fc.integer({ min: 1, max: 200 }),
        (start, shortS, more) => {
          const bound = (untilS: number) =>
            leakEstimate([read(0, start)], quietTo(untilS, Math.ceil(start / 2 - 1) * 2, start + 2))
              ?.standardUncertaintyPsiPerMin ?? NaN;
          expect(bound(shortS + more)).toBeLessThanOrEqual(bound(shortS) + 1e-9);
        },
      ),
    );
  });

  it('does not change when all readings are off by the same', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -20, max: 20 }),
        fc.integer({ min: 5, max: 50 }),
        (off, atS) => {
          const of = (shift: number) =>
            leakEstimate(
              [read(0, 120 + shift), crossing(atS, 118 + shift)],
              quietTo(60, 116 + shift, 120 + shift),
            );
          expect(of(off)?.ratePsiPerMin).toBeCloseTo(of(0)?.ratePsiPerMin ?? NaN, 6);
          expect(of(off)?.chanceAtMost(3)).toBeCloseTo(of(0)?.chanceAtMost(3) ?? NaN, 6);
        },
      ),
    );
  });

  it('grows with the rate that is asked for, from none to all', () => {
    const found = leakEstimate([read(0, 120), crossing(30, 118)], quietTo(60, 116, 120));
    fc.assert(
      fc.property(fc.double({ min: -5, max: 30, noNaN: true }), (rate) => {
        const here = found?.chanceAtMost(rate) ?? NaN;
        expect(found?.chanceAtMost(rate + 0.3)).toBeGreaterThanOrEqual(here);
      }),
    );
    expect(found?.chanceAtMost(-20)).toBe(0);
    expect(found?.chanceAtMost(60)).toBeCloseTo(1, 9);
  });
});
