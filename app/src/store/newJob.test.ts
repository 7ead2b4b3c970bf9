/** @jest-environment node */
import type { OpenFailure } from '@keen-bleed/contract';
import { madeUpUnit } from '../test/madeUpUnit';
import { covered, jobByHand, jobOfEntry, jobOfFailure, jobOfSuspect } from './newJob';

const truck = madeUpUnit('truck', { id: 'u1', number: '10' });
const trailer = madeUpUnit('trailer', { id: 'u2', number: '22' });
const units = [truck, trailer] as const;
const failure = (change: Partial<OpenFailure> = {}): OpenFailure => ({
  ...{ key: 'look:couplers/seals', runId: 'r1', sinceMs: 1, unitIds: ['u2', 'elsewhere'] },
  ...{ title: 'Coupler seals', figure: null, said: 'perished' },
  ...change,
});
const fault = (n: number, change: object = {}) => ({
  ...{ id: `f${n}`, part: 'trailer 22 supply line', title: 'its seal leaks', unit: 1 },
  ...{ partId: 'supply-coupler', ...change },
});

describe('failures that a job covers', () => {
  it('are kept with what they read and whether they hold the vehicle, thirty at most', () => {
    expect(covered([failure()])).toEqual([
      {
        runId: 'r1',
        key: 'look:couplers/seals',
        title: 'Coupler seals',
        value: null,
        critical: false,
      },
    ]);
    const figure = { value: 6.1 } as OpenFailure['figure'];
    expect(covered([failure({ figure, critical: true })])).toMatchObject([
      { value: 6.1, critical: true },
    ]);
    expect(covered(Array.from({ length: 31 }, () => failure()))).toHaveLength(30);
  });

  it('have titles that are cut where a record takes no more', () => {
    const [just] = covered([failure({ title: 'x'.repeat(200) })]);
    expect(just?.title).toBe('x'.repeat(200));
    const [long] = covered([failure({ title: 'x'.repeat(201) })]);
    expect(long?.title).toBe(`${'x'.repeat(199)}…`);
  });
});

describe('a new job', () => {
  it('of a failure is on those of its units that are here, else on the one in front', () => {
    expect(jobOfFailure(failure(), units, 'rig')).toMatchObject({
      ...{ units, rigId: 'rig', foundOn: ['u2'], suspected: null },
      bornOf: { kind: 'failure', runId: 'r1', key: 'look:couplers/seals' },
      failures: [{ key: 'look:couplers/seals' }],
    });
    expect(jobOfFailure(failure({ unitIds: ['gone'] }), units, null).foundOn).toEqual(['u1']);
    expect(jobOfFailure(failure(), units, null).found).toContain('Coupler seals');
  });

  it('of a suspect is on the unit of its first fault, with its chance in a hundred', () => {
    const suspect = { faults: [fault(1), fault(2, { unit: 0 })], chance: 0.414 };
    expect(jobOfSuspect(suspect, units, null, [failure()])).toMatchObject({
      foundOn: ['u2'],
      bornOf: { kind: 'suspect', faultIds: ['f1', 'f2'], chance: 0.414 },
      found: 'trailer 22 supply line: its seal leaks, 41 in 100',
      suspected: { unitId: 'u2', partId: 'supply-coupler', chance: 0.414 },
      failures: [{ runId: 'r1' }],
    });
    const many = { faults: Array.from({ length: 14 }, (_, n) => fault(n)), chance: 1 };
    const { bornOf } = jobOfSuspect(many, units, null, []);
    expect(bornOf.kind === 'suspect' && bornOf.faultIds).toHaveLength(12);
    const off = jobOfSuspect({ faults: [fault(1, { unit: 9 })], chance: 1 }, units, null, []);
    expect(off.foundOn).toEqual(['u1']);
    expect(jobOfSuspect({ faults: [], chance: 0.5 }, units, null, [])).toMatchObject({
      ...{ foundOn: ['u1'], suspected: null, found: ': , 50 in 100' },
    });
  });

  it('of an entry is on its unit; by hand on the one in front; words are cut at three hundred', () => {
    const entry = { id: 'e', text: 'y'.repeat(301), unitId: 'u2' };
    expect(jobOfEntry(entry, 'log', units, null)).toMatchObject({
      ...{ foundOn: ['u2'], bornOf: { kind: 'entry', logId: 'log', factId: 'e' } },
      ...{ found: `${'y'.repeat(299)}…`, failures: [], suspected: null },
    });
    expect(jobByHand('It blows', units, 'rig')).toMatchObject({
      ...{ foundOn: ['u1'], bornOf: { kind: 'hand' }, found: 'It blows', rigId: 'rig' },
      ...{ failures: [], suspected: null },
    });
  });
});
