import type { Procedure } from '../procedure/procedure';
import { heatAtStart } from './heatBefore';
import type { LiveMark } from './runState';

const HOLD = {
  kind: 'hold',
  settle: { key: 'settled' },
  start: { key: 'start' },
  end: { key: 'end' },
  other: { start: { key: 'other-start' }, end: { key: 'other-end' } },
};
const level = (key: string, figure: string, by?: string) => ({
  ...{ kind: 'level', key, figure },
  ...(by ? { by } : {}),
});
/** A climb, a governor, a step with a mark of its own gauge beside one of the run's, and two holds. */
const procedure = {
  steps: [
    {
      id: 'climb',
      act: { kind: 'marks' },
      reckon: [{ kind: 'build-up', fromKey: 'from', toKey: 'to' }],
    },
    { id: 'top', act: { kind: 'marks' }, reckon: [level('cut-out', 'cut-out')] },
    {
      id: 'both',
      act: { kind: 'marks' },
      reckon: [level('lamps', 'stop-lamp', 'pedal'), level('warning', 'warning')],
    },
    { id: 'one', act: HOLD, reckon: [] },
    { id: 'two', act: HOLD, reckon: [] },
  ],
} as unknown as Procedure;

type Made = readonly [stepId: string, key: string, atS: number, readingPsi: number, more?: object];
const marksOf = (made: readonly Made[]) =>
  made.map(([stepId, key, atS, readingPsi, more]) => ({
    ...{ stepId, key, readingPsi, atMs: atS * 1_000, ...more },
  })) as unknown as LiveMark[];
const stepOf = (id: string) => procedure.steps.find((step) => step.id === id) as never;
/** The fall that heat is still to make at a hold's start, by the usual time constant, psi. */
const heat = (hold: string, ...made: Made[]) =>
  heatAtStart(procedure, marksOf(made), stepOf(hold))?.(32).meanPsi ?? null;

const CLIMB: Made[] = [
  ['climb', 'from', 0, 85],
  ['climb', 'to', 25, 100],
  ['top', 'cut-out', 60, 120],
];
const start: Made = ['one', 'start', 70, 119];

describe('the heat that is still in the air as a hold begins', () => {
  it('is of a climb, the more the sooner after it; of a fall it is cold', () => {
    const soon = heat('one', ...CLIMB, start)!;
    const later = heat('one', ...CLIMB, ['one', 'start', 160, 119])!;
    expect(soon).toBeGreaterThan(1);
    expect(later).toBeGreaterThan(0);
    // From e^(−Δt/τ): 90 s later a sixteenth is left of what 32 s make an e-th.
    expect(later / soon).toBeCloseTo(Math.exp(-90 / 32), 1);
    expect(heat('one', ['top', 'cut-out', 0, 120], ['one', 'start', 10, 90])!).toBeLessThan(0);
  });

  it('is none before a hold has begun, and counts on from where it settled', () => {
    expect(heat('one', ...CLIMB)).toBeNull();
    const settling = heat('one', ...CLIMB, ['one', 'settled', 70, 119])!;
    const begun = heat('one', ...CLIMB, ['one', 'settled', 70, 119], ['one', 'start', 130, 119])!;
    expect(settling).toBeCloseTo(heat('one', ...CLIMB, start)!, 9);
    expect(begun / settling).toBeCloseTo(Math.exp(-60 / 32), 6);
  });

  it('hears nothing of another gauge, nor of what nobody set', () => {
    const plain = heat('one', ...CLIMB, start);
    const pedal: Made = ['both', 'lamps', 65, 6];
    expect(heat('one', ...CLIMB, pedal, start)).toBe(plain);
    expect(heat('one', ...CLIMB, ['top', 'cut-in', 65, 10, { suggested: true }], start)).toBe(
      plain,
    );
    // The needle itself, read in the same step, counts.
    expect(heat('one', ...CLIMB, ['both', 'warning', 65, 60], start)).not.toBe(plain);
    // Of a hold the second gauge does not, the first does.
    const held = (key: string): Made => ['one', key, 65, 40];
    const at: Made = ['two', 'start', 70, 119];
    const before = heat('two', ...CLIMB, at);
    expect(heat('two', ...CLIMB, held('other-start'), at)).toBe(before);
    expect(heat('two', ...CLIMB, held('other-end'), at)).toBe(before);
    expect(heat('two', ...CLIMB, held('end'), at)).not.toBe(before);
  });

  it('is not made by the slow fall of a hold, and is by what comes between two', () => {
    const first: Made[] = [start, ['one', 'end', 400, 112]];
    const second = (readingPsi: number): Made => ['two', 'start', 405, readingPsi];
    const level = heat('two', ...CLIMB, ...first, second(112))!;
    // A fall of 7 psi within the hold leaves nothing; a pedal that took 15 right after it does.
    expect(Math.abs(level)).toBeLessThan(0.1);
    expect(heat('two', ...CLIMB, ...first, second(97))!).toBeLessThan(-1);
  });
});
