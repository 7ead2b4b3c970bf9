import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { unitOf } from '../../../test/walk';
import { unitsOfHeader } from '../../unitsOfHeader';
import { sayEntry } from './sayEntry';
import { photosOf, type VisitEntry } from './visitKind';
import { visitRows } from './visitRows';

const truck = unitOf('truck', '10');
const trailer = unitOf('trailer', '22');
const header = { kind: 'visit', made: { units: [truck, trailer] } } as unknown as VisitHeader;
const AT_MS = Date.UTC(2026, 10, 27, 9, 30);
const fact = (kind: string, change: object = {}) =>
  ({
    ...{ id: 'f1', lane: 'a', seq: 1, atMs: AT_MS, offsetMs: 0, v: 1, kind, text: 'Hisses' },
    ...change,
  }) as unknown as VisitEntry;
const rows = (entries: readonly VisitEntry[], facts: readonly object[] = entries) =>
  visitRows(header, { entries }, facts as VisitFact[], { a: 'Idris' });
const relay = { unitId: truck.id, partId: 'rear-relay' };
const check = (answer: object, change: object = {}) =>
  fact('check', { at: relay, checkId: 'x', title: 'Listen', said: 'A hiss', answer, ...change });
const empty = { answer: '', pointsPsi: '', fromPsi: '', toPsi: '', seconds: '', waterMl: '' };

describe('the entries of a visit as rows', () => {
  it('say when, who, which unit and part, what and what was found', () => {
    expect(rows([fact('seen', { at: relay, standing: 'bad' })])).toEqual([
      {
        ...{ timeUtc: '2026-11-27T09:30:00.000Z', by: 'Idris', unit: '10', part: 'Rear relay' },
        ...{ kind: 'seen', what: 'bad', found: 'Hisses', ...empty },
      },
    ]);
    expect(rows([fact('note', { lane: 'b', at: null })])).toMatchObject([
      { by: '', unit: '', part: '', what: 'Note', found: 'Hisses' },
    ]);
    expect(rows([fact('weather', { unitId: trailer.id })])).toMatchObject([
      { unit: '22', part: '', what: 'Weather' },
    ]);
    expect(rows([fact('note', { at: { unitId: truck.id, partId: 'gone' } })])).toMatchObject([
      { unit: '10', part: 'gone' },
    ]);
    expect(rows([fact('note', { at: { unitId: 'x', partId: 'gone' } })])).toMatchObject([
      { unit: '', part: '' },
    ]);
  });

  it('have a check’s answer by its kind, its points and its water', () => {
    expect(rows([check({ kind: 'number', value: 0 })])).toMatchObject([
      { what: 'Listen', found: 'A hiss', answer: 0, pointsPsi: '', waterMl: '' },
    ]);
    expect(rows([check({ kind: 'grade', grade: 'hiss' })])).toMatchObject([{ answer: 'hiss' }]);
    expect(rows([check({ kind: 'choice', choice: 'in' })])).toMatchObject([{ answer: 'in' }]);
    const points = {
      kind: 'points',
      points: [
        [10, 8],
        [30, 27.5],
      ],
    };
    expect(rows([check(points, { water: { ml: 12 }, note: 'Slowly' })])).toMatchObject([
      { answer: '', pointsPsi: '10:8 30:27.5', waterMl: 12, found: 'A hiss. Slowly' },
    ]);
  });

  it('have what a needle held from, to, and for how long', () => {
    expect(
      rows([fact('held', { unitId: truck.id, fromPsi: 120, toPsi: 118, seconds: 60 })]),
    ).toMatchObject([{ fromPsi: 120, toPsi: 118, seconds: 60, what: 'Held' }]);
  });

  it('are put right where the lane’s clock was found to be off', () => {
    const entry = fact('note', { at: null, offsetMs: null });
    const clock = { ...entry, id: 'c', seq: 2, kind: 'clock', ofLane: 'a', aheadMs: 90_000 };
    expect(rows([entry])).toMatchObject([{ timeUtc: '2026-11-27T09:30:00.000Z' }]);
    expect(rows([entry], [entry, clock])).toMatchObject([{ timeUtc: '2026-11-27T09:28:30.000Z' }]);
    expect(rows([entry], [entry, { ...clock, ofLane: 'b' }])).toMatchObject([
      { timeUtc: '2026-11-27T09:30:00.000Z' },
    ]);
  });
});

describe('an entry in one line', () => {
  it('is headed by what it is, or stands by itself', () => {
    expect(sayEntry(check({ kind: 'choice', choice: 'in' }))).toBe('Listen: A hiss');
    expect(sayEntry(fact('seen', { at: relay, standing: 'bad' }))).toBe('not right: Hisses');
    expect(sayEntry(fact('note', { at: null }))).toBe('Hisses');
    expect(sayEntry(fact('complaint'))).toBe('The driver says: Hisses');
    expect(sayEntry(fact('aside'))).toBe('Seen on the way: Hisses');
  });

  it('has the photos it was given', () => {
    expect(photosOf(fact('seen', { photos: ['p1'] }))).toEqual(['p1']);
    expect(photosOf(fact('note'))).toEqual([]);
  });
});

it('a log is on the units of its header, front to rear', () => {
  expect(unitsOfHeader(header)).toEqual([truck, trailer]);
  expect(unitsOfHeader({ kind: 'run', made: { unit: truck, towed: [trailer] } } as never)).toEqual([
    truck,
    trailer,
  ]);
});
