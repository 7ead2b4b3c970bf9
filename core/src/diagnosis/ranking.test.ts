import type { Check } from '../checks/check';
import type { Fault } from '../twin/faults/fault';
import type { WouldAnswer } from './likelihood';
import { faultChances, rankingOf, tellsApart } from './ranking';
import type { Weighing } from './weigh';

const faultOf = (id: string) => ({ id }) as Fault;
const choice = { answer: { kind: 'choice' } } as unknown as Check;
const said = (chances: Record<string, number>): WouldAnswer => ({
  mean: 0,
  shift: 0,
  unsure: 0,
  chances,
});

describe('how far a check tells two causes apart', () => {
  /** The divergence of Jeffreys (1946): of Kullback and Leibler's, both ways. */
  const jeffreys = (p: readonly number[], q: readonly number[]) =>
    p.reduce((sum, each, n) => sum + (each - q[n]!) * Math.log(each / q[n]!), 0);

  it('is Jeffreys’ divergence of what they would answer', () => {
    const p = { none: 0.7, some: 0.2, much: 0.1 };
    const q = { none: 0.1, some: 0.3, much: 0.6 };
    const expected = jeffreys(Object.values(p), Object.values(q));
    expect(tellsApart(choice, said(p), said(q), 1)).toBeCloseTo(expected, 12);
    expect(tellsApart(choice, said(q), said(p), 1)).toBeCloseTo(expected, 12);
    expect(tellsApart(choice, said(p), said(p), 1)).toBe(0);
  });

  it('is much, and not without bound, where one gives an answer that the other never gives', () => {
    const apart = tellsApart(choice, said({ yes: 1 }), said({ no: 1 }), 1);
    expect(apart).toBeCloseTo(2 * (1 - 1e-3) * Math.log(1e3), 9);
  });

  it('is the squared distance in deviations, where a number is read', () => {
    const number = {
      answer: { kind: 'number', error: 1, spread: 0, resolution: 0 },
    } as unknown as Check;
    const at = (mean: number): WouldAnswer => ({ mean, shift: 0, unsure: 0, chances: {} });
    // Of two normal laws of one deviation: (μ₁ − μ₂)²/σ².
    expect(tellsApart(number, at(10), at(13), 0)).toBeCloseTo(9, 12);
    expect(tellsApart(number, at(13), at(10), 0)).toBeCloseTo(9, 12);
    // A sound rig's own spread counts beside the reader's error.
    expect(tellsApart(number, at(10), at(13), Math.sqrt(3))).toBeCloseTo(9 / 4, 12);
    // A dial of coarse divisions: a uniform law's deviation is its width over √12.
    const coarse = {
      answer: { kind: 'number', error: 0, spread: 0, resolution: 6 },
    } as unknown as Check;
    expect(tellsApart(coarse, at(10), at(13), 0)).toBeCloseTo(9 / 3, 12);
  });
});

type Weighed = Weighing['weighed'];
const weighed = [
  { chance: 0.3, cause: { kind: 'fault', fault: faultOf('a'), severity: 0.4 } },
  { chance: 0.1, cause: { kind: 'fault', fault: faultOf('a'), severity: 0.8 } },
  { chance: 0.2, cause: { kind: 'fault', fault: faultOf('b'), severity: 1 } },
  {
    chance: 0.15,
    cause: { kind: 'pair', faults: [faultOf('a'), faultOf('c')], severities: [0.6, 0.2] },
  },
  {
    chance: 0.05,
    cause: { kind: 'pair', faults: [faultOf('b'), faultOf('c')], severities: [1, 1] },
  },
  { chance: 0.08, cause: { kind: 'sound' } },
  { chance: 0.07, cause: { kind: 'reader', which: 'dial' } },
  { chance: 0.05, cause: { kind: 'unlisted' } },
] as unknown as Weighed;

/** Looks that answer “yes” for some faults alone. */
function looking(...checks: readonly (readonly string[])[]): Weighing {
  const made = checks.map((shown) => ({
    shown,
    doing: { does: 'look' },
    answer: { kind: 'choice' },
  }));
  return {
    weighed,
    model: { checks: made },
    wouldAnswer: ({ shown }: { shown: readonly string[] }, fault: Fault | null) =>
      said(fault && shown.includes(fault.id) ? { yes: 1 } : { no: 1 }),
  } as unknown as Weighing;
}

describe('a ranking', () => {
  it('gives each fault its chances alone and beside another, and how bad it would be on the whole', () => {
    const found = faultChances(looking());
    expect([...found.keys()]).toEqual(['a', 'b', 'c']);
    expect(found.get('a')?.chance).toBeCloseTo(0.55, 12);
    expect(found.get('a')?.severity).toBeCloseTo((0.3 * 0.4 + 0.1 * 0.8 + 0.15 * 0.6) / 0.55, 12);
    expect(found.get('c')?.chance).toBeCloseTo(0.2, 12);
  });

  it('puts the likeliest first, and says what is no fault of the list', () => {
    const ranking = rankingOf(looking(['a'], ['b'], ['c']));
    expect(ranking.suspects.map(({ faults }) => faults.map(({ id }) => id))).toEqual([
      ['a'],
      ['b'],
      ['c'],
    ]);
    expect(ranking.sound).toBeCloseTo(0.08, 12);
    expect(ranking.reader).toBeCloseTo(0.07, 12);
    expect(ranking.unlisted).toBeCloseTo(0.05, 12);
    expect(ranking.two.chance).toBeCloseTo(0.2, 12);
    expect(ranking.two.faults.map(({ id }) => id)).toEqual(['a', 'c']);
  });

  it('puts together what no check tells apart, under the likelier of them', () => {
    const { suspects } = rankingOf(looking(['a', 'c'], ['b']));
    expect(suspects.map(({ faults }) => faults.map(({ id }) => id))).toEqual([['a', 'c'], ['b']]);
    expect(suspects[0]?.chance).toBeCloseTo(0.75, 12);
  });

  it('puts nothing together that no check shows at all: there it has nothing to go by', () => {
    const { suspects } = rankingOf(looking(['b']));
    expect(suspects).toHaveLength(3);
  });

  it('tells two apart by any one check', () => {
    const { suspects } = rankingOf(looking(['a', 'c'], ['c'], ['b']));
    expect(suspects).toHaveLength(3);
  });
});
