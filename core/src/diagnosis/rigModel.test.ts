import { mean, sampleStandardDeviation } from 'simple-statistics';
import type { CheckAnswer } from '../checks/check';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { truck } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { numberFigures } from './runFigures';
import {
  CHECKED_AT,
  figureOf,
  RigModel,
  RUN_AT,
  saidOf,
  SOUND_CHECKED,
  SOUND_RUNS,
  type KeptTable,
  type ShownByRun,
} from './rigModel';

const trailer: RigUnderTest = { unit: unitOf('trailer', '22'), towed: [] };
const nothing: KeptTable = { runs: {}, answers: {}, soundRuns: [], soundAnswers: [] };
const number = (value: number): CheckAnswer => ({ kind: 'number', value });
const grade = (of: string): CheckAnswer => ({ kind: 'grade', grade: of });
const choice = (of: string): CheckAnswer => ({ kind: 'choice', choice: of });
const points = (...of: readonly (readonly [number, number])[]): CheckAnswer => ({
  kind: 'points',
  points: of,
});
/** A run of which the first figure is made up. */
const shown = (first: number | null): ShownByRun => ({
  numbers: numberFigures.map((_, n) => (n === 0 ? first : null)),
  lamps: {},
});
const learnt = (table: Partial<KeptTable>, rig = trailer) => {
  const model = new RigModel(rig);
  model.learn({ ...nothing, ...table });
  return model;
};

describe('what sound rigs answer', () => {
  const soundTo = (...answers: readonly (CheckAnswer | null)[]) =>
    learnt({
      soundAnswers: answers.map((answer): Record<string, CheckAnswer> =>
        answer ? { a: answer } : {},
      ),
    }).soundTo('a');

  it('has the mean and the deviation of its numbers, as a library has them', () => {
    const values = [4, 7.5, 6, 9];
    const found = soundTo(...values.map(number));
    expect(found.mean).toBeCloseTo(mean(values), 12);
    expect(found.deviation).toBeCloseTo(sampleStandardDeviation(values), 12);
    expect(found.drawn).toEqual(values);
  });

  it('goes by those that gave a number, and keeps the place of those that gave none', () => {
    const found = soundTo(number(4), null, number(10), grade('dry'), number(7));
    expect(found.mean).toBeCloseTo(7, 12);
    expect(found.deviation).toBeCloseTo(3, 12);
    expect(found.drawn).toEqual([4, null, 10, null, 7]);
  });

  it('has shares of words that sum to one over the rigs that gave any', () => {
    const { shares } = soundTo(grade('dry'), grade('seep'), null, grade('dry'), choice('dry'));
    expect(shares.dry).toBeCloseTo(0.75, 12);
    expect(shares.seep).toBeCloseTo(0.25, 12);
  });

  it('is reckoned anew where more rigs are known', () => {
    const four = [1, 2, 3, 4].map((value) => ({ a: number(value) }));
    const model = learnt({ soundAnswers: four });
    expect(model.soundTo('a').mean).toBeCloseTo(2.5, 12);
    expect(model.soundTo('a')).toBe(model.soundTo('a'));
    model.learn({ ...nothing, soundAnswers: [...four, { a: number(100) }] });
    expect(model.soundTo('a').mean).toBeCloseTo(22, 12);
    expect(model.table().soundAnswers).toHaveLength(5);
  });
});

describe('what sound rigs show in a run', () => {
  it('is the mean of each figure over the runs that have it, and nought of one that none has', () => {
    const runs = [2, null, 4, 6, 8, 10, 12, 14].map(shown);
    const model = learnt({ soundRuns: runs });
    expect(model.sound.mean[0]).toBeCloseTo(8, 12);
    expect(model.sound.mean[1]).toBe(0);
    expect(model.soundColumn(0)).toEqual([2, null, 4, 6, 8, 10, 12, 14]);
    model.learn({ ...nothing, soundRuns: [...runs, shown(107)] });
    expect(model.sound.mean[0]).toBeCloseTo(163 / 8, 12);
  });
});

describe('what is known of a fault', () => {
  const [fault] = new RigModel(trailer).faults;
  const id = fault!.id;
  const answers = (...severities: readonly number[]) =>
    Object.fromEntries(
      severities.map((severity) => [`${id} @${severity}`, { a: number(severity) }]),
    );

  it('of a check is known once it was done at every severity of the grid', () => {
    const model = learnt({ answers: answers(...CHECKED_AT.slice(1)) });
    expect(model.knows('a', id)).toBe(false);
    expect(model.knownUnder(id).map((each) => each !== undefined)).toEqual([false, true, true]);
    expect(model.knownAnswer('a', id, 1)).toEqual(number(1));
    expect(model.knownAnswer('b', id, 1)).toBeUndefined();
    model.learn({ ...nothing, answers: answers(CHECKED_AT[0]) });
    expect(model.knows('a', id)).toBe(true);
    expect(model.knows('b', id)).toBe(false);
    expect(model.knownUnder(id).map((each) => each?.get('a'))).toEqual(CHECKED_AT.map(number));
  });

  it('is seen as soon as it is worked out, though it was asked for before', () => {
    const model = new RigModel(trailer);
    expect(model.knownUnder(id)).toEqual([undefined, undefined, undefined]);
    const check = model.checks.find(({ act }) => act === 'wet')!;
    for (const severity of CHECKED_AT) model.answersTo([check.id], id, severity);
    expect(model.knownUnder(id).every((each) => each?.has(check.id))).toBe(true);
    expect(model.knownUnder(id)).toBe(model.knownUnder(id));
  });

  it('adds to what is known already, and loses none of it', () => {
    const model = learnt({ answers: { sound: { a: number(1) } } });
    model.learn({ ...nothing, answers: { sound: { b: number(2) } } });
    expect(model.table().answers).toEqual({ sound: { a: number(1), b: number(2) } });
    expect([...model.answersTo(['a', 'b'], null).keys()]).toEqual(['a', 'b']);
  });
});

describe('a rig that is worked out', () => {
  it('has runs where it has a compressor, and is whole with two severities of all and twenty sound rigs', () => {
    expect(new RigModel(trailer)).toMatchObject({ hasRun: false, isWhole: true });
    const { faults } = new RigModel(truck);
    const runs = Object.fromEntries(
      faults.flatMap(({ id }) => [0.85, 0.4].map((at) => [`${id} @${at}`, shown(1)])),
    );
    const sound = (count: number) => Array.from({ length: count }, () => shown(1));
    expect(learnt({ runs, soundRuns: sound(20) }, truck).isWhole).toBe(true);
    expect(learnt({ runs, soundRuns: sound(19) }, truck).isWhole).toBe(false);
    const { [`${faults[3]!.id} @0.4`]: _, ...others } = runs;
    const without = learnt({ runs: others, soundRuns: sound(20) }, truck);
    expect(without.isWhole).toBe(false);
    expect(without.runsOf(faults[3]!.id)).toEqual([0.85]);
    expect(without.runsOf(faults[0]!.id)).toEqual([0.4, 0.85]);
  });

  it('asks for what is not known yet alone, piece by piece, and says how much there is', () => {
    const model = new RigModel(truck);
    const inside = model as unknown as { drawSoundRun(): void; drawSoundAnswers(): void };
    const [one, two] = model.faults;
    const lengthOf = (what: Parameters<RigModel['prepare']>[0], first: string[] = []) => {
      // Only what is asked for is looked at: working it out takes minutes.
      const worked = jest.spyOn(model, 'run').mockReturnValue(shown(1));
      const drawn = jest.spyOn(inside, 'drawSoundRun').mockImplementation();
      const answered = jest.spyOn(inside, 'drawSoundAnswers').mockImplementation();
      const checked = jest.spyOn(model, 'answersTo').mockReturnValue(new Map());
      const said = [...model.prepare(what, first)];
      expect(said.map(({ done }) => done)).toEqual(said.map((_, n) => n + 1));
      expect(new Set(said.map(({ of }) => of))).toEqual(new Set([said.length]));
      const counts = {
        runs: worked.mock.calls.length,
        sound: drawn.mock.calls.length,
        soundChecked: answered.mock.calls.length,
        checked: checked.mock.calls.length,
      };
      const firstRun = worked.mock.calls[1];
      jest.restoreAllMocks();
      return { ...counts, firstRun };
    };
    const all = model.faults.length;
    expect(lengthOf('first', [one!.id, two!.id, 'no such fault'])).toEqual({
      ...{ runs: 1 + 2 * 2, sound: 8, soundChecked: 0, checked: 0 },
      firstRun: [one!.id, 0.85],
    });
    expect(lengthOf('runs', [one!.id])).toMatchObject({
      ...{ runs: 1 + 2 * all + RUN_AT.length - 2, sound: 20, soundChecked: 0, checked: 0 },
    });
    expect(lengthOf('behind')).toEqual({
      ...{ runs: 1 + 2 * all, sound: 0, soundChecked: 0, checked: 0 },
      firstRun: [model.faults.at(-1)!.id, 0.4],
    });
    expect(lengthOf('checks', [one!.id])).toMatchObject({
      ...{ runs: 0, sound: 0, soundChecked: 4, checked: 1 + CHECKED_AT.length },
    });
    expect(lengthOf('everything')).toMatchObject({
      runs: 1 + RUN_AT.length * all,
      sound: SOUND_RUNS,
      soundChecked: SOUND_CHECKED,
      checked: 1 + CHECKED_AT.length * all,
    });
    model.learn({ ...nothing, runs: { [`${one!.id} @0.85`]: shown(1) } });
    expect(lengthOf('first', [one!.id])).toMatchObject({ runs: 1 + 1 });
  });
});

describe('an answer', () => {
  it('is compared by its number, or by what comes out for what goes in on the way up', () => {
    expect(figureOf(number(-3))).toBe(-3);
    expect(figureOf(points([10, 8], [20, 17], [30, 29]))).toBeCloseTo((-2 - 3 - 1) / 3, 12);
    // The way down is the valve's friction.
    expect(figureOf(points([10, 8], [20, 18], [10, 19]))).toBeCloseTo(-2, 12);
    expect(figureOf(points())).toBeNull();
    expect(figureOf(grade('dry'))).toBeNull();
  });

  it('is said by its grade or its choice', () => {
    expect(saidOf(grade('dry'))).toBe('dry');
    expect(saidOf(choice('late'))).toBe('late');
    expect(saidOf(number(1))).toBeNull();
  });
});
