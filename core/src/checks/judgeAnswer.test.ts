import type { Check, CheckAnswer } from './check';
import { crackOf, judgeAnswer } from './retestChecks';
import { apart, TELLS } from './tells';

const made = (answer: object, title = 'Read it') =>
  ({ title, answer, doing: { does: 'read' } }) as unknown as Check;
const number = (unit: string, more: object = {}) =>
  made({ kind: 'number', unit, error: 3, spread: 4, resolution: 0, ...more });
const value = (of: number): CheckAnswer => ({ kind: 'number', value: of });
const points = (...of: readonly (readonly [number, number])[]): CheckAnswer => ({
  kind: 'points',
  points: of,
});
const verdictOf = (check: Check, answer: CheckAnswer, expected: CheckAnswer) =>
  judgeAnswer(check, answer, expected).verdict;

describe('how far apart two answers are', () => {
  it('counts a number in deviations of reader, rig and dial together', () => {
    // 3, 4 and a dial of 12 from line to line, whose uniform law has 12/√12 = √12: √(9 + 16 + 12).
    const check = number('psi', { resolution: 12 });
    expect(apart(check, value(100), value(110))).toBeCloseTo(10 / Math.sqrt(37), 12);
    expect(apart(check, value(110), value(100))).toBeCloseTo(10 / Math.sqrt(37), 12);
  });

  it('takes the worst point of a curve, the other read between its own', () => {
    const check = made({ kind: 'points', error: 3, spread: 4, resolution: 0 });
    const other = points([0, 0], [20, 20], [40, 40]);
    expect(apart(check, points([10, 10], [30, 40]), other)).toBeCloseTo(10 / 5, 12);
    expect(apart(check, points([10, 0], [30, 30]), other)).toBeCloseTo(10 / 5, 12);
    expect(apart(check, points([10, 10]), other)).toBe(0);
  });

  it('is none or plain where words are given', () => {
    const check = made({ kind: 'choice', choices: [] });
    const said = (choice: string): CheckAnswer => ({ kind: 'choice', choice });
    expect(apart(check, said('in'), said('in'))).toBe(0);
    expect(apart(check, said('in'), said('out'))).toBeGreaterThan(TELLS);
  });
});

describe('what an answer comes to beside what a sound rig gives', () => {
  it('of a set pressure: too far to either side fails, from three deviations on', () => {
    const check = number('psi');
    expect(TELLS).toBe(3);
    for (const side of [-1, 1]) {
      expect(verdictOf(check, value(100 + side * 14.9), value(100))).toBe('pass');
      expect(verdictOf(check, value(100 + side * 15), value(100))).toBe('fail');
    }
  });

  it.each(['s', 'mm', 'psi/min'])('of %s: less than expected never fails, more does', (unit) => {
    const check = number(unit);
    expect(verdictOf(check, value(0), value(40))).toBe('pass');
    expect(verdictOf(check, value(54.9), value(40))).toBe('pass');
    expect(verdictOf(check, value(55), value(40))).toBe('fail');
  });

  it('of a grade: no worse passes, worse fails, in the order of the check’s own grades', () => {
    const check = made({
      kind: 'grade',
      grades: [
        { id: 'dry', title: 'Dry' },
        { id: 'seep', title: 'Seeps' },
        { id: 'froth', title: 'Froths' },
      ],
    });
    const grade = (id: string): CheckAnswer => ({ kind: 'grade', grade: id });
    expect(verdictOf(check, grade('dry'), grade('seep'))).toBe('pass');
    expect(verdictOf(check, grade('seep'), grade('seep'))).toBe('pass');
    expect(judgeAnswer(check, grade('froth'), grade('seep'))).toMatchObject({
      verdict: 'fail',
      said: 'Read it: Froths',
    });
  });

  it('of a choice: just what a sound rig gives', () => {
    const check = made({
      kind: 'choice',
      choices: [
        { id: 'pops', title: 'Pops out' },
        { id: 'stays', title: 'Stays in' },
      ],
    });
    const choice = (id: string): CheckAnswer => ({ kind: 'choice', choice: id });
    expect(verdictOf(check, choice('pops'), choice('pops'))).toBe('pass');
    expect(judgeAnswer(check, choice('stays'), choice('pops'))).toMatchObject({
      verdict: 'fail',
      said: 'Read it: Stays in',
    });
  });

  it('says what was read beside what was expected, in its unit', () => {
    const { said, readings } = judgeAnswer(number('psi'), value(92.4), value(100));
    expect(said).toMatch(/^Read it: 92(\.4)? psi, 100 expected$/);
    expect(readings).toHaveLength(1);
    expect(readings[0]).toMatchObject({ unit: 'psi', after: 92.4, expected: 100 });
  });
});

describe('the crack pressure of a curve', () => {
  it('is the first point’s own where that passes air already', () => {
    expect(
      crackOf([
        [3, 2],
        [6, 5],
      ]),
    ).toBe(3);
  });

  it('lies at the point that delivers just a psi, and between two on the straight line', () => {
    expect(
      crackOf([
        [2, 0],
        [4, 1],
        [6, 4],
      ]),
    ).toBeCloseTo(4, 12);
    expect(
      crackOf([
        [2, 0],
        [6, 4],
      ]),
    ).toBeCloseTo(3, 12);
  });

  it('goes by the way up: friction holds more on the way down', () => {
    expect(
      crackOf([
        [2, 0],
        [4, 0],
        [6, 2],
        [8, 4],
        [4, 3],
        [2, 1.5],
      ]),
    ).toBeCloseTo(5, 12);
  });
});
