import fc from 'fast-check';
import { complaints, saysOf } from '../../diagnosis/complaints';
import { truck } from '../../test/rigsInAir';
import { faultsOf } from './faultsOf';
import { noticedShare } from './noticed';

const faults = faultsOf(truck);
const fault = (id: string) => faults.find((each) => each.id === id)!;

describe('what is noticed of a fault', () => {
  it('is nothing where it is hardly there, all of it where it is bad, and never less for a worse one', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...faults),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (each, one, other) => {
          const [less, more] = [Math.min(one, other), Math.max(one, other)];
          expect(noticedShare(each, less)).toBeLessThanOrEqual(noticedShare(each, more));
          expect(noticedShare(each, 1)).toBe(1);
        },
      ),
    );
    expect(noticedShare(fault('intake blocked'), 0)).toBe(0);
  });

  it('is all of it where a fault is there or is not', () => {
    expect(noticedShare(fault('unloader stuck'), 0)).toBe(1);
    expect(noticedShare(fault('stop lamp dead'), 0.1)).toBe(1);
  });

  it('makes a driver complain of a bad one as before, and of a slight one no more than of a sound rig', () => {
    const slow = complaints.find(({ id }) => id === 'slow-to-build')!;
    const worn = fault('compressor worn');
    expect(saysOf(slow, worn)).toBe(0.6);
    expect(saysOf(slow, worn, 0.02)).toBe(saysOf(slow, null));
    expect(saysOf(slow, worn, 0.3)).toBeGreaterThan(saysOf(slow, null));
  });
});
