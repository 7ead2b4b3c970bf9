import type { Check } from '../checks/check';
import type { Fault } from '../twin/faults/fault';
import type { WouldAnswer } from './likelihood';
import { meaningsOf, nextCheck } from './nextCheck';
import type { Ranking } from './ranking';
import type { Weighing } from './weigh';

/* A world of a few causes, made by hand, so that what a check buys is known in closed form: the mutual information of
   its answer and the cause (Shannon 1948), in nats. */

const nats = (...chances: number[]) =>
  -chances.reduce((sum, p) => sum + (p > 0 ? p * Math.log(p) : 0), 0);

interface MadeCause {
  fault: string | null;
  chance: number;
}
interface MadeCheck {
  id: string;
  minutes?: number;
  state?: { id: string; minutes: number };
  cautions?: number;
  /** Chance of “yes”, by fault; of a sound rig under `sound`. */
  yes: Record<string, number>;
}

const faultOf = (id: string) => ({ id }) as Fault;
const answer = (yes: number): WouldAnswer => ({
  mean: 0,
  shift: 0,
  unsure: 0,
  chances: { yes, no: 1 - yes },
});

function world(causes: readonly MadeCause[], checks: readonly MadeCheck[] = []) {
  const made = checks.map(({ id, minutes = 4, state, cautions = 0 }) => ({
    id,
    minutes,
    state: state ?? { id: 'parked', minutes: 0 },
    cautions: Array.from({ length: cautions }, () => 'take care'),
    answer: { kind: 'choice' },
  })) as unknown as Check[];
  // Whoever answers like a sound rig answers with the very same object, as the weighing hands it out.
  const still = new Map(checks.map(({ id, yes }) => [id, answer(yes.sound ?? 0)]));
  const weighing = {
    evidence: [],
    weighed: causes.map(({ fault, chance }) => ({
      chance,
      cause: fault
        ? { kind: 'fault', fault: faultOf(fault), severity: 0.7 }
        : { kind: 'sound', fault: null },
    })),
    model: {
      checks: made,
      checkById: new Map(made.map((each) => [each.id, each])),
      answersTo: () => [],
    },
    wouldAnswer: (check: Check, fault: Fault | null) => {
      const { yes } = checks.find(({ id }) => id === check.id)!;
      const chance = fault ? yes[fault.id] : undefined;
      return chance === undefined ? still.get(check.id)! : answer(chance);
    },
  } as unknown as Weighing;
  const ranking: Ranking = {
    suspects: causes
      .filter(({ fault }) => fault !== null)
      .map(({ fault, chance }) => ({ faults: [faultOf(fault!)], chance, severity: 0.7 })),
    sound: causes.reduce((sum, { fault, chance }) => sum + (fault === null ? chance : 0), 0),
    reader: 0,
    unlisted: 0,
    two: { chance: 0, faults: [] },
  };
  return { weighing, ranking };
}

const asked = (
  causes: readonly MadeCause[],
  checks: readonly MadeCheck[] = [],
  options: Parameters<typeof nextCheck>[1] = {},
  change: Partial<Ranking> = {},
) => {
  const { weighing, ranking } = world(causes, checks);
  return nextCheck(weighing, options, { ...ranking, ...change });
};

const three = [
  { fault: 'a', chance: 0.4 },
  { fault: 'b', chance: 0.4 },
  { fault: null, chance: 0.2 },
];

describe('what a check buys', () => {
  it('is the entropy of its answer, where each cause answers always the same', () => {
    const next = asked(three, [{ id: 'listen', yes: { a: 1, b: 0 } }]);
    expect(next).toMatchObject({ next: 'check', best: { check: { id: 'listen' } } });
    if (next.next === 'check') expect(next.best.gain).toBeCloseTo(nats(0.4, 0.6), 9);
  });

  it('is the mutual information, where answers err', () => {
    const next = asked(three, [{ id: 'listen', yes: { a: 0.9, b: 0.2, sound: 0.1 } }]);
    const yes = 0.4 * 0.9 + 0.4 * 0.2 + 0.2 * 0.1;
    const noise = 0.4 * nats(0.9, 0.1) + 0.4 * nats(0.2, 0.8) + 0.2 * nats(0.1, 0.9);
    if (next.next !== 'check') throw new Error(next.next);
    expect(next.best.gain).toBeCloseTo(nats(yes, 1 - yes) - noise, 9);
  });

  it('is nothing where all answer alike, and such a check is not asked for', () => {
    expect(asked(three, [{ id: 'look', yes: {} }])).toEqual({ next: 'open' });
  });

  it('is nothing for what parts two faults that count as one', () => {
    const { weighing, ranking } = world(three, [{ id: 'listen', yes: { a: 1, b: 0, sound: 0.5 } }]);
    const one = [{ faults: [faultOf('a'), faultOf('b')], chance: 0.8, severity: 0.7 }];
    const next = nextCheck(weighing, {}, { ...ranking, suspects: one });
    const apart = asked(three, [{ id: 'listen', yes: { a: 1, b: 0, sound: 0.5 } }]);
    if (apart.next !== 'check') throw new Error(apart.next);
    // What is left of it: nothing is learnt of the group, and a sound rig answers as the group does on the whole.
    expect(next).toEqual({ next: 'found' });
    expect(apart.best.gain).toBeGreaterThan(0.5);
  });
});

describe('which check comes next', () => {
  const same = { a: 1, b: 0 };
  it('is the one that buys more', () => {
    const next = asked(three, [
      { id: 'weak', yes: { a: 0.6, b: 0.4, sound: 0.5 } },
      { id: 'strong', yes: same },
    ]);
    expect(next).toMatchObject({ next: 'check', best: { check: { id: 'strong' } } });
  });

  it('is the quicker of two that buy the same, the way into its state counted', () => {
    const checks = [
      { id: 'far', yes: same, minutes: 4, state: { id: 'raised', minutes: 9 } },
      { id: 'near', yes: same, minutes: 8 },
    ];
    expect(asked(three, checks)).toMatchObject({ best: { check: { id: 'near' }, minutes: 8 } });
    // Where the rig stands in that state already, nothing is paid for it.
    expect(asked(three, checks, { state: 'raised' as never })).toMatchObject({
      best: { check: { id: 'far' }, minutes: 4 },
    });
  });

  it('is the safer of two that are alike', () => {
    const next = asked(three, [
      { id: 'under it', yes: same, cautions: 3 },
      { id: 'from the cab', yes: same },
    ]);
    expect(next).toMatchObject({ best: { check: { id: 'from the cab' } } });
  });

  it('is none that was made already or cannot be made now', () => {
    const checks = [
      { id: 'done', yes: same },
      { id: 'left', yes: { a: 0.8, b: 0.2 } },
    ];
    expect(asked(three, checks, { without: ['done'] })).toMatchObject({
      best: { check: { id: 'left' } },
    });
    const { weighing, ranking } = world(three, checks);
    const answered = { ...weighing, evidence: [{ kind: 'answer', checkId: 'done' }] };
    expect(nextCheck(answered as unknown as Weighing, {}, ranking)).toMatchObject({
      best: { check: { id: 'left' } },
      others: [],
    });
  });

  it('names six others at most', () => {
    const many = Array.from({ length: 12 }, (_, n) => ({ id: `check ${n}`, yes: same }));
    const next = asked(three, many);
    if (next.next !== 'check') throw new Error(next.next);
    expect(next.others).toHaveLength(6);
  });
});

describe('when there is none to make', () => {
  const parting = [{ id: 'listen', yes: { a: 1, b: 0 } }];

  it('a rig is sound from nine in ten on', () => {
    const sound = (chance: number) => [
      { fault: null, chance },
      { fault: 'a', chance: 1 - chance },
    ];
    expect(asked(sound(0.9), parting)).toEqual({ next: 'sound' });
    expect(asked(sound(0.89), parting).next).toBe('check');
  });

  it('a cause is found from nine in ten on, unless two at once are likelier', () => {
    const first = (chance: number) => [
      { fault: 'a', chance },
      { fault: 'b', chance: 1 - chance },
    ];
    expect(asked(first(0.9), parting)).toEqual({ next: 'found' });
    expect(asked(first(0.89), parting).next).toBe('check');
    const two = { chance: 0.5, faults: [faultOf('a'), faultOf('b')] };
    expect(asked(first(0.9), parting, {}, { two }).next).toBe('check');
  });

  it('without a check to make, one of even odds is found, and less leaves it open', () => {
    const first = (chance: number) => [
      { fault: 'a', chance },
      { fault: null, chance: 1 - chance },
    ];
    expect(asked(first(0.5))).toEqual({ next: 'found' });
    expect(asked(first(0.49))).toEqual({ next: 'open' });
  });

  it('a reading is asked for again from even odds on: the one that most likely slipped', () => {
    const { weighing, ranking } = world(three, parting);
    const slips = [
      { cause: { kind: 'reader', which: 'dial' }, chance: 0.1 },
      { cause: { kind: 'reader', which: 'cut-in' }, chance: 0.3 },
      { cause: { kind: 'reader', which: 'cut-out' }, chance: 0.2 },
    ];
    const read = { ...weighing, weighed: [...weighing.weighed, ...slips] } as unknown as Weighing;
    expect(nextCheck(read, {}, { ...ranking, reader: 0.5 })).toEqual({
      next: 'again',
      which: 'cut-in',
    });
    expect(nextCheck(read, {}, { ...ranking, reader: 0.49 }).next).toBe('check');
  });
});

it('says what each answer would mean by Bayes’ rule, the likeliest answer first', () => {
  const { weighing, ranking } = world(three, [
    { id: 'listen', yes: { a: 0.9, b: 0.2, sound: 0.1 } },
  ]);
  const [first, second] = meaningsOf(weighing, weighing.model.checks[0]!, ranking);
  const yes = 0.4 * 0.9 + 0.4 * 0.2 + 0.2 * 0.1;
  expect(first).toMatchObject({ answer: { option: 'no' }, group: 'b' });
  expect(first?.chance).toBeCloseTo((0.4 * 0.8) / (1 - yes), 9);
  expect(second).toMatchObject({ answer: { option: 'yes' }, group: 'a' });
  expect(second?.chance).toBeCloseTo((0.4 * 0.9) / yes, 9);
});
