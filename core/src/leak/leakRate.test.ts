import fc from 'fast-check';
import { seededNumbers } from '../test/seededNumbers';
import { readingUncertaintyPsi } from '../gauge/uncertainty';
import { holdLengthS } from './holdPlan';
import { holdNeededS, leakRate, type HoldMark } from './leakRate';

const read = (atS: number, readingPsi: number, resolutionPsi = 1): HoldMark => ({
  atMs: atS * 1000,
  readingPsi,
  resolutionPsi,
  method: 'read',
});
const crossing = (atS: number, readingPsi: number): HoldMark => ({
  ...read(atS, readingPsi),
  method: 'crossing',
});

describe('leak rate', () => {
  it('is 2 psi/min for 120 to 118 in a minute', () => {
    expect(leakRate([read(0, 120), read(60, 118)])?.ratePsiPerMin).toBeCloseTo(2, 9);
  });

  it('uses all marks, not the first and last', () => {
    const three = leakRate([read(0, 120), read(30, 118), read(60, 118)]);
    expect(three?.ratePsiPerMin).toBeCloseTo(2, 9);
    expect(three?.spanS).toBe(60);
    const bent = leakRate([read(0, 120), read(20, 117), read(40, 117), read(60, 118)]);
    expect(bent?.ratePsiPerMin).not.toBeCloseTo(2, 2);
  });

  it('is surer of two crossings than of two readings over the same time', () => {
    const tapped =
      leakRate([crossing(0, 118), crossing(60, 116)])?.standardUncertaintyPsiPerMin ?? 9;
    const looked = leakRate([read(0, 118), read(60, 116)])?.standardUncertaintyPsiPerMin ?? 0;
    expect(tapped).toBeLessThan(looked / 1.2);
  });

  it('is plain zero for a level hold, and negative for a rise', () => {
    expect(leakRate([read(0, 120), read(60, 120)])?.ratePsiPerMin).toBeCloseTo(0, 12);
    expect(leakRate([read(0, 118), read(60, 121)])?.ratePsiPerMin).toBeCloseTo(-3, 9);
  });

  it('says nothing of one mark, or of two at one moment', () => {
    expect(leakRate([read(0, 120)])).toBeNull();
    expect(leakRate([read(5, 120), read(5, 118)])).toBeNull();
  });

  const holds = fc
    .uniqueArray(fc.integer({ min: 0, max: 300 }), { minLength: 2, maxLength: 8 })
    .chain((times) =>
      fc.tuple(
        fc.constant(times),
        fc.array(fc.integer({ min: 90, max: 125 }), {
          minLength: times.length,
          maxLength: times.length,
        }),
      ),
    );

  it('does not change when all readings are off by the same', () => {
    fc.assert(
      fc.property(holds, fc.integer({ min: -20, max: 20 }), ([times, readings], offset) => {
        const plain = leakRate(times.map((t, i) => read(t, readings[i] ?? 0)));
        const shifted = leakRate(times.map((t, i) => read(t, (readings[i] ?? 0) + offset)));
        expect(shifted?.ratePsiPerMin).toBeCloseTo(plain?.ratePsiPerMin ?? NaN, 6);
        expect(shifted?.standardUncertaintyPsiPerMin).toBeCloseTo(
          plain?.standardUncertaintyPsiPerMin ?? NaN,
          9,
        );
      }),
    );
  });

  it('is never less sure for one reading more', () => {
    fc.assert(
      fc.property(holds, fc.integer({ min: 301, max: 600 }), ([times, readings], later) => {
        const marks = times.map((t, i) => read(t, readings[i] ?? 0));
        const before = leakRate(marks)?.standardUncertaintyPsiPerMin ?? 0;
        const after =
          leakRate([...marks, read(later, 100)])?.standardUncertaintyPsiPerMin ?? Infinity;
        expect(after).toBeLessThanOrEqual(before + 1e-12);
      }),
    );
  });

  it('asks for a hold that would in fact be long enough', () => {
    const seconds = holdNeededS(1, 0.4, 1.645);
    const doubt = leakRate([read(0, 120), read(seconds, 118)])?.standardUncertaintyPsiPerMin ?? NaN;
    expect(doubt * 1.645).toBeCloseTo(0.4, 9);
    expect(holdNeededS(1, 0, 1.645)).toBe(Infinity);
  });

  it('asks for a minute at least and four at most, in quarters of a minute [trade]', () => {
    expect(holdLengthS(0.001, 2)).toBe(60);
    expect(holdLengthS(20, 2)).toBe(240);
    // A needle of 2 psi read to half a division, at both ends: 6.5 uncertainties of the pair in what 2 psi/min lets fall.
    const pairPsi = Math.SQRT2 * readingUncertaintyPsi(1);
    const neededS = (60 * 6.5 * pairPsi) / 2;
    expect(holdLengthS(1, 2)).toBe(Math.ceil(neededS / 15) * 15);
    expect(holdLengthS(1, 2)).toBe(225);
  });
});

describe('honesty of the uncertainty', () => {
  const RUNS = 20_000;

  /* What stands here is not the estimator's own model of itself: a needle that falls steadily, an eye with
     normal scatter, a mind that rounds to the half division, and a thumb that is late and scattered. */
  function coverage(
    seed: number,
    hold: (random: ReturnType<typeof seededNumbers>, rate: number, startPsi: number) => HoldMark[],
    [slowest, fastest]: readonly [number, number] = [0, 7],
  ): number {
    const random = seededNumbers(seed);
    let inside = 0;
    let counted = 0;
    for (let run = 0; run < RUNS; run += 1) {
      const rate = random.between(slowest, fastest);
      const found = leakRate(hold(random, rate, random.between(112, 126)));
      if (!found) continue;
      counted += 1;
      if (Math.abs(found.ratePsiPerMin - rate) <= 1.96 * found.standardUncertaintyPsiPerMin)
        inside += 1;
    }
    expect(counted).toBeGreaterThan(RUNS * 0.5);
    return inside / counted;
  }

  const eyePsi = 0.75;
  const rounded = (psi: number) => Math.round(psi);

  it('covers the truth 93 to 97 times in 100 with a reading at each end', () => {
    const share = coverage(11, (random, rate, startPsi) => {
      const lengthS = random.between(60, 180);
      return [0, lengthS].map((t) =>
        read(t, rounded(startPsi - (rate * t) / 60 + eyePsi * random.normal())),
      );
    });
    expect(share).toBeGreaterThan(0.93);
    expect(share).toBeLessThan(0.97);
  });

  it('does so with five readings', () => {
    const share = coverage(12, (random, rate, startPsi) =>
      [0, 15, 30, 45, 60].map((t) =>
        read(t, rounded(startPsi - (rate * t) / 60 + eyePsi * random.normal())),
      ),
    );
    expect(share).toBeGreaterThan(0.93);
    expect(share).toBeLessThan(0.97);
  });

  it('does so with a reading at the start and taps as the needle crosses lines', () => {
    const share = coverage(13, (random, rate, startPsi) => {
      const marks = [read(0, rounded(startPsi + eyePsi * random.normal()))];
      for (let line = Math.ceil(startPsi / 2) * 2 - 2; ; line -= 2) {
        // The line is seen a little off its place, and the thumb comes 0.25 s late with a scatter of 0.2 s.
        const seenAt = ((startPsi - (line + 0.6 * random.normal())) / rate) * 60;
        const tappedAt = seenAt + 0.25 + 0.2 * random.normal();
        if (!(tappedAt > 0 && tappedAt < 90)) break;
        marks.push(crossing(tappedAt, line));
      }
      return marks.length > 1 ? marks : [];
    });
    expect(share).toBeGreaterThan(0.93);
    expect(share).toBeLessThan(0.97);
  });

  it('does so for air that rushes out, where the thumb is what limits it', () => {
    const rushing = [40, 120] as const;
    const share = coverage(
      14,
      (random, rate, startPsi) =>
        [0, 1, 2, 3].map((n) => {
          const line = Math.floor(startPsi / 2) * 2 - 2 * n;
          const seenAt = ((startPsi - (line + 0.6 * random.normal())) / rate) * 60;
          return crossing(seenAt + 0.25 + 0.2 * random.normal(), line);
        }),
      rushing,
    );
    expect(share).toBeGreaterThan(0.93);
    expect(share).toBeLessThan(0.97);
  });
});
