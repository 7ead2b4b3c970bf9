import type { PartRecord } from '@keen-bleed/contract';
import fc from 'fast-check';
import { airOf } from '../twin/network/airOf';
import { testUnit } from '../test/walk';
import { checkUnit } from './checkUnit';
import {
  fittedRecordOf,
  lineRecordOf,
  partListOf,
  partRecordOf,
  partTitle,
  recordsThatHold,
  unlookedParts,
  withLine,
  withPart,
} from './partList';
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

describe('what was found of a part', () => {
  const at = { unitId: unit.id, partId: 'rear-relay' };
  const DAY_MS = Date.UTC(2026, 10, 27, 23, 30);

  it('is kept with what was said of it alone', () => {
    const said = { at, standing: 'fitted', setPsi: 4, note: 'new', id: 'x', lane: 'y' } as never;
    expect(partRecordOf(said, 5)).toEqual({
      ...{ partId: 'rear-relay', standing: 'fitted', setPsi: 4, note: 'new', foundAtMs: 5 },
    });
  });

  it('of a detail that only some units have is the unit’s own detail, and is forgotten with it', () => {
    const fitted = withPart(unit, found('anti-compounding'));
    expect(fitted.air?.antiCompounding).toBe(true);
    const off = withPart(
      fitted,
      found('anti-compounding', { standing: 'not-fitted', foundAtMs: 2_000 }),
    );
    expect(off.air?.antiCompounding).toBe(false);
    const unknown = withPart(
      off,
      found('anti-compounding', { standing: 'not-known', foundAtMs: 3_000 }),
    );
    expect(unknown.air).toEqual({});
    expect(recordsThatHold(off)).toHaveLength(1);
    expect(recordsThatHold({ ...off, air: { antiCompounding: true } })).toEqual([]);
    expect(recordsThatHold({ ...off, air: {} })).toEqual([]);
    expect(recordsThatHold({ ...unknown, air: {} })).toHaveLength(1);
    expect(recordsThatHold({ parts: [found('dryer')] })).toHaveLength(1);
    // A unit whose details nobody has filled in says nothing against anybody's word.
    const notKnown = found('anti-compounding', { standing: 'not-known' });
    expect(recordsThatHold({ parts: [notKnown, found('anti-compounding')] })).toEqual([notKnown]);
    expect(recordsThatHold({})).toEqual([]);
  });

  it('earlier than what is known changes nothing; at the same moment the later word counts', () => {
    const known = withPart(unit, found('dryer', { note: 'old', foundAtMs: 2_000 }));
    expect(withPart(known, found('dryer', { foundAtMs: 1_999 }))).toBe(known);
    const same = withPart(known, found('dryer', { note: 'new', foundAtMs: 2_000 }));
    expect(same.parts).toMatchObject([{ note: 'new' }]);
    expect(withPart(known, found('relay', { foundAtMs: 1 })).parts).toHaveLength(2);
  });

  it('of a replacement is the new part’s own, in the old one’s place; of a mend what was known stays', () => {
    const draft = {
      parts: [found('rear-relay', { thread: '3/8', place: 'frame' as never, setPsi: 4 })],
    };
    const fact = (repair: string) =>
      ({ at, repair, was: {}, now: { setPsi: 5 }, note: 'dry' }) as never;
    expect(fittedRecordOf(draft, fact('replaced'), DAY_MS)).toEqual({
      ...{ partId: 'rear-relay', standing: 'fitted', place: 'frame', setPsi: 5, note: 'dry' },
      ...{ fittedOn: '2026-11-27', mendedAtMs: DAY_MS, foundAtMs: DAY_MS },
    });
    expect(fittedRecordOf(draft, fact('cleaned'), DAY_MS)).toEqual({
      ...{ partId: 'rear-relay', standing: 'fitted', place: 'frame', thread: '3/8', setPsi: 5 },
      ...{ note: 'dry', mendedAtMs: DAY_MS, foundAtMs: DAY_MS },
    });
    expect(fittedRecordOf({}, fact('cleaned'), DAY_MS)).not.toHaveProperty('place');
  });

  it('is not looked for yet where only some units have it', () => {
    const ids = unlookedParts(unit).map(({ id }) => id);
    expect(ids.length).toBeGreaterThan(0);
    const [first = ''] = ids;
    const seen = { ...unit, ...withPart(unit, found(first)) };
    expect(unlookedParts(seen).map(({ id }) => id)).toEqual(ids.slice(1));
    expect(partListOf(seen).some(({ id }) => id === first)).toBe(true);
    expect(partTitle(unit, 'no-such-part')).toBeNull();
  });
});

describe('what was found of a line', () => {
  const line = (lineId: string, change: object = {}) =>
    ({ lineId, standing: 'fitted', foundAtMs: 1_000, ...change }) as never;

  it('stands as it was last found, each once', () => {
    const one = withLine(unit, line('a'));
    const two = withLine(one, line('b'));
    expect(two.lines).toHaveLength(2);
    const again = withLine(two, line('a', { foundAtMs: 2_000, colour: 'red' }));
    expect(again.lines).toMatchObject([{ lineId: 'b' }, { lineId: 'a', colour: 'red' }]);
    expect(withLine(again, line('a', { foundAtMs: 1_999 }))).toBe(again);
    expect(withLine(again, line('a', { foundAtMs: 2_000, colour: 'blue' })).lines).toHaveLength(2);
  });

  it('is kept with what was said of it alone', () => {
    const said = {
      ...{ at: { unitId: unit.id, lineId: 'a' }, standing: 'fitted', boreMm: 8 },
      ...{ from: { part: 'x', port: 'y' }, lane: 'z' },
    } as never;
    expect(lineRecordOf(said, 7)).toEqual({
      ...{ lineId: 'a', standing: 'fitted', boreMm: 8, from: { part: 'x', port: 'y' } },
      foundAtMs: 7,
    });
  });
});
