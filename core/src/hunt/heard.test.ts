import { checksOf } from '../checks/catalogue';
import { semi } from '../test/rigsInAir';
import { budgetOf } from './budget';
import { heardOf, heardRatio, heardThatCounts, USUAL_EARS, type Heard } from './heard';
import { jointsOf } from './joints';
import { seenTable } from './seenTable';

const AMONG = ['a', 'b', 'c', 'd'] as const;
const walk = (place: string | null, atMs = 1): Heard => ({ place, among: AMONG, atMs });

describe('a walk round with an open ear', () => {
  it('says nothing of what no ear hears from two paces, and next to all of what blows', () => {
    expect(heardRatio('a', 0.02, [walk(null)])).toBeCloseTo(1, 1);
    // A tenth is missed: quiet all round is that much likelier with no leak there.
    expect(heardRatio('a', 4, [walk(null)])).toBeCloseTo(USUAL_EARS.missed, 2);
    expect(heardRatio('a', 1, [walk('a')])).toBeGreaterThan(20);
    expect(heardRatio('b', 1, [walk('a')])).toBeLessThan(heardRatio('a', 1, [walk('a')]) / 10);
    expect(heardRatio('elsewhere', 1, [walk('a')])).toBe(1);
  });

  it('gives chances that add up: whatever leaks, somebody says something', () => {
    for (const scfm of [0.05, 0.25, 1]) {
      const strange = (USUAL_EARS.imagined + 0.02) / AMONG.length;
      const named = AMONG.reduce((sum, q) => sum + heardRatio('a', scfm, [walk(q)]) * strange, 0);
      const quiet = heardRatio('a', scfm, [walk(null)]) * (1 - USUAL_EARS.imagined - 0.02);
      expect(named + quiet).toBeCloseTo(1, 9);
    }
  });

  it('counts no more once a leak was found that it was, and the newest of each walk alone', () => {
    const found = { place: 'a', grade: 'stream', atMs: 5, mendedAtMs: null } as const;
    expect(heardThatCounts([walk('a')], [found])).toEqual([]);
    expect(heardThatCounts([walk('b')], [found])).toEqual([]);
    // Mended before anybody listened, it was not what was heard.
    const mended = { ...found, mendedAtMs: 6 };
    expect(heardThatCounts([walk('b', 9)], [mended])).toHaveLength(1);
    expect(heardThatCounts([walk('a', 1), walk(null, 2)], [])).toEqual([walk(null, 2)]);
    // In whatever order they came in.
    expect(heardThatCounts([walk('a', 3), walk(null, 2)], [])).toEqual([walk('a', 3)]);
    // That it was quiet is not explained by a leak: it still speaks against every other.
    expect(heardThatCounts([walk(null)], [found])).toEqual([walk(null)]);
  });

  it('is taken from the catalogue’s walk: a joint by its place, quiet, and no exhaust', () => {
    const check = checksOf(semi, []).find(({ id }) => id === '0/walk/air/released')!;
    if (check.doing.does !== 'walk') throw new Error('no walk');
    const joint = check.doing.spots.find(({ is, at }) => is === 'joints' && at === 'primary tank')!;
    const port = check.doing.spots.find(({ is }) => is === 'port')!;
    const said = (choice: string) => heardOf(check, { kind: 'choice', choice }, 7);
    expect(said(joint.id)).toMatchObject({ place: 'primary tank', atMs: 7 });
    expect(said('nothing')?.place).toBeNull();
    expect(said(port.id)).toBeNull();
    expect(
      heardOf(jointsOf(checksOf(semi, []))[0]!.check, { kind: 'grade', grade: 'dry' }, 1),
    ).toBe(null);
  });

  it('sends the hunt to what was named, where holds leave several joints open', () => {
    const table = seenTable(semi);
    const check = checksOf(semi, []).find(({ id }) => id === '0/walk/air/parked')!;
    if (check.doing.does !== 'walk') throw new Error('no walk');
    const joints = jointsOf(checksOf(semi, []))
      .filter(({ place }) => !table.airless.includes(place))
      .map(({ place }) => ({ place, section: 'all' }));
    const holds = [
      { state: 'parked', needle: 'primary', psiPerMin: 3, deviation: 0.2, atMs: 1 } as const,
    ];
    const spot = check.doing.spots.find(({ at, is }) => is === 'joints' && at === 'primary tank')!;
    const heard = heardOf(check, { kind: 'choice', choice: spot.id }, 1)!;
    const before = budgetOf(table, joints, [], holds).places.get('primary tank')!;
    const after = budgetOf(table, joints, [], holds, { heard: [heard] }).places.get(
      'primary tank',
    )!;
    expect(before).toBeLessThan(0.7);
    expect(after).toBeGreaterThan(0.9);
  });
});
