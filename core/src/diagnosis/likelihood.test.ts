import { jStat } from 'jstat';
import { Matrix } from 'ml-matrix';
import type { Check } from '../checks/check';
import { USUAL_SENSES } from '../checks';
import { answerDeviation, chancesOf, logSaid, logStudent, lowerOf } from './likelihood';

const made = (does: string, answer: object) => ({ doing: { does }, answer }) as unknown as Check;
const sum = (chances: Readonly<Record<string, number>>) =>
  Object.values(chances).reduce((all, each) => all + each, 0);

describe('Student’s law', () => {
  it('is the law of a general-purpose library, but for a constant that no cause differs in', () => {
    for (const scale of [0.5, 1, 4]) {
      for (const at of [0.2, 1, 3, 9]) {
        const ours = logStudent(at * scale, scale) - logStudent(0, scale);
        // Which degrees it has is told by two points; all others have to fit.
        const theirs = Math.log(jStat.studentt.pdf(at, 5) / jStat.studentt.pdf(0, 5));
        expect(ours).toBeCloseTo(theirs, 9);
      }
    }
    expect(logStudent(0, 2) - logStudent(0, 1)).toBeCloseTo(-Math.log(2), 12);
    expect(logStudent(-3, 1)).toBe(logStudent(3, 1));
  });
});

describe('how far a check’s number may lie from what a cause would give', () => {
  const number = { kind: 'number', error: 3, spread: 12, resolution: 0 };

  it('adds the reader’s error, the rig’s spread and the dial’s lines as squares', () => {
    // Of a spread that is given as three deviations, a third; of sound rigs that were drawn, their own where it is more.
    expect(answerDeviation(made('read', number), 0, 0)).toBeCloseTo(Math.hypot(3, 4), 12);
    expect(answerDeviation(made('read', number), 6, 0)).toBeCloseTo(Math.hypot(3, 6), 12);
    const coarse = { ...number, resolution: 6 };
    expect(answerDeviation(made('read', coarse), 0, 0)).toBeCloseTo(
      Math.hypot(3, 4, Math.sqrt(3)),
      12,
    );
  });

  it('grows by a fifth of what the fault moves', () => {
    expect(answerDeviation(made('read', number), 0, 50)).toBeCloseTo(Math.hypot(3, 4, 10), 12);
  });

  it('is less for a curve, whose points err each for itself', () => {
    const curve = { ...number, kind: 'points' };
    expect(answerDeviation(made('compare', curve), 0, 0)).toBeCloseTo(
      Math.hypot(3 / Math.SQRT2, 4),
      12,
    );
  });
});

describe('what ears and eyes say where a rig shows something', () => {
  const grades = {
    kind: 'grade',
    grades: ['dry', 'film', 'froth', 'stream', 'blown-off'].map((id) => ({ id })),
  };
  const soap = made('wet', grades);
  const ear = made('listen', {
    kind: 'grade',
    grades: ['quiet', 'hiss', 'blow'].map((id) => ({ id })),
  });
  const cock = made('cock', {
    kind: 'choice',
    choices: ['open', 'shut', 'half'].map((id) => ({ id })),
  });
  const pop = made('pop', {
    kind: 'choice',
    choices: ['pops', 'stays', 'half'].map((id) => ({ id })),
  });

  it.each([
    ['soap', soap, ['dry', 'film', 'froth', 'stream', 'blown-off']],
    ['an ear', ear, ['quiet', 'hiss', 'blow']],
    ['a cock', cock, ['open', 'shut', 'half']],
    ['a knob', pop, ['pops', 'stays', 'half']],
  ] as const)(
    'by %s: what is there is said most, and all chances add up to one',
    (_, check, shown) => {
      for (const what of shown) {
        const chances = chancesOf(check, what, USUAL_SENSES);
        expect(sum(chances)).toBeCloseTo(1, 9);
        const most = Object.entries(chances).sort(([, a], [, b]) => b - a)[0];
        expect(most?.[0]).toBe(what);
        for (const each of Object.values(chances)) expect(each).toBeGreaterThan(0);
      }
    },
  );

  it('takes a grade for the next one sooner than for one further off', () => {
    const chances = chancesOf(soap, 'froth', USUAL_SENSES);
    expect(chances.film).toBeGreaterThan(chances['blown-off']!);
    expect(chances.stream).toBeGreaterThan(chances['blown-off']!);
    expect(chances.stream).toBeCloseTo(chances.film!, 12);
  });

  it('misses the more, the worse the ears of a shop are, and never what it was not asked', () => {
    const keen = chancesOf(ear, 'hiss', { ...USUAL_SENSES, missed: 0 });
    const dull = chancesOf(ear, 'hiss', { ...USUAL_SENSES, missed: 0.4 });
    expect(keen.quiet).toBe(0);
    expect(dull.quiet).toBeCloseTo(0.4, 12);
    const never = chancesOf(ear, 'quiet', { ...USUAL_SENSES, imagined: 0 });
    expect(never.hiss).toBeLessThan(
      chancesOf(ear, 'quiet', { ...USUAL_SENSES, imagined: 0.3 }).hiss!,
    );
    expect(chancesOf(soap, 'froth', { ...USUAL_SENSES, soapMisses: 0.5 }).dry).toBeGreaterThan(
      chancesOf(soap, 'froth', { ...USUAL_SENSES, soapMisses: 0.01 }).dry!,
    );
  });

  it('is surer of a cock that was turned than of a knob that was watched', () => {
    expect(chancesOf(cock, 'shut', USUAL_SENSES).shut).toBeCloseTo(0.995, 12);
    expect(chancesOf(pop, 'stays', USUAL_SENSES).stays).toBeCloseTo(0.97, 12);
    expect(chancesOf(pop, 'stays', USUAL_SENSES).half).toBeCloseTo(0.015, 12);
  });

  it('takes nothing for impossible that somebody says', () => {
    const would = { mean: 0, shift: 0, unsure: 0, chances: { open: 1 } };
    expect(logSaid({ kind: 'choice', choice: 'open' }, would)).toBe(0);
    expect(logSaid({ kind: 'choice', choice: 'shut' }, would)).toBeCloseTo(Math.log(0.005), 12);
  });
});

describe('the lower triangle of a covariance', () => {
  const timesItself = (lower: Matrix) => lower.mmul(lower.transpose());

  it('is Cholesky’s, where it is one', () => {
    const spread = new Matrix([
      [4, 2, 0.6],
      [2, 5, 1],
      [0.6, 1, 3],
    ]);
    const lower = lowerOf(spread.clone());
    expect(timesItself(lower).sub(spread).norm()).toBeCloseTo(0, 9);
    expect(lower.get(0, 2)).toBe(0);
  });

  it('believes less of what two have in common where that is more than there is, and leaves each its own', () => {
    const lower = lowerOf(
      new Matrix([
        [1, 1.5],
        [1.5, 1],
      ]),
    );
    const found = timesItself(lower);
    expect(found.get(0, 0)).toBeCloseTo(1, 12);
    expect(found.get(1, 1)).toBeCloseTo(1, 12);
    // 1.5 · 0.8² = 0.96: the first that two of one deviation each can have in common.
    expect(found.get(0, 1)).toBeCloseTo(0.96, 12);
  });
});
