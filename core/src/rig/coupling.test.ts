import type { Unit } from '@keen-bleed/contract';
import { testUnit } from '../test/walk';
import { checkCoupling } from './checkCoupling';
import { newUnitDraft } from './newUnit';
import { pedalDropRatio } from './pedalDrop';
import { couplingOf } from './rigUnderTest';
import { rigTitle } from './rigTitle';

const unit = (kind: Unit['kind'], number: string, change: Partial<Unit> = {}) =>
  testUnit({ ...newUnitDraft(kind, 2015), number, name: kind, ...change });
const tractor = unit('tractor', '11');
const trailer = unit('trailer', '22');
const dolly = unit('dolly', '23');
const words = (...units: Unit[]) => checkCoupling(units).map((problem) => problem.message);

describe('coupling', () => {
  it.each([
    ['a truck and a trailer', [unit('truck', '1'), trailer]],
    ['a tractor and a semi-trailer', [tractor, trailer]],
    ['a double with its dolly', [tractor, trailer, dolly, trailer]],
  ])('takes %s', (_name, units) => {
    expect(checkCoupling(units)).toEqual([]);
  });

  it('says what would be right of everything else', () => {
    expect(words(tractor)[0]).toContain('at least one behind it');
    expect(words(trailer, dolly)[0]).toContain('A truck or a tractor goes in front');
    expect(words(unit('bus', '2'), trailer)[0]).toContain('A truck or a tractor goes in front');
    expect(words(tractor, unit('truck', '1'))[0]).toContain('has its own engine');
    expect(words(tractor, trailer, dolly)[0]).toContain('put one behind');
    expect(words(tractor, trailer, trailer, trailer)[0]).toContain('Two trailers are the most');
    expect(words(tractor, unit('trailer', '9', { retiredAtMs: 5 }))[0]).toContain('retired');
  });

  it('counts trailers, and a dolly with the trailer it carries', () => {
    expect(couplingOf({ towed: [] })).toBe('alone');
    expect(couplingOf({ towed: [trailer] })).toBe('one-trailer');
    expect(couplingOf({ towed: [trailer, dolly, trailer] })).toBe('two-trailers');
    expect(rigTitle({ unit: tractor, towed: [trailer] })).toBe('tractor 11 + trailer 22');
  });
});

describe('what a full pedal takes from the tanks', () => {
  it('is the chambers’ share of the volume: 5,600 and 464 in³ leave 92.3 % [calc, Boyle]', () => {
    expect(pedalDropRatio({ unit: testUnit(), towed: [] })).toBeCloseTo(5600 / 6064, 9);
  });

  it('counts the trailers’ tanks and chambers too', () => {
    const both = pedalDropRatio({ unit: testUnit(), towed: [trailer] });
    expect(both).toBeCloseTo((5600 + 2850) / (5600 + 2850 + 464 + 356), 9);
  });
});
