import { seededNumbers } from '../test/seededNumbers';
import { leakEstimate } from './leakEstimate';
import type { HoldMark } from './leakRate';

/**
 * A hold as it goes, by nothing but a straight line: a needle that falls at a steady rate from somewhere between two
 * lines, read to half a division at the start and tapped at each line, until the hold ends under somebody’s eyes.
 */
function held(startPsi: number, ratePsiPerMin: number, divisionPsi: number, lengthS: number) {
  const half = divisionPsi / 2;
  const mark = (atS: number, readingPsi: number, method: HoldMark['method']): HoldMark => ({
    ...{ atMs: atS * 1000, readingPsi, method },
    resolutionPsi: half,
  });
  const read = Math.round(startPsi / half) * half;
  const marks = [mark(0, read, 'read')];
  let line = (Math.ceil(read / divisionPsi - 1e-9) - 1) * divisionPsi;
  const endPsi = startPsi - (ratePsiPerMin * lengthS) / 60;
  while (line >= endPsi) {
    const atS = ((startPsi - line) / ratePsiPerMin) * 60;
    if (atS > 0) marks.push(mark(atS, line, 'crossing'));
    line -= divisionPsi;
  }
  const quiet = {
    untilMs: lengthS * 1000,
    belowPsi: line,
    abovePsi: Math.max(read, line + 2 * divisionPsi),
  };
  return leakEstimate(marks, quiet)!;
}

describe('a hold as read that ended between two lines', () => {
  // The last line crossed was taken for the needle’s place: 4.9 psi/min was written down as 4, and passed at most 4.
  it.each([
    [4.9, 60],
    [5.9, 60],
    [3.9, 120],
    [4.9, 120],
  ])('%s psi/min over %s s on lines of 2 psi is that', (rate, lengthS) => {
    expect(held(120, rate, 2, lengthS).readPsiPerMin).toBeCloseTo(rate, 6);
  });

  const random = seededNumbers(35);
  describe.each([1, 2, 5, 7.25])('on lines of %s psi', (divisionPsi) => {
    it.each([60, 120, 225])(
      'over %s s is within half a division of the truth, and not low in the mean',
      (lengthS) => {
        const halfPsiPerMin = (divisionPsi / 2 / lengthS) * 60;
        const off = Array.from({ length: 1_500 }, () => {
          const rate = random.between(0, 12);
          return (
            (held(random.between(108, 126), rate, divisionPsi, lengthS).readPsiPerMin - rate) /
            halfPsiPerMin
          );
        });
        const within = off.filter((each) => Math.abs(each) <= 1).length / off.length;
        const mean = off.reduce((sum, each) => sum + each, 0) / off.length;
        // Where the start was read to a half and one line alone was crossed, no rule can do better.
        expect(within).toBeGreaterThan(0.96);
        expect(Math.abs(mean)).toBeLessThan(0.08);
      },
    );
  });

  it('is what was read at the end, where it was read', () => {
    const at = (atS: number, readingPsi: number): HoldMark => ({
      ...{ atMs: atS * 1000, readingPsi, resolutionPsi: 1, method: 'read' },
    });
    expect(leakEstimate([at(0, 120), at(60, 118)], null)?.readPsiPerMin).toBe(2);
  });
});
