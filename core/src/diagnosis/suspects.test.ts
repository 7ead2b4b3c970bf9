import fc from 'fast-check';
import { jStat } from 'jstat';
import { Matrix } from 'ml-matrix';
import { semi } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { logStudent, lowerOf } from './likelihood';
import {
  complaints,
  complaintsLike,
  evidenceOfRun,
  meaningsOf,
  nextCheck,
  rankingOf,
  RigModel,
  sayHowBad,
  stillCounts,
  usualOf,
  Weighing,
  whyOf,
  type Evidence,
} from './index';

const trailerRig: RigUnderTest = { unit: unitOf('trailer', '22'), towed: [] };
const worked = (rig: RigUnderTest): RigModel => {
  const model = new RigModel(rig);
  for (const _ of model.prepare()) void _;
  return model;
};
/** A trailer alone is worked out in a second or two. */
const trailer = worked(trailerRig);

const chanceOf = (weighing: Weighing, id: string) =>
  rankingOf(weighing).suspects.find(({ faults }) => faults.some((fault) => fault.id === id))
    ?.chance ?? 0;

describe('weighing evidence', () => {
  const dry = {
    kind: 'answer',
    atMs: 2,
    checkId: '0/wet/#0 left',
    answer: { kind: 'grade', grade: 'dry' },
  } as const;
  const froth = { ...dry, answer: { kind: 'grade', grade: 'stream' } } as const;

  it('gives chances that sum to one, whatever was found and in whatever order', () => {
    const kinds = fc.constantFrom<Evidence>(
      dry,
      { kind: 'complaint', atMs: 1, complaintId: 'trailer-drags' },
      { kind: 'complaint', atMs: 1, complaintId: 'water' },
      { kind: 'failed', atMs: 1 },
      { kind: 'named', atMs: 3, fault: 'leak: #0 tank' },
      {
        kind: 'answer',
        atMs: 2,
        checkId: '0/listen/#0 relay: exhaust/applied',
        answer: { kind: 'grade', grade: 'hiss' },
      },
      { kind: 'look', atMs: 2, key: 'look:couplers/seals' },
    );
    fc.assert(
      fc.property(fc.array(kinds, { maxLength: 4 }), (evidence) => {
        const one = new Weighing(trailer, evidence);
        const sum = one.weighed.reduce((all, { chance }) => all + chance, 0);
        expect(sum).toBeCloseTo(1, 9);
        const other = new Weighing(trailer, [...evidence].reverse());
        for (const { id } of trailer.faults) {
          expect(chanceOf(other, id)).toBeCloseTo(chanceOf(one, id), 6);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('is Student’s density, as a library has it', () => {
    // Two distances compared: what a common factor cancels.
    for (const [a, b, scale] of [
      [0.5, 2, 1],
      [0, 6, 2.5],
      [-3, 1, 0.7],
    ] as const) {
      const ours = logStudent(a, scale) - logStudent(b, scale);
      const theirs =
        Math.log(jStat.studentt.pdf(a / scale, 5)) - Math.log(jStat.studentt.pdf(b / scale, 5));
      expect(ours).toBeCloseTo(theirs, 9);
    }
  });

  it('believes wet soap, and drops what was found of a part before it was replaced', () => {
    const found = new Weighing(trailer, [froth]);
    expect(rankingOf(found).suspects[0]?.faults[0]?.id).toBe('leak: #0 left');
    expect(chanceOf(found, 'leak: #0 left')).toBeGreaterThan(0.4);
    expect(chanceOf(new Weighing(trailer, [dry]), 'leak: #0 left')).toBeLessThan(0.05);
    const mended = new Weighing(trailer, [
      froth,
      { kind: 'repair', atMs: 5, unit: 0, part: 'chambers' },
      { ...dry, atMs: 6 },
    ]);
    expect(chanceOf(mended, 'leak: #0 left')).toBeLessThan(0.05);
  });

  it('looks for two faults where one cannot explain what was found, and never for two of one place', () => {
    const wet = (checkId: string) =>
      ({ ...dry, checkId, answer: { kind: 'grade', grade: 'stream' } }) as const;
    const both = new Weighing(trailer, [wet('0/wet/#0 left'), wet('0/wet/#0 tank')]);
    const { two } = rankingOf(both);
    expect(two.faults.map(({ id }) => id).sort()).toEqual(['leak: #0 left', 'leak: #0 tank']);
    const pairs = both.weighed.flatMap(({ cause, chance }) =>
      cause.kind === 'pair' ? [{ ...cause, chance }] : [],
    );
    expect(pairs.length).toBeGreaterThan(100);
    expect(two.chance).toBeCloseTo(
      pairs.reduce((sum, { chance }) => sum + chance, 0),
      12,
    );
    for (const { faults } of pairs) expect(faults[0].at).not.toBe(faults[1].at);
    const names = pairs.map(({ faults, severities }) =>
      [...faults.map(({ id }) => id).sort(), severities[1]].join(' & '),
    );
    expect(new Set(names).size).toBe(names.length);
    // Each of three severities of the second.
    expect(new Set(names.map((name) => name.split(' & ')[2])).size).toBe(3);
    // Where one explains all of it, none is looked for.
    const named = { kind: 'named', atMs: 1, fault: 'leak: #0 left' } as const;
    const one = new Weighing(trailer, [named, wet('0/wet/#0 left')]);
    expect(one.weighed.some(({ cause }) => cause.kind === 'pair')).toBe(false);
  });

  it('says what speaks against a suspect: an answer that is rare with it, and none that says nothing of it', () => {
    const consOf = (evidence: Evidence, id: string) =>
      whyOf(new Weighing(trailer, [evidence]), trailer.faultById.get(id)!, 0.8, 'kPa').cons;
    expect(consOf(dry, 'leak: #0 left')).toEqual([
      expect.stringMatching(/^Wet the joints .*, \d+ in 100 with this$/),
    ]);
    expect(consOf(dry, 'leak: #0 right')).toEqual([]);
    expect(consOf(froth, 'leak: #0 left')).toEqual([]);
  });

  it('stays a chance where readings are absurd, or contradict each other', () => {
    const watched = trailer.checks.filter(({ answer }) => answer.kind === 'number').slice(0, 12);
    const absurd = watched.map(({ id }, n): Evidence => ({
      ...{ kind: 'answer', atMs: 2, checkId: id },
      answer: { kind: 'number', value: n % 2 === 0 ? 2_000 : 0 },
    }));
    const { weighed } = new Weighing(trailer, absurd);
    expect(weighed.every(({ chance }) => chance >= 0 && chance <= 1)).toBe(true);
    expect(weighed.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9);
    // From a few drawn rigs alone, as while a rig is still being worked out.
    const young = new RigModel(trailerRig);
    const few = new Weighing(young, absurd).weighed;
    expect(few.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9);
  });

  it('believes less of what numbers have in common where it is more than there is', () => {
    // No two numbers of deviation 1 have 2 in common: 0.8⁴ × 2 = 0.82 is the first that can be.
    const lower = lowerOf(
      new Matrix([
        [1, 2],
        [2, 1],
      ]),
    );
    expect(lower.to2DArray().flat().every(Number.isFinite)).toBe(true);
    expect(lower.mmul(lower.transpose()).get(0, 1)).toBeCloseTo(2 * 0.8 ** 4, 9);
    expect(
      lowerOf(
        new Matrix([
          [4, 2],
          [2, 5],
        ]),
      ).to2DArray(),
    ).toEqual([
      [2, 0],
      [1, 2],
    ]);
  });

  it('takes a name as evidence, not as proof', () => {
    const named = new Weighing(trailer, [{ kind: 'named', atMs: 1, fault: 'leak: #0 tank' }]);
    expect(rankingOf(named).suspects[0]?.faults[0]?.id).toBe('leak: #0 tank');
    expect(chanceOf(named, 'leak: #0 tank')).toBeLessThan(0.8);
    const against = new Weighing(trailer, [
      { kind: 'named', atMs: 1, fault: 'leak: #0 tank' },
      froth,
    ]);
    expect(chanceOf(against, 'leak: #0 left')).toBeGreaterThan(chanceOf(against, 'leak: #0 tank'));
  });

  it('lets a shop’s own repairs speak', () => {
    const evidence: Evidence[] = [{ kind: 'complaint', atMs: 1, complaintId: 'blows' }];
    const plain = new Weighing(trailer, evidence);
    const known = new Weighing(trailer, evidence, { repairs: { 'seat: #0 relay: inlet': 8 } });
    expect(chanceOf(known, 'seat: #0 relay: inlet')).toBeGreaterThan(
      1.5 * chanceOf(plain, 'seat: #0 relay: inlet'),
    );
  });
});

describe('the next check', () => {
  it('is a walk with an open ear where a hiss is all that is known, and no check buys more than there is to guess', () => {
    const evidence: Evidence[] = [{ kind: 'complaint', atMs: 1, complaintId: 'blows' }];
    const weighing = new Weighing(trailer, evidence);
    const next = nextCheck(weighing);
    if (next.next !== 'check') throw new Error(next.next);
    expect(next.best.check.id).toBe('0/walk/air/applied');
    // Entropy of what is left to guess, by its own formula.
    const { suspects, sound, reader } = rankingOf(weighing);
    const chances = [...suspects.map(({ chance }) => chance), sound + reader];
    const all = chances.reduce((sum, each) => sum + each, 0);
    const entropy = chances.reduce(
      (sum, each) => sum - (each / all) * Math.log(each / all || 1),
      0,
    );
    for (const { gain } of [next.best, ...next.others]) {
      expect(gain).toBeGreaterThan(0);
      expect(gain).toBeLessThan(entropy);
    }
  });

  it('is one that parts the suspects, costs less in a state the rig stands in, and is not asked twice', () => {
    const evidence: Evidence[] = [{ kind: 'complaint', atMs: 1, complaintId: 'blows' }];
    const weighing = new Weighing(trailer, evidence);
    const next = nextCheck(weighing);
    if (next.next !== 'check') throw new Error(next.next);
    const { check, gain, minutes } = next.best;
    expect(gain).toBeGreaterThan(0.05);
    const there = nextCheck(weighing, { state: check.state.id });
    if (there.next !== 'check') throw new Error(there.next);
    const same = [there.best, ...there.others].find((each) => each.check.id === check.id);
    expect(same?.minutes).toBe(minutes - check.state.minutes);
    const without = nextCheck(weighing, { without: [check.id] });
    expect(without.next === 'check' && without.best.check.id).not.toBe(check.id);
    // Each answer would mean something, and not all the same.
    const means = meaningsOf(weighing, check, rankingOf(weighing));
    expect(means.length).toBeGreaterThan(1);
    expect(
      new Set(means.map(({ group, chance }) => `${group} ${chance.toFixed(2)}`)).size,
    ).toBeGreaterThan(1);
  });

  it('is none once one stands out', () => {
    const weighing = new Weighing(trailer, [
      { kind: 'named', atMs: 1, fault: 'leak: #0 left' },
      {
        kind: 'answer',
        atMs: 2,
        checkId: '0/wet/#0 left',
        answer: { kind: 'grade', grade: 'blown-off' },
      },
    ]);
    expect(nextCheck(weighing).next).toBe('found');
    const why = whyOf(weighing, trailer.faultById.get('leak: #0 left')!, 0.8, 'kPa');
    expect(why.pros.join(' ')).toContain('Wet the joints');
  });
});

describe('what is weighed', () => {
  const figure = (id: string, value: number, change: object = {}) =>
    ({
      id,
      value,
      unit: 'psi',
      standardUncertainty: 1,
      verdict: 'pass',
      asRead: 'pass',
      ...change,
    }) as never;

  it('is a run’s figures by the needle they were read from, with their doubt', () => {
    const outcome = {
      figures: [
        figure('cut-out', 126),
        figure('static-leak', 3, {
          unit: 'psi/min',
          standardUncertainty: 0.4,
          verdict: 'fail',
          asRead: 'fail',
        }),
        figure('static-leak-other', 0.4, { unit: 'psi/min' }),
        figure('build-up-time', 33, { unit: 's' }),
        figure('stop-lamp', 6),
      ],
      findings: [{ standing: 'bad', stepId: 'couplers', key: 'seals' }] as never,
    };
    const [run, failed, look] = evidenceOfRun({ outcome, gauge: 'secondary', atMs: 7 });
    expect(run).toMatchObject({
      kind: 'run',
      figures: {
        'cut-out': 126,
        'static secondary': 3,
        'static primary': 0.4,
        'build-up': 33,
        'lamp light': 1,
      },
      doubt: { 'static secondary': 0.4 },
    });
    expect(failed).toEqual({ kind: 'failed', atMs: 7 });
    expect(look).toEqual({ kind: 'look', atMs: 7, key: 'look:couplers/seals' });
  });

  it('is beside what the rig usually shows: medians of its earlier runs', () => {
    const runs = [30, 34, 90].map((s) => ({
      figures: [figure('build-up-time', s, { unit: 's' })],
    }));
    expect(usualOf(runs, 'primary')).toEqual({ figures: { 'build-up': 34 }, runs: 3 });
    expect(usualOf([], 'primary')).toBeNull();
  });

  it('is no older than the last run that passed, but for repairs', () => {
    const at = (atMs: number): Evidence => ({ kind: 'failed', atMs });
    const repair: Evidence = { kind: 'repair', atMs: 1, unit: 0, part: 'dryer' };
    expect(stillCounts([at(5), at(50), repair], 60, 10)).toEqual([at(50), repair]);
  });

  it('is a complaint in any of the words it goes by', () => {
    expect(complaintsLike('hiss').map(({ id }) => id)).toEqual(['blows']);
    expect(complaintsLike('').length).toBe(complaints.length);
    expect(complaintsLike('no such word')).toEqual([]);
    const known = new Set(new RigModel(semi).faults.map(({ id }) => id));
    for (const { said, id } of complaints.filter((each) => each.id !== 'freezes')) {
      expect([id, said.some(([of]) => [...known].some((fault) => of.test(fault)))]).toEqual([
        id,
        true,
      ]);
    }
  });

  it('says how bad a leak is by its hole', () => {
    // 4 scfm at 110 psi through a sharp-edged hole of coefficient 0.8: closed form of choked flow,
    // A = m / (Cd p √(γ/RT) (2/(γ+1))^3) = 0.00227 / (0.8 × 860 kPa × 0.00236) = 1.40 mm², so 1.3 mm across.
    expect(sayHowBad({ id: 'leak: primary tank' }, 1)).toBe('about 4 scfm, a hole of 1.3 mm');
    expect(sayHowBad({ id: 'governor high' }, 0.5)).toBe('plain');
  });
});
