import { doubtsOf } from './doubtsOf';
import type { RunState } from './runState';

type Mark = readonly [stepId: string, key: string, atS: number, readingPsi: number];

/** A run of which nothing is known but its marks, where it stands, and the holds that ended by the clock. */
const state = (
  marks: readonly Mark[],
  { step = null, over = {} }: { step?: string | null; over?: Record<string, number> } = {},
) =>
  ({
    marks: marks.map(([stepId, key, atS, readingPsi]) => ({
      stepId,
      key,
      atMs: atS * 1_000,
      readingPsi,
    })),
    step: step && { id: step },
    holdsOver: new Map(Object.entries(over).map(([id, atS]) => [id, atS * 1_000])),
  }) as unknown as RunState;

const steps = (...of: Parameters<typeof state>) =>
  doubtsOf(state(...of), 'psi').map(({ stepId }) => stepId);

/** A static and an applied hold, each with its length and its fall over that. */
const held = (
  [staticS, staticPsi]: readonly [number, number],
  [appliedS, appliedPsi]: readonly [number, number],
): Mark[] => [
  ['static-hold', 'start', 0, 120],
  ['static-hold', 'end', staticS, 120 - staticPsi],
  ['applied-hold', 'start', 500, 100],
  ['applied-hold', 'end', 500 + appliedS, 100 - appliedPsi],
];

describe('a build-up that took no time', () => {
  it('is one of less than three seconds', () => {
    const took = (s: number) =>
      steps([
        ['build-up', 'from', 10, 85],
        ['build-up', 'to', 10 + s, 100],
      ]);
    expect(took(2.9)).toEqual(['build-up']);
    expect(took(3)).toEqual([]);
    expect(steps([['build-up', 'to', 1, 100]])).toEqual([]);
  });
});

describe('a cut-out that is too high', () => {
  it('is one above 140 psi, said in the gauge’s unit', () => {
    expect(steps([['cut-out', 'cut-out', 1, 140]])).toEqual([]);
    expect(doubtsOf(state([['cut-out', 'cut-out', 1, 141]]), 'kPa')).toMatchObject([
      {
        stepId: 'cut-out',
        what: expect.stringContaining('climbed to 972 kPa') as string,
        remedy: expect.stringContaining('stop the engine') as string,
      },
    ]);
  });
});

describe('a leak that is larger with the pedal up', () => {
  it('is doubted from 2 psi/min more on', () => {
    expect(steps(held([60, 4], [60, 2]))).toEqual(['applied-hold']);
    expect(steps(held([60, 3.9], [60, 2]))).toEqual([]);
    expect(doubtsOf(state(held([60, 4], [60, 1])), 'psi')[0]?.what).toContain(
      'pedal down it fell by 1 psi a minute, with the pedal up by 4 psi',
    );
  });

  it('is compared from half a minute of each on', () => {
    expect(steps(held([30, 5], [30, 0]))).toEqual(['applied-hold']);
    expect(steps(held([29.9, 5], [60, 0]))).toEqual([]);
    expect(steps(held([60, 5], [29.9, 0]))).toEqual([]);
  });

  it('is not looked for while the pedal is still down, or where one hold was not made', () => {
    const both = held([60, 5], [60, 0]);
    expect(steps(both, { step: 'rebuild' })).toEqual(['applied-hold']);
    expect(steps(both, { step: 'applied-hold' })).toEqual([]);
    expect(steps(both.slice(0, 2))).toEqual([]);
    expect(steps(both.slice(2))).toEqual([]);
  });

  it('ends a hold where its clock did: 5 psi in a minute, then nothing for a minute, is 2.5 psi/min', () => {
    const both = held([60, 5], [60, 1]);
    expect(steps(both)).toEqual(['applied-hold']);
    expect(steps(both, { over: { 'static-hold': 120 } })).toEqual([]);
  });
});

describe('two marks that stand the wrong way round', () => {
  it.each([
    ['cut-in', 'cut-in', 'cut-out', 'cut-out'],
    ['warning', 'on', 'cut-in', 'cut-in'],
    ['warning', 'on', 'cut-out', 'cut-out'],
    ['pop-out', 'park', 'cut-in', 'cut-in'],
    ['pop-out', 'park', 'warning', 'on'],
    ['pop-out', 'trailer', 'warning', 'on'],
    ['warning', 'on', 'rebuild', 'off'],
    ['applied-hold', 'start', 'static-hold', 'start'],
    ['reserve', 'after-eight', 'cut-out', 'cut-out'],
  ])('%s %s over %s %s is doubted, level with it is not', (low, lowKey, high, highKey) => {
    const read = (psi: number) =>
      steps([
        [low, lowKey, 1, psi],
        [high, highKey, 2, 90],
      ]);
    expect(read(91)).toEqual([low]);
    expect(read(90)).toEqual([]);
  });

  it('are said once for each mark', () => {
    expect(
      doubtsOf(
        state([
          ['warning', 'on', 1, 130],
          ['cut-in', 'cut-in', 2, 100],
          ['cut-out', 'cut-out', 3, 120],
        ]),
        'psi',
      ).map(({ what }) => what),
    ).toEqual(['The warning was marked above cut-in: 130 psi against 100 psi.']);
  });
});
