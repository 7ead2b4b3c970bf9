import type { RunFact } from '@keen-bleed/contract';
import { roadTest } from '../standards/roadTest';
import { testUnit, Walk } from '../test/walk';
import { usualGauge } from '../rig/newUnit';
import { toPsi } from '../units/pressure';
import { admit } from './admit';
import { WATCHED_WITHIN_MS } from './awaiting';

/** What is wrong with a fact of a run: its field and its words. */
const problemOf = (walk: Walk, fact: object) =>
  admit(walk.state, {
    ...{ id: 'x', lane: 'l', seq: 99, offsetMs: 0, v: 3, atMs: walk.nowMs },
    ...fact,
  } as RunFact);
const fieldOf = (walk: Walk, fact: object) => problemOf(walk, fact)?.field ?? null;
const mark = (change: object) => ({
  ...{ kind: 'mark', stepId: 'cut-out', key: 'cut-out', readingPsi: 120 },
  ...{ resolutionPsi: 1, method: 'read' },
  ...change,
});

describe('a mark', () => {
  it('lies on the dial, its ends among it', () => {
    const walk = new Walk(testUnit({ gauge: usualGauge.bar })).ready();
    const { top } = usualGauge.bar;
    // 1 bar is 14.5038 psi [std: BIPM SI brochure, 100 kPa].
    const topPsi = top * 14.503773773;
    expect(fieldOf(walk, mark({ readingPsi: toPsi(top, 'bar') }))).toBeNull();
    expect(fieldOf(walk, mark({ readingPsi: 0 }))).toBeNull();
    expect(fieldOf(walk, mark({ readingPsi: topPsi - 1e-6 }))).toBeNull();
    expect(fieldOf(walk, mark({ readingPsi: -0.01 }))).toBe('readingPsi');
    expect(problemOf(walk, mark({ readingPsi: topPsi + 14.5 }))).toEqual({
      field: 'readingPsi',
      message: `${top + 1} bar is off the gauge: it reads 0 to ${top} bar.`,
    });
  });

  it('is one that its step takes', () => {
    const walk = new Walk(testUnit(), { ruleSet: roadTest }).ready();
    expect(fieldOf(walk, mark({ key: 'cut-in' }))).toBe('key');
    expect(problemOf(walk, mark({ stepId: 'prepare', key: 'from' }))).toEqual({
      field: 'key',
      message: 'This step takes no mark called "from".',
    });
    expect(fieldOf(walk, mark({ stepId: 'nowhere' }))).toBe('stepId');
    for (const key of ['start', 'line', 'reading', 'end', 'settled']) {
      const hold = walk.state.procedure.steps.find(({ id }) => id === 'static-hold')!.act;
      const has = JSON.stringify(hold).includes(`"key":"${key}"`);
      expect([key, fieldOf(walk, mark({ stepId: 'static-hold', key }))]).toEqual([
        key,
        has ? null : 'key',
      ]);
    }
  });
});

describe('the end of a hold by its clock', () => {
  const holding = () => {
    const walk = new Walk().ready().mark().wait(30).mark().mark(126).mark(106);
    return walk.startHold(120);
  };
  const over = (atMs: number, stepId = 'static-hold') => ({ kind: 'hold-over', stepId, atMs });

  it('is at its end, a second early at most, and seen by somebody', () => {
    const walk = holding();
    const { endsAtMs } = walk.state.hold!;
    expect(fieldOf(walk, over(endsAtMs))).toBeNull();
    expect(fieldOf(walk, over(endsAtMs - 1_000))).toBeNull();
    expect(problemOf(walk, over(endsAtMs - 1_001))).toMatchObject({
      field: 'atMs',
      message: expect.stringContaining('not over yet') as string,
    });
    expect(fieldOf(walk, over(endsAtMs + WATCHED_WITHIN_MS))).toBeNull();
    expect(problemOf(walk, over(endsAtMs + WATCHED_WITHIN_MS + 1))).toMatchObject({
      field: 'atMs',
      message: expect.stringContaining('Nobody saw') as string,
    });
  });

  it('is of the hold that runs', () => {
    const before = new Walk().ready();
    expect(fieldOf(before, over(before.nowMs))).toBe('stepId');
    const walk = holding();
    expect(fieldOf(walk, over(walk.state.hold!.endsAtMs, 'build-up'))).toBe('stepId');
  });
});

describe('what is said of a run itself', () => {
  it('is the odometer, the place, or both', () => {
    const walk = new Walk().ready();
    expect(fieldOf(walk, { kind: 'about' })).toBe('odometer');
    expect(fieldOf(walk, { kind: 'about', odometer: '', place: '' })).toBe('odometer');
    expect(fieldOf(walk, { kind: 'about', place: 'Bay 2' })).toBeNull();
    expect(fieldOf(walk, { kind: 'about', odometer: '412 000 km' })).toBeNull();
  });
});

describe('what was looked at', () => {
  const walk = new Walk(testUnit(), { ruleSet: roadTest, leftOut: [] });
  const step = walk.state.step!;
  const items = 'items' in step.act ? (step.act.items ?? []) : [];
  const look = (answers: object, stepId = step.id) => ({ kind: 'look', stepId, answers });
  const good = Object.fromEntries(items.map(({ key, options }) => [key, options[0]!.value]));

  it('has an answer to each question, one that was offered, or that it was not done', () => {
    expect(items.length).toBeGreaterThan(0);
    const [{ key, options }] = items as [(typeof items)[number]];
    expect(problemOf(walk, look(good))).toBeNull();
    expect(problemOf(walk, look({ ...good, [key]: 'not-done' }))).toBeNull();
    const { [key]: _, ...others } = good;
    expect(fieldOf(walk, look(others))).toBe(`answers.${key}`);
    expect(problemOf(walk, look({ ...good, [key]: 'splendid' }))).toEqual({
      field: `answers.${key}`,
      message: expect.stringContaining(
        `one of: ${options.map(({ value }) => value).join(', ')}`,
      ) as string,
    });
  });

  it('has no answer to what was not asked, nor of a step that asks nothing', () => {
    expect(problemOf(walk, look({ ...good, hat: 'on' }))).toEqual({
      field: 'answers.hat',
      message: 'This step does not ask after "hat".',
    });
    expect(fieldOf(walk, look({}, 'cut-in'))).toBe('stepId');
  });
});
