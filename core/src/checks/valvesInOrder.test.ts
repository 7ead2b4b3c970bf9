import { semi, truck } from '../test/rigsInAir';
import { checksOf } from './catalogue';
import type { Check, CheckAnswer } from './check';
import { figuresOfCheck, valvesOf } from './valves';

/** A check of which only what it does and where counts. */
const made = (id: string, does: string, part = 'rear-relay', unit = 0) =>
  ({ id, unit, part, doing: { does } }) as unknown as Check;
const readOf = (checks: readonly Check[], rig = truck) =>
  valvesOf(rig, checks).map(({ unit, part, checks: own }) => [
    `${unit} ${part}`,
    own.map(({ id }) => id).join(' '),
  ]);

describe('what is read of a valve', () => {
  it('are pairs of ports first, then set points, then how fast it goes, then bubbles', () => {
    const shuffled = [
      made('b', 'bubble'),
      made('t', 'time'),
      made('g', 'governor'),
      made('c1', 'compare'),
      made('s', 'switches'),
      made('c2', 'compare'),
    ];
    expect(readOf(shuffled)).toEqual([['0 rear-relay', 'c1 c2 g s t b']]);
    expect(readOf([...shuffled].reverse())).toEqual([['0 rear-relay', 'c2 c1 s g t b']]);
  });

  it('are its own, by gauge alone; a valve of which nothing is read is none', () => {
    const checks = [
      made('wet', 'wet'),
      made('walk', 'walk'),
      made('foot', 'compare', 'foot-valve'),
      made('towed', 'compare', 'relay', 1),
      made('nowhere', 'compare', 'no-such-part'),
    ];
    expect(readOf(checks)).toEqual([['0 foot-valve', 'foot']]);
    expect(readOf(checks, semi)).toEqual([
      ['0 foot-valve', 'foot'],
      ['1 relay', 'towed'],
    ]);
  });

  it('stand as air runs through a unit, the compressor’s end first, whatever order they come in', () => {
    const all = checksOf(semi, []);
    const there = (checks: readonly Check[]) => readOf(checks, semi).map(([valve]) => valve);
    expect(there([...all].reverse())).toEqual(there(all));
    const units = there(all).map((valve) => Number(valve!.split(' ')[0]));
    expect(units).toEqual([...units].sort());
  });
});

describe('the figures of a check', () => {
  const checks = checksOf(truck, []);
  const pair = checks.find(
    ({ doing, answer }) => doing.does === 'compare' && answer.kind === 'points',
  )!;
  const points = (compared?: boolean): CheckAnswer => ({
    kind: 'points',
    points: [0, 10, 20, 30, 40].map((psi) => [psi, Math.max(0, psi - 2)] as const),
    ...(compared === undefined ? {} : { compared }),
  });

  it('are none where the answer is of another kind than was asked for', () => {
    const number: CheckAnswer = { kind: 'number', value: 4 };
    expect(figuresOfCheck(pair, number, undefined)).toBeNull();
    const level = checks.find(({ answer }) => answer.kind === 'number')!;
    expect(figuresOfCheck(level, points(), undefined)).toBeNull();
    expect(figuresOfCheck(level, { kind: 'grade', grade: 'dry' }, undefined)).toBeNull();
  });

  it('are surer where the two gauges were compared first, and not otherwise', () => {
    const sdOf = (compared?: boolean) => {
      const figures = figuresOfCheck(pair, points(compared), undefined);
      if (figures === null || 'wants' in figures) throw new Error('no figures');
      return figures.map(({ sd }) => sd);
    };
    expect(sdOf()).toEqual(sdOf(false));
    const [compared, apart] = [sdOf(true), sdOf(false)];
    expect(compared.some((sd, n) => sd < apart[n]!)).toBe(true);
    expect(compared.every((sd, n) => sd <= apart[n]!)).toBe(true);
  });
});
