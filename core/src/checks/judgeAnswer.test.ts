import type { ChamberStroke, ChamberType, Unit } from '@keen-bleed/contract';
import type { BenchFigure } from '../bench/pairs';
import { unitOf } from '../test/walk';
import type { Check, CheckAnswer } from './check';
import { crackOf, judgeAnswer, type CheckedAt } from './retestChecks';
import { apart, TELLS } from './tells';
import { figuresOfCheck } from './valves';

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
    expect(said).toMatch(/^Read it: 92(\.4)? psi, 100 psi expected$/);
    expect(readings).toHaveLength(1);
    expect(readings[0]).toMatchObject({ unit: 'psi', after: 92.4, expected: 100 });
  });
});

const unitWith = (parts: NonNullable<Unit['parts']> = [], more: Partial<Unit> = {}) => ({
  ...unitOf('truck', '10'),
  ...more,
  parts,
});
const at = (unit: Unit, more: Partial<CheckedAt> = {}): CheckedAt => ({
  unit,
  isTowing: false,
  isTowed: false,
  ...more,
});
const found = { standing: 'fitted', foundAtMs: 0 } as const;

/* The standards' limits; every value from memory, as no copy was at hand. */
describe('what an answer comes to by the law, whatever a good rig gives', () => {
  const stroke = {
    title: 'Stroke',
    part: 'rear-chambers',
    answer: { kind: 'number', unit: 'mm', error: 1, spread: 3, resolution: 2 },
    doing: { does: 'stroke', place: 'rear left' },
  } as unknown as Check;
  const ofType = (type: ChamberType, mark?: ChamberStroke) =>
    at(
      unitWith(mark ? [{ partId: 'rear-chambers', ...found, stroke: mark }] : [], {
        chambers: [{ type, count: 4, springBrake: true }],
      }),
    );
  const INCH = 25.4;

  // 49 CFR 393.47(e): adjustment limits in inches, by type and stroke mark.
  it.each([
    ['6', 'standard', 1.25],
    ['9', 'standard', 1.375],
    ['12', 'standard', 1.375],
    ['16', 'standard', 1.75],
    ['20', 'standard', 1.75],
    ['24', 'standard', 1.75],
    ['30', 'standard', 2],
    ['36', 'standard', 2.25],
    ['12', 'long', 1.75],
    ['16', 'long', 2],
    ['20', 'long', 2],
    ['24', 'long', 2],
    ['24', 'long-3', 2.5],
    ['30', 'long', 2.5],
  ] as const)('a type %s, %s, may come out %s in', (type, mark, inches) => {
    const judge = (mm: number) =>
      judgeAnswer(stroke, value(mm), null, ofType(type, mark === 'standard' ? undefined : mark))
        .verdict;
    expect(judge(inches * INCH - 0.1)).toBe('pass');
    expect(judge(inches * INCH + 0.1)).toBe('fail');
  });

  it('fails a type 20 at 48 mm and a type 12 at 49, which a good rig of one stroke for all passed', () => {
    expect(judgeAnswer(stroke, value(48), value(40), ofType('20')).verdict).toBe('fail');
    expect(judgeAnswer(stroke, value(49), value(40), ofType('12')).verdict).toBe('fail');
  });

  it('inside the law and unlike a good rig is measured again', () => {
    expect(judgeAnswer(stroke, value(50), value(38), ofType('30'))).toMatchObject({
      verdict: 'cant-tell',
      said: expect.stringContaining('Measure it again') as string,
    });
  });

  it('goes by a good rig alone where no limit is published, and says so', () => {
    for (const type of ['14', '18'] as const) {
      const judged = judgeAnswer(stroke, value(60), value(32), ofType(type));
      expect(judged.verdict).toBe('fail');
      expect(judged.said).toContain(`no published limit for type ${type}`);
    }
  });

  const timed = (pedal: 'down' | 'up') =>
    ({
      title: 'Time it',
      part: 'rear-chambers',
      answer: { kind: 'number', unit: 's', error: 0.01, spread: 0.2, resolution: 0.02 },
      doing: { does: 'time', place: 'rear left', pastPsi: pedal === 'down' ? 60 : 5, pedal },
    }) as unknown as Check;

  // 49 CFR 571.121 S5.3.3 and S5.3.4.
  it.each([
    ['truck', false, 0.45, 0.55],
    ['bus', false, 0.45, 0.55],
    ['trailer', true, 0.5, 1],
    ['trailer', false, 0.6, 1.2],
    ['dolly', false, 0.55, 1.1],
  ] as const)('a %s (towing: %s) applies in %s s and releases in %s', (kind, isTowing, on, off) => {
    const where = at({ ...unitOf(kind, '1') }, { isTowing });
    for (const [pedal, most] of [
      ['down', on],
      ['up', off],
    ] as const) {
      const judge = (s: number) => judgeAnswer(timed(pedal), value(s), null, where).verdict;
      expect(judge(most)).toBe('pass');
      expect(judge(most + 0.02)).toBe('fail');
    }
  });

  it('fails a truck at 0.58 and 1.0 s, and leaves a coupled trailer to a good rig', () => {
    expect(judgeAnswer(timed('down'), value(0.58), value(0.4), at(unitWith())).verdict).toBe(
      'fail',
    );
    expect(judgeAnswer(timed('up'), value(1), value(0.5), at(unitWith())).verdict).toBe('fail');
    const coupled = at(unitOf('trailer', '22'), { isTowed: true });
    expect(judgeAnswer(timed('down'), value(0.7), value(0.65), coupled).verdict).toBe('pass');
  });
});

describe('the crack pressure of a relay', () => {
  const relay = {
    title: 'Relay',
    part: 'rear-relay',
    state: { id: 'released' },
    answer: { kind: 'points', from: 'in', to: 'out', error: 0.7, spread: 2, resolution: 1 },
    doing: { does: 'compare', from: 'rear relay control', to: 'rear delivery', by: 'pedal' },
  } as unknown as Check;
  const plated = (setPsi: number) => unitWith([{ partId: 'rear-relay', ...found, setPsi }]);
  /** A valve that gives all it is asked for beyond its crack: the closed form of a balanced piston. */
  const curve = (crack: number, asked: readonly number[]): CheckAnswer => ({
    kind: 'points',
    compared: true,
    points: asked.map((inPsi) => [inPsi, Math.max(0, inPsi - crack)] as const),
  });
  const ASKED = [2, 4, 6, 8, 10, 15, 20, 40, 60];

  it.each([4, 5, 7, 9])('of %s psi is read as that by bench and retest alike', (crack) => {
    const unit = plated(4);
    const answer = curve(crack, ASKED);
    const figures = figuresOfCheck(relay, answer, unit) as readonly BenchFigure[];
    const { readings } = judgeAnswer(relay, answer, null, at(unit));
    expect(readings[0]?.after).toBe(figures.find(({ id }) => id === 'crack')?.value);
    expect(readings[0]?.after).toBeCloseTo(crack, 0);
  });

  it('is held to its plate within 1 psi [trade]', () => {
    const judge = (crack: number) =>
      judgeAnswer(relay, curve(crack, ASKED), null, at(plated(4))).verdict;
    expect([3.2, 4, 4.8].map(judge)).toEqual(['pass', 'pass', 'pass']);
    expect([2, 6.5, 9].map(judge)).toEqual(['fail', 'fail', 'fail']);
  });

  it('asks for a point between where the points are too far apart to say', () => {
    const coarse = judgeAnswer(relay, curve(9, [4, 20, 40, 60]), null, at(plated(4)));
    expect(coarse).toMatchObject({ verdict: 'cant-tell' });
    expect(coarse.said).toContain('12 psi');
    expect(crackOf(relay, curve(9, [20, 40, 60]), plated(4))).toBeNull();
    // One point between, and it says.
    expect(judgeAnswer(relay, curve(9, [4, 8, 12, 20, 40, 60]), null, at(plated(9))).verdict).toBe(
      'pass',
    );
  });

  it('goes by the way up: friction holds more on the way down', () => {
    const down: CheckAnswer = {
      kind: 'points',
      compared: true,
      points: [...ASKED.map((x) => [x, Math.max(0, x - 4)] as const), [20, 19], [6, 5], [0, 0]],
    };
    expect(crackOf(relay, down)).toBeCloseTo(4, 0);
  });

  it('that two gauges which were never compared put outside is read again, not failed', () => {
    const off = { ...curve(5.5, ASKED), compared: false } as CheckAnswer;
    expect(judgeAnswer(relay, off, null, at(plated(4)))).toMatchObject({
      verdict: 'cant-tell',
      said: expect.stringContaining('compare the two gauges') as string,
    });
  });
});
