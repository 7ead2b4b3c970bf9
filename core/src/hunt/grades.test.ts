import { drawsOf } from '../twin/random';
import { drawFlow, GRADE_SCFM, gradesLearnt } from './grades';

const DRAWS = 20_000;
const shareOutside = (grade: 'froth' | 'film') => {
  const [from, to] = GRADE_SCFM[grade];
  const draws = drawsOf(12);
  const flows = Array.from({ length: DRAWS }, () => drawFlow(grade, draws));
  return flows.filter((flow) => flow < from || flow > to).length / DRAWS;
};

describe('what an eye calls a leak', () => {
  it('is a grade off one time in five, and at the ends half of that: there is none beyond [common practice, no source]', () => {
    // Three standard deviations of a share of so many draws: 0.0085.
    expect(Math.abs(shareOutside('froth') - 0.2)).toBeLessThan(0.0085);
    expect(Math.abs(shareOutside('film') - 0.1)).toBeLessThan(0.0085);
  });

  it('is learnt by two normal laws on the logarithm, the shop’s and the mend’s own', () => {
    // Closed form: the weight of a law is one over its variance, the middle is their weighted mean.
    const [from, to] = GRADE_SCFM.stream;
    const ofShop = 1 / 0.5 ** 2;
    const ofMend = 1 / (Math.log(to / from) ** 2 / 12 + (0.1 / 1) ** 2);
    const learnt = gradesLearnt([{ grade: 'stream', scfm: 1, deviation: 0.1 }]).stream;
    expect(learnt?.mean).toBeCloseTo(
      (ofMend * Math.log(1 / Math.sqrt(from * to))) / (ofShop + ofMend),
      9,
    );
    expect(learnt?.deviation).toBeCloseTo((ofShop + ofMend) ** -0.5, 9);
  });

  it('is not learnt from what no hold can tell from nothing', () => {
    expect(gradesLearnt([{ grade: 'stream', scfm: 0.2, deviation: 0.1 }])).toEqual({});
    expect(gradesLearnt([{ grade: 'stream', scfm: 0.21, deviation: 0.1 }]).stream).toBeDefined();
    expect(gradesLearnt([{ grade: 'stream', scfm: -1, deviation: 0.1 }])).toEqual({});
  });
});
