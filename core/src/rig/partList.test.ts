import type { PartRecord } from '@keen-bleed/contract';
import fc from 'fast-check';
import { airOf } from '../twin/network/airOf';
import { testUnit } from '../test/walk';
import { checkUnit } from './checkUnit';
import { partListOf, partTitle, withPart } from './partList';
import { partsOf } from './partsOf';

const unit = testUnit();
const found = (partId: string, change: Partial<PartRecord> = {}): PartRecord => ({
  partId,
  standing: 'fitted',
  foundAtMs: 1_000,
  ...change,
});
const has = (each: typeof unit, id: string) => partsOf(each).some((part) => part.id === id);

describe('the parts of a unit', () => {
  it('are the usual ones until somebody looks, and a look confirms one', () => {
    const list = partListOf(unit);
    expect(list.map(({ id }) => id)).toEqual(
      partsOf(unit)
        .filter(({ role }) => role !== 'chambers')
        .map(({ id }) => id),
    );
    expect(list.every(({ record }) => record === null)).toBe(true);
    const seen = { ...unit, ...withPart(unit, found('rear-relay', { setPsi: 4 })) };
    const confirmed = partListOf(seen).filter(({ record }) => record !== null);
    expect(confirmed).toMatchObject([{ id: 'rear-relay', record: { setPsi: 4 } }]);
    expect(checkUnit(seen)).toEqual([]);
  });

  it('that are not fitted are in no network, and stay in the list to be found after all', () => {
    const without = {
      ...unit,
      ...withPart(unit, found('modulating-valve', { standing: 'not-fitted' })),
    };
    expect(has(unit, 'modulating-valve')).toBe(true);
    expect(has(without, 'modulating-valve')).toBe(false);
    expect(partListOf(without).some(({ id }) => id === 'modulating-valve')).toBe(true);
    expect(partTitle(without, 'modulating-valve')).toBe('Spring brake modulating valve');
    const partIds = (each: typeof unit) =>
      JSON.stringify(airOf({ unit: each, towed: [] })).includes('modulating');
    expect(partIds(unit)).toBe(true);
    expect(partIds(without)).toBe(false);
    const after = {
      ...without,
      ...withPart(without, found('modulating-valve', { foundAtMs: 2_000 })),
    };
    expect(has(after, 'modulating-valve')).toBe(true);
  });

  it('stand as they were last found, in whatever order it comes in', () => {
    const looks = ['fitted', 'not-fitted', 'not-known', 'fitted'].map((standing, i) =>
      found('anti-compounding', {
        standing: standing as PartRecord['standing'],
        foundAtMs: 1_000 + i,
      }),
    );
    const whole = looks.reduce(withPart, unit);
    fc.assert(
      fc.property(fc.shuffledSubarray(looks, { minLength: looks.length }), (shuffled) => {
        expect(shuffled.reduce(withPart, unit)).toEqual(whole);
      }),
    );
  });

  it('stand once each', () => {
    const twice = { ...unit, parts: [found('dryer'), found('dryer')] };
    expect(checkUnit(twice).map(({ field }) => field)).toEqual(['parts.1.partId']);
  });
});
