import { faultsOf } from '../twin/faults/faultsOf';
import { Twin } from '../twin/twin';
import { truck } from '../test/rigsInAir';
import { retestsOf } from '../repair/retests';
import { checksOf, checksOfRetest, doAll, doCheck, judgeAnswer, PERFECT_SENSES } from '.';

const checks = checksOf(truck, []);
const faults = faultsOf(truck);
const owedBy = (partId: string) =>
  retestsOf({
    units: [truck.unit],
    at: { unitId: truck.unit.id, partId },
    repair: 'replaced',
  }).filter(({ check }) => check !== null);

/** The twin on both sides: this proves that answers are judged the right way round, not the physics. */
describe('a retest by checks', () => {
  const asked = owedBy('rear-relay').flatMap((retest) => checksOfRetest(checks, retest));
  const sound = doAll(truck, asked, []);

  it('passes on a sound rig, check by check', () => {
    expect(asked.length).toBe(3);
    for (const check of asked) {
      const answer = doCheck(new Twin(truck, { tanksPsi: 90 }), check, { senses: PERFECT_SENSES });
      expect([check.id, judgeAnswer(check, answer, sound.get(check.id)!).verdict]).toEqual([
        check.id,
        'pass',
      ]);
    }
  });

  it('fails where the relay that was fitted does not do what it should', () => {
    const stuck = faults.filter(({ id }) => id.includes('rear relay'));
    expect(stuck.length).toBeGreaterThan(0);
    const told = stuck.filter((fault) => {
      const answers = doAll(truck, asked, [{ fault, severity: 0.9 }]);
      return asked.some(
        (check) =>
          judgeAnswer(check, answers.get(check.id)!, sound.get(check.id)!).verdict === 'fail',
      );
    });
    // A seat that leaks is told by the hold that is owed as well, not by the curve.
    expect(told.length).toBeGreaterThan(0);
    expect(told.map(({ id }) => id)).toEqual(
      expect.arrayContaining(
        stuck.filter(({ id }) => /crack|stick|slow|narrowed/.test(id)).map(({ id }) => id),
      ),
    );
  });

  it('is not failed by a rig that is better than expected', () => {
    const [timing] = asked.filter(({ doing }) => doing.does === 'time');
    const expected = { kind: 'number', value: 0.8 } as const;
    expect(judgeAnswer(timing!, { kind: 'number', value: 0.1 }, expected).verdict).toBe('pass');
    expect(judgeAnswer(timing!, { kind: 'number', value: 3 }, expected).verdict).toBe('fail');
  });

  it('cannot be told from a single point of a curve', () => {
    const [curve] = asked.filter(({ doing }) => doing.does === 'compare');
    const one = { kind: 'points', points: [[30, 28]] } as const;
    expect(judgeAnswer(curve!, one, sound.get(curve!.id)!).verdict).toBe('cant-tell');
  });

  it('hears soap by its grade: no worse than on a sound rig passes', () => {
    const [soap] = checksOfRetest(
      checks,
      owedBy('park-line').find(({ check }) => check?.what === 'soap')!,
    );
    const dry = { kind: 'grade', grade: 'dry' } as const;
    expect(judgeAnswer(soap!, dry, dry).verdict).toBe('pass');
    expect(judgeAnswer(soap!, { kind: 'grade', grade: 'froth' }, dry).verdict).toBe('fail');
  });
});
