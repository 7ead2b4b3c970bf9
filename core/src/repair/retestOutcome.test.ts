import type { Figure, Finding, JobReading, Outcome } from '@keen-bleed/contract';
import { NOT_DONE_SAID } from '../run/findingsOf';
import { retestOutcome, sayReading, shortOf } from './retestOutcome';

const figure = (change: Partial<Figure> = {}): Figure =>
  ({
    ...{ id: 'static-leak', stepId: 'hold', value: 2, read: 2, atMost: null, unit: 'psi/min' },
    ...{ limit: { min: null, max: 3 }, verdict: 'pass', asRead: 'pass', heads: 'how-sure' },
    ...change,
  }) as Figure;
const finding = (change: Partial<Finding> = {}): Finding =>
  ({
    ...{ stepId: 'hold', key: 'soap', title: 'Soap', said: 'dry', standing: 'good' },
    ...change,
  }) as Finding;
const run = (change: Partial<Outcome> = {}) =>
  ({ figures: [], findings: [], skipped: [], ...change }) as unknown as Outcome;
const verdictOf = (change: Partial<Outcome>) => retestOutcome(run(change), 'hold')?.verdict;

describe('what a run says of a step that was owed', () => {
  it('is nothing where the step was skipped, was not in it, or was not done', () => {
    expect(retestOutcome(run({ figures: [figure({ stepId: 'other' })] }), 'hold')).toBeNull();
    expect(
      retestOutcome(
        run({ figures: [figure()], skipped: [{ stepId: 'hold' }] as Outcome['skipped'] }),
        'hold',
      ),
    ).toBeNull();
    expect(
      retestOutcome(
        run({ figures: [figure()], skipped: [{ stepId: 'other' }] as Outcome['skipped'] }),
        'hold',
      ),
    ).not.toBeNull();
    expect(retestOutcome(run({ findings: [finding({ said: NOT_DONE_SAID })] }), 'hold')).toBeNull();
    expect(retestOutcome(run({ findings: [finding({ stepId: 'other' })] }), 'hold')).toBeNull();
  });

  it('fails by any figure or look, cannot be told while one cannot, and passes otherwise', () => {
    const fail = figure({ id: 'cut-out', verdict: 'fail', asRead: 'fail' });
    const open = figure({ id: 'cut-in', verdict: 'cant-tell' });
    expect(verdictOf({ figures: [figure(), open, fail] })).toBe('fail');
    expect(verdictOf({ figures: [figure(), open] })).toBe('cant-tell');
    expect(verdictOf({ figures: [figure()] })).toBe('pass');
    expect(verdictOf({ figures: [open], findings: [finding({ standing: 'bad' })] })).toBe('fail');
    expect(verdictOf({ figures: [figure()], findings: [finding({ standing: 'noted' })] })).toBe(
      'pass',
    );
    const left = finding({ key: 'seals', title: 'Seals', said: NOT_DONE_SAID });
    expect(
      retestOutcome(run({ figures: [figure()], findings: [finding(), left] }), 'hold'),
    ).toMatchObject({ verdict: 'cant-tell', said: 'Seals: not done' });
  });

  it('goes by the view that heads the run', () => {
    const asRead = figure({ heads: 'as-read', asRead: 'fail', verdict: 'cant-tell' });
    expect(verdictOf({ figures: [asRead] })).toBe('fail');
    expect(verdictOf({ figures: [{ ...asRead, heads: 'how-sure' }] })).toBe('cant-tell');
  });

  it('says what decided it', () => {
    const said = (change: Partial<Outcome>) => retestOutcome(run(change), 'hold')?.said;
    expect(said({ figures: [figure()] })).toBe('Static leak 2 psi/min, allowed at most 3');
    expect(said({ findings: [finding({ standing: 'bad', said: 'foams' })] })).toBe('Soap: foams');
    expect(said({ findings: [finding(), finding({ title: 'Seals', said: 'sound' })] })).toBe(
      'Soap: dry. Seals: sound',
    );
    const many = Array.from({ length: 60 }, () => finding());
    expect(said({ findings: many })).toHaveLength(300);
    const bar = retestOutcome(run({ figures: [figure()] }), 'hold', [], {}, 'bar');
    expect(bar?.said).toContain('bar/min');
  });

  it('shows each figure that was read before, after, and as a sound rig reads it; twelve at most', () => {
    const one = retestOutcome(
      run({ figures: [figure(), figure({ id: 'cut-out', unit: 'psi', value: null })] }),
      'hold',
      [
        { id: 'cut-in', value: 9 },
        { id: 'static-leak', value: 6 },
        { id: 'static-leak', value: 7 },
      ],
      { 'static-leak': 0.4 },
    );
    expect(one?.readings).toEqual([
      { title: 'Static leak', unit: 'psi/min', before: 6, after: 2, expected: 0.4 },
    ]);
    expect(retestOutcome(run({ figures: [figure()] }), 'hold')?.readings).toMatchObject([
      { before: null, expected: null },
    ]);
    const many = Array.from({ length: 20 }, () => figure());
    expect(retestOutcome(run({ figures: many }), 'hold')?.readings).toHaveLength(12);
  });
});

describe('a reading that passes and is still too much', () => {
  const reading = (change: Partial<JobReading> = {}): JobReading => ({
    ...{ title: 'Static leak', unit: 'psi/min', before: 6, after: 2, expected: 0.9 },
    ...change,
  });

  it('is a leak of more than 1 psi/min over a sound rig’s, and nothing else', () => {
    expect(shortOf([reading()])).toHaveLength(1);
    expect(shortOf([reading({ expected: 1 })])).toEqual([]);
    expect(shortOf([reading({ unit: 'psi' })])).toEqual([]);
    expect(shortOf([reading({ after: null }), reading({ expected: null })])).toEqual([]);
  });
});

describe('a reading in words', () => {
  it('is in the unit that was chosen where it is a pressure, and to a tenth where it is none', () => {
    expect(sayReading(3, 'psi/min', 'psi')).toBe('3 psi/min');
    expect(sayReading(100, 'psi', 'kPa')).toBe('689 kPa');
    expect(sayReading(3, 'psi/min', 'bar')).toBe('0.21 bar/min');
    expect(sayReading(12.34, 's', 'kPa')).toBe('12.3 s');
  });
});
