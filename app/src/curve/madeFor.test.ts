import type { FoundAtParts } from '@keen-bleed/contract';
import { madeUpUnit } from '../test/madeUpUnit';
import { earlierCurves, madeForPsi } from './madeFor';

const unit = {
  ...madeUpUnit(),
  parts: [
    { partId: 'rear-relay', standing: 'fitted' as const, foundAtMs: 1, setPsi: 4 },
    { partId: 'governor', standing: 'fitted' as const, foundAtMs: 1, setPsi: 125 },
  ],
};

describe('what a valve is made to open at', () => {
  it('is what was read off a relay, and nothing of any other part', () => {
    expect(madeForPsi(unit, { part: 'rear-relay' })).toBe(4);
    expect(madeForPsi(unit, { part: 'governor' })).toBeNull();
    expect(madeForPsi(madeUpUnit(), { part: 'rear-relay' })).toBeNull();
    expect(madeForPsi(undefined, { part: 'rear-relay' })).toBeNull();
  });
});

describe('what the same check gave before', () => {
  const entry = (atMs: number, checkId: string, points = true): FoundAtParts[number] => ({
    id: String(atMs),
    logId: 'x',
    partId: 'rear-relay',
    atMs,
    by: 'somebody',
    said: '',
    photos: [],
    evidence: {
      kind: 'check',
      checkId,
      answer: points ? { kind: 'points', points: [[10, atMs]] } : { kind: 'number', value: 1 },
    },
  });

  it('is its three newest curves, whatever else was found', () => {
    const found = [
      entry(1, 'a'),
      entry(3, 'a'),
      entry(2, 'a'),
      entry(4, 'a'),
      entry(9, 'b'),
      entry(8, 'a', false),
      { ...entry(7, 'a'), evidence: null },
    ];
    expect(earlierCurves(found, { id: 'a' }).map(({ atMs }) => atMs)).toEqual([4, 3, 2]);
    expect(earlierCurves([], { id: 'a' })).toEqual([]);
  });
});
