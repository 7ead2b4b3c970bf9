import { truck } from '../test/rigsInAir';
import { BENT, bend, between, blend, shownBetween, together } from './interpolated';
import { RigModel, RUN_AT, type ShownByRun } from './rigModel';
import { numberFigures } from './runFigures';

describe('where a severity lies on a grid', () => {
  const grid = [0.2, 0.6, 1];

  it('is between its neighbours, on a grid point at that point, and at the end beyond', () => {
    expect(between(grid, 0.3)).toEqual([0.2, 0.6, expect.closeTo(0.25, 12)]);
    expect(between(grid, 0.8)).toEqual([0.6, 1, expect.closeTo(0.5, 12)]);
    const at = (severity: number) => {
      const [below, above, share] = between(grid, severity);
      return (1 - share) * below + share * above;
    };
    for (const severity of [...grid, 0.25, 0.59, 0.61, 0.99])
      expect(at(severity)).toBeCloseTo(severity, 12);
    expect(at(0)).toBe(0.2);
    expect(at(2)).toBe(1);
    expect(between([0.7], 0.3)).toEqual([0.7, 0.7, 0]);
  });
});

describe('what a run would show between two that were made', () => {
  const model = new RigModel(truck);
  const [fault] = model.faults;
  const shown = (first: number | null, lamp?: number): ShownByRun => ({
    numbers: numberFigures.map((_, n) => (n === 0 ? first : n === 1 ? 5 : null)),
    lamps: lamp === undefined ? {} : { 'lamp light': lamp },
  });
  const made = (runs: Readonly<Record<number, ShownByRun>>) => {
    const of = new RigModel(truck);
    of.learn({
      ...{ answers: {}, soundRuns: [], soundAnswers: [] },
      runs: Object.fromEntries(
        Object.entries(runs).map(([severity, run]) => [`${fault!.id} @${severity}`, run]),
      ),
    });
    return (severity: number) => shownBetween(of, fault!, severity);
  };
  const [least, next] = RUN_AT;
  const middle = (least + next) / 2;

  it('lies on the line between them, unsure by what a bend may do, most in the middle', () => {
    const at = made({ [least]: shown(10), [next]: shown(20) });
    expect(at(middle).numbers[0]).toBeCloseTo(15, 12);
    expect(at(middle).unsure?.[0]).toBeCloseTo(BENT * 10, 12);
    expect(at(middle).unsure?.[1]).toBe(0);
    const quarter = at(least + (next - least) / 4);
    expect(quarter.numbers[0]).toBeCloseTo(12.5, 12);
    expect(quarter.unsure?.[0]).toBeCloseTo(BENT * 10 * bend(0.25), 12);
    expect(bend(0.5)).toBe(1);
    expect([bend(0), bend(1)]).toEqual([0, 0]);
    expect(at(least).numbers[0]).toBe(10);
    expect(at(next).numbers[0]).toBeCloseTo(20, 12);
  });

  it('has the number of whichever has one, and none where neither has', () => {
    expect(made({ [least]: shown(null), [next]: shown(20) })(middle).numbers[0]).toBe(20);
    expect(made({ [least]: shown(10), [next]: shown(null) })(middle).numbers[0]).toBe(10);
    expect(made({ [least]: shown(null), [next]: shown(null) })(middle).numbers[0]).toBeNull();
    expect(made({ [least]: shown(10), [next]: shown(null) })(middle).unsure?.[0]).toBe(0);
  });

  it('has a lamp by its share where both have it', () => {
    const both = made({ [least]: shown(1, 0), [next]: shown(1, 1) });
    expect(both(middle).lamps['lamp light']).toBeCloseTo(0.5, 12);
    expect(made({ [least]: shown(1, 0), [next]: shown(1) })(middle).lamps).toEqual({});
  });

  it('is the one that was made where there is no other', () => {
    expect(made({ 0.85: shown(7) })(0.1).numbers[0]).toBe(7);
  });
});

describe('chances of two severities', () => {
  it('are mixed by the share, whatever only one of them can say', () => {
    expect(blend({ a: 1 }, { b: 0.5, c: 0.5 }, 0.2)).toEqual({
      a: expect.closeTo(0.8, 12) as number,
      b: expect.closeTo(0.1, 12) as number,
      c: expect.closeTo(0.1, 12) as number,
    });
  });
});

describe('what two faults at once would answer', () => {
  const would = (shift: number, unsure: number, chances: Record<string, number>) => ({
    ...{ mean: 0, shift, unsure, chances },
  });

  it('moves a number by both, and says what the one says that shows', () => {
    const sound = { ...would(0, 0, { dry: 0.9, wet: 0.1 }), mean: 50 };
    const [shows, hidden] = [
      would(3, 3, { dry: 0.1, wet: 0.9 }),
      would(4, 4, { dry: 0.9, wet: 0.1 }),
    ];
    for (const both of [together(shows, hidden, sound), together(hidden, shows, sound)]) {
      expect(both.mean).toBe(57);
      expect(both.unsure).toBe(5);
      expect(both.chances).toEqual(shows.chances);
    }
  });
});
