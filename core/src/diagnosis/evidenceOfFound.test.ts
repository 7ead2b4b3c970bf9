import type { FoundAtParts } from '@keen-bleed/contract';
import { evidenceOfFound } from './evidenceOf';
import { runFigures } from './runFigures';

const found = (atMs: number, evidence: FoundAtParts[number]['evidence']): FoundAtParts[number] => ({
  ...{ id: `f${atMs}`, logId: 'v', partId: 'rear-relay', atMs, by: 'Idris', said: '', photos: [] },
  evidence,
});

it('what was found counts as answers, complaints and names, and nothing else does', () => {
  const answer = { kind: 'grade', grade: 'hiss' } as const;
  expect(
    evidenceOfFound([
      found(1, { kind: 'check', checkId: 'c', answer }),
      found(2, { kind: 'complaint', complaintId: 'pulls' }),
      found(3, { kind: 'named', faultId: 'governor low' }),
      found(4, { kind: 'mended', checkId: 'c' }),
      found(5, { kind: 'weather', airC: 3, humidityPct: 80 }),
      found(6, null),
    ]),
  ).toEqual([
    { kind: 'answer', atMs: 1, checkId: 'c', answer },
    { kind: 'complaint', atMs: 2, complaintId: 'pulls' },
    { kind: 'named', atMs: 3, fault: 'governor low' },
  ]);
});

describe('figures of a run on channels', () => {
  it('are differences of two readings where both are there, and single ones as they are', () => {
    const seen = new Map([
      ['loading supply', 118],
      ['loading primary', 111],
      ['cut-out supply', 126],
      ['static from supply', 124],
      ['static to supply', 121.5],
      ['light service', 7],
    ]);
    expect(runFigures(seen)).toMatchObject({
      'supply over primary, loading': 7,
      'supply at cut-out': 126,
      'static supply': 2.5,
      'service at 9 psi': 7,
    });
  });

  it('are not there where one of two readings is not', () => {
    for (const key of ['loading supply', 'loading primary']) {
      expect(runFigures(new Map([[key, 111]]))).not.toHaveProperty([
        'supply over primary, loading',
      ]);
    }
    expect(runFigures(new Map())).toEqual({});
    // A climb that began and did not come to its end was given up.
    expect(runFigures(new Map([['at 85', 3]]))['build-up']).toBeGreaterThan(60);
  });
});
