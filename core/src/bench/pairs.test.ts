import fc from 'fast-check';
import { mean as meanOf, sampleStandardDeviation } from 'simple-statistics';
import { SimpleLinearRegression } from 'ml-regression-simple-linear';
import { drawsOf } from '../twin/random';
import { bubbleScfm, bubbleSeconds, BUBBLE_LEAST_S } from './bubbles';
import type { CurvePoint } from './curve';
import { besideOther, judgeFigure, pairFigures, type BenchFigure, type PairKind } from './pairs';

const READING = { divisionPsi: 2, compared: true };
const onDial = (psi: number) => Math.max(0, Math.round(psi));

function figure(as: PairKind, points: readonly CurvePoint[], id: string): BenchFigure {
  const found = pairFigures(as, points, READING);
  if ('wants' in found) throw new Error(found.wants);
  const one = found.find((each) => each.id === id);
  if (!one) throw new Error(`no ${id}`);
  return one;
}

describe('bubbles at an exhaust', () => {
  it('one of an inch in five seconds is about 0.004 scfm (trade, section 7)', () => {
    expect(bubbleScfm(BUBBLE_LEAST_S)).toBeCloseTo(0.004, 3);
    // A sphere’s volume, π d³ / 6, in closed form.
    expect(bubbleScfm(60)).toBeCloseTo((Math.PI * (1 / 12) ** 3) / 6, 9);
  });

  it('go back and forth, and none is a minute', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 59, noNaN: true }), (seconds) => {
        expect(bubbleSeconds(bubbleScfm(seconds))).toBeCloseTo(seconds, 6);
      }),
    );
    expect(bubbleSeconds(0)).toBe(60);
  });
});

describe('two ports of a valve', () => {
  it('balance is the mean of the gaps, and its doubt theirs, by a library', () => {
    const points: CurvePoint[] = [
      [10, 13],
      [20, 22],
      [40, 44],
      [60, 61],
      [80, 85],
    ];
    const gaps = points.map(([one, other]) => other - one);
    const found = figure('balance', points, 'apart');
    expect(found.value).toBeCloseTo(meanOf(gaps), 9);
    expect(found.sd).toBeCloseTo(
      Math.hypot(sampleStandardDeviation(gaps) / Math.sqrt(gaps.length), 0.15),
      9,
    );
  });

  it('does not follow a point that was read wrongly', () => {
    const right: CurvePoint[] = [10, 20, 30, 40, 60, 80].map((psi) => [psi, psi + 1]);
    const wrong = right.map((point, n): CurvePoint => (n === 3 ? [40, 14] : point));
    expect(figure('balance', wrong, 'apart').value).toBeCloseTo(1, 6);
    const modulated: CurvePoint[] = [0, 10, 15, 20, 25, 28].map((psi) => [psi, 95 - 2.75 * psi]);
    const misread = modulated.map((point, n): CurvePoint => (n === 2 ? [15, 85] : point));
    expect(figure('modulates', misread, 'slope').value).toBeCloseTo(2.75, 2);
  });

  it('a protection valve shuts between the last pressure at which it passes and the first at which it does not', () => {
    const points: CurvePoint[] = [
      [60, 30],
      [45, 29],
      [35, 0],
      [20, 0],
    ];
    const shuts = figure('shuts', points, 'shuts');
    expect(shuts.value).toBe(40);
    expect(shuts.sd).toBeGreaterThan(10 / Math.sqrt(12));
    expect(
      judgeFigure(
        figure(
          'shuts',
          [
            [50, 30],
            [10, 0],
            [5, 0],
          ],
          'shuts',
        ),
      ),
    ).toBe('cant-tell');
    expect(
      judgeFigure(
        figure(
          'shuts',
          [
            [12, 30],
            [8, 30],
            [4, 0],
          ],
          'shuts',
        ),
      ),
    ).toBe('fail');
  });

  it('a ratio is the slope of a library’s regression: it is not held near one', () => {
    const points: CurvePoint[] = [10, 20, 30, 40, 60].map((psi) => [psi, 0.55 * psi - 1]);
    const line = new SimpleLinearRegression(
      points.map(([from]) => from),
      points.map(([, to]) => to),
    );
    expect(figure('ratio', points, 'gain').value).toBeCloseTo(line.slope, 2);
    // The same points taken for a valve that follows are drawn towards one.
    expect(figure('follows', points, 'gain').value).toBeGreaterThan(line.slope + 0.05);
  });

  it('says how sure it is: in 95 of 100 the true figure lies within its doubt', () => {
    const draws = drawsOf(7);
    let inRatio = 0;
    let inBalance = 0;
    let inTakesOver = 0;
    const of = 400;
    for (let n = 0; n < of; n += 1) {
      // Dials compared at zero and 60: what is left bends between, and sticks a little on the way.
      const bends = [0.2 * draws.normal(2), 0.2 * draws.normal(2)];
      const seen = (psi: number, by: number) =>
        onDial(psi + by * Math.sin((Math.PI * Math.min(60, psi)) / 60) + 0.2 * draws.normal(2));
      const ratio = 0.3 + 0.6 * draws.even();
      const scaled = [10, 15, 20, 30, 40, 50, 60].map((asked): CurvePoint => {
        const truly = asked + 0.8 * draws.normal(2);
        return [seen(truly, bends[0]!), seen(ratio * truly, bends[1]!)];
      });
      const gain = figure('ratio', scaled, 'gain');
      if (Math.abs(gain.value - ratio) <= 1.96 * gain.sd) inRatio += 1;
      const gap = 6 * draws.normal(2);
      const even = [10, 20, 40, 60, 80].map((asked): CurvePoint => {
        const truly = asked + 10 + 0.8 * draws.normal(2);
        return [seen(truly, bends[0]!), seen(truly + gap, bends[1]!)];
      });
      const apart = figure('balance', even, 'apart');
      if (Math.abs(apart.value - gap) <= 1.96 * apart.sd) inBalance += 1;
      // It goes over softly, within a psi or six.
      const over = 50 + 14 * draws.even();
      const width = 0.5 + 2.5 * draws.even();
      const fallen = [90, 75, 70, 65, 60, 55, 50, 45, 40].map((asked): CurvePoint => {
        const truly = asked + 0.8 * draws.normal(2);
        const side = 40 + 55 / (1 + Math.exp((over - truly) / width));
        return [seen(truly, bends[0]!), seen(side, bends[1]!)];
      });
      const takes = figure('takes over', fallen, 'takes-over');
      if (Math.abs(takes.value - over) <= 1.96 * takes.sd) inTakesOver += 1;
    }
    expect(inRatio / of).toBeGreaterThan(0.92);
    expect(inBalance / of).toBeGreaterThan(0.92);
    expect(inTakesOver / of).toBeGreaterThan(0.92);
  });

  it('the spring side of a check that is missing: spring and service add to 140 at 80, by the trade’s 60 psi a spring', () => {
    const missing: CurvePoint[] = [20, 40, 60, 80].map((psi) => [psi, 0]);
    expect(figure('springs', missing, 'adds').value).toBe(140);
    expect(judgeFigure(figure('springs', missing, 'behind'))).toBe('fail');
    const sound: CurvePoint[] = [20, 40, 60, 80].map((psi) => [psi, psi - 2]);
    expect(judgeFigure(figure('springs', sound, 'behind'))).toBe('pass');
  });

  it('hold-off that goes by 2.75 for one has the effect of 20 psi of service at 20 (trade, section 1)', () => {
    const points: CurvePoint[] = [0, 10, 15, 20, 25].map((psi) => [psi, 95 - 2.75 * psi]);
    expect(figure('modulates', points, 'slope').value).toBeCloseTo(2.75, 6);
    expect(figure('modulates', points, 'effect').value).toBeCloseTo(20, 6);
  });

  it('a check that holds keeps its side; one that does not loses it', () => {
    const down = [90, 60, 30, 0];
    expect(
      judgeFigure(
        figure(
          'holds',
          down.map((psi) => [psi, 119]),
          'lost',
        ),
      ),
    ).toBe('pass');
    expect(
      judgeFigure(
        figure(
          'holds',
          down.map((psi) => [psi, psi + 3]),
          'lost',
        ),
      ),
    ).toBe('fail');
    const one = pairFigures(
      'holds',
      [
        [90, 100],
        [85, 100],
      ],
      READING,
    );
    expect(one).toHaveProperty('wants');
  });

  it.each<[PairKind, CurvePoint[]]>([
    [
      'follows',
      [
        [10, 5],
        [20, 15],
      ],
    ],
    ['balance', [[4, 4]]],
    ['springs', [[20, 20]]],
    [
      'modulates',
      [
        [10, 60],
        [20, 40],
      ],
    ],
    [
      'takes over',
      [
        [90, 95],
        [70, 95],
        [66, 95],
      ],
    ],
    ['shut', [[4, 0]]],
    ['holds', []],
    [
      'shuts',
      [
        [60, 30],
        [50, 30],
      ],
    ],
  ])('says what %s still wants of too few points', (as, points) => {
    const found = pairFigures(as, points, READING);
    expect('wants' in found && found.wants).toMatch(/\w{4}/);
  });

  it('is never a pass and a fail by chance: what lies within its doubt of the limit can’t be told', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20, max: 20, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (value, sd) => {
          const verdict = judgeFigure({ value, sd, limit: { least: -4, most: 4, from: '' } });
          const out = Math.abs(value) - 4;
          expect(verdict).toBe(
            out + 1.96 * sd <= 0 ? 'pass' : out - 1.96 * sd > 0 ? 'fail' : 'cant-tell',
          );
        },
      ),
    );
    expect(judgeFigure({ value: 1, sd: 1, limit: null })).toBeNull();
  });

  it('beside another: unlike only where the gap is beyond what both may be off', () => {
    const at = (value: number, sd: number): BenchFigure => ({
      id: 'crack',
      title: '',
      unit: 'psi',
      value,
      sd,
      limit: null,
    });
    expect(besideOther([at(8, 0.3)], [at(4, 0.3)])[0]?.is).toBe('unlike');
    expect(besideOther([at(8, 2)], [at(4, 2)])[0]?.is).toBe('cant-tell');
    expect(besideOther([at(4.5, 0.3)], [at(4, 0.3)])[0]?.is).toBe('alike');
    expect(besideOther([at(4, 1)], [])).toEqual([]);
  });
});
