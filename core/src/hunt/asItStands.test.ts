import { checksOf } from '../checks/catalogue';
import { faultsOf } from '../twin/faults/faultsOf';
import { airOf } from '../twin/network/airOf';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { truck } from '../test/rigsInAir';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import { budgetOf, type Budget, type Hold, type Wetted } from './budget';
import { heardOf, heardRatio } from './heard';
import { beforeAfter, huntOf, type HuntEvent } from './huntOf';
import { jointsOf } from './joints';
import { losesAir } from './losesAir';
import { scfmOfFall, seenTable, type SeenTable } from './seenTable';

/*
 * Hunts as they are reckoned: budgets on a table made by hand, tables and joints of rigs of every sort. No proof that they
 * are right, which Boyle's law beside and the made-up rigs of the bench give, but none of it changes unseen.
 */
const HOUR_MS = 3_600_000;
const TABLE: SeenTable = {
  rows: [
    { state: 'released', needle: 'primary', tank: 'p' },
    { state: 'released', needle: 'secondary', tank: 's' },
    { state: 'applied', needle: 'primary', tank: 'p' },
    { state: 'applied', needle: 'secondary', tank: 's' },
  ],
  falls: {
    ...{ p: [8, 0, 8, 0], s: [0, 8, 0, 8], line: [6, 1, 6, 1] },
    ...{ front: [0, 0, 0, 7], rear: [0, 0, 7, 0], shut: [0, 0, 0, 0] },
  },
  tanks: ['p', 's'],
  airless: ['shut'],
};
const PLACES = ['p', 's', 'line', 'front', 'rear'].map((place, n) => ({
  place,
  section: n < 3 ? 'released 0' : 'applied 0',
}));
const hold = (
  state: Hold['state'],
  needle: Hold['needle'],
  psiPerMin: number,
  atMs = HOUR_MS,
): Hold => ({ state, needle, psiPerMin, deviation: 0.2, atMs });
const wet = (place: string, grade: Wetted['grade'], change: Partial<Wetted> = {}): Wetted => ({
  ...{ place, grade, atMs: HOUR_MS / 2, mendedAtMs: null },
  ...change,
});
const HOLDS = [
  hold('released', 'primary', 2.4),
  hold('released', 'secondary', 0.3),
  hold('applied', 'primary', 4.1),
  hold('applied', 'secondary', 0.4),
];

const number = (of: number) => of.toFixed(3);
const said = ({ lines, chance, where, places, tooMuch, nextHold, closed }: Budget) =>
  [
    ...lines.map(
      ({ state, needle, ...rest }) =>
        `${state} ${needle}: ${Object.entries(rest)
          .map(([key, value]) => `${key} ${number(value)}`)
          .join(', ')}`,
    ),
    `chance ${number(chance)}, closed ${closed}, too much ${JSON.stringify(tooMuch)}, next ${JSON.stringify(nextHold)}`,
    ...where.map((each) => `${each.section} ${number(each.chance)} of ${each.joints}`),
    ...[...places].map(([place, each]) => `${place} ${number(each)}`),
  ].join('\n');

describe('the budget of a hunt', () => {
  const walk = (place: string | null, atMs = HOUR_MS) => ({ place, among: ['p', 'line'], atMs });
  it.each<[string, readonly Wetted[], readonly Hold[], Parameters<typeof budgetOf>[4]]>([
    ['with nothing wetted', [], HOLDS, {}],
    ['with no hold', [], [], {}],
    ['with a leak found', [wet('line', 'stream')], HOLDS, {}],
    ['with a leak mended before', [wet('line', 'stream', { mendedAtMs: HOUR_MS - 1 })], HOLDS, {}],
    ['with a leak mended after', [wet('line', 'stream', { mendedAtMs: HOUR_MS + 1 })], HOLDS, {}],
    ['with dry joints', PLACES.map(({ place }) => wet(place, 'dry')), HOLDS, {}],
    [
      'with dry joints wetted twice',
      [wet('p', 'dry', { times: 2 }), wet('rear', 'dry')],
      HOLDS,
      {},
    ],
    [
      'with soap that misses much',
      [wet('p', 'dry'), wet('rear', 'dry')],
      HOLDS,
      { soapMisses: 0.4 },
    ],
    ['with more found than is lost', [wet('p', 'blown-off'), wet('rear', 'blown-off')], HOLDS, {}],
    ['with old holds', [], [hold('released', 'primary', 9, HOUR_MS - 25 * HOUR_MS), ...HOLDS], {}],
    [
      'with a hold just not too old',
      [],
      [hold('applied', 'primary', 9, -23 * HOUR_MS), HOLDS[0]!],
      {},
    ],
    [
      'with a newer hold of the same',
      [],
      [...HOLDS, hold('released', 'primary', 0.1, 2 * HOUR_MS)],
      {},
    ],
    ['with a needle it has not', [], [hold('released', 'trailer', 4), ...HOLDS], {}],
    ['with a hiss heard', [], HOLDS, { heard: [walk('line')] }],
    ['with nothing heard', [], HOLDS, { heard: [walk(null)] }],
    [
      'with ears that miss',
      [],
      HOLDS,
      { heard: [walk(null)], ears: { missed: 0.8, imagined: 0.3, heardQuietScfm: 2 } },
    ],
    ['with a hiss that is explained', [wet('line', 'stream')], HOLDS, { heard: [walk('line')] }],
    [
      'with grades learnt',
      [wet('line', 'stream')],
      HOLDS,
      { learnt: { stream: { mean: 0.7, deviation: 0.1 } } },
    ],
    [
      'with next to nothing lost',
      PLACES.map(({ place }) => wet(place, 'dry')),
      HOLDS.map((each) => ({ ...each, psiPerMin: 0.1 })),
      {},
    ],
  ])('%s', (_, wetted, holds, options) => {
    expect(said(budgetOf(TABLE, PLACES, wetted, holds, options))).toMatchSnapshot();
  });
});

describe('what a hunt came to', () => {
  const held = (atMs: number, toPsi: number): HuntEvent => ({
    ...{ kind: 'held', state: 'released', needle: 'primary', fromPsi: 120, toPsi, seconds: 90 },
    ...{ readToPsi: 0.5, atMs },
  });

  it('is each joint as it was last seen, and each mend', () => {
    const events: HuntEvent[] = [
      { kind: 'wet', place: 'line', grade: 'stream', atMs: 10 },
      { kind: 'wet', place: 'line', grade: 'stream', atMs: 12 },
      { kind: 'wet', place: 'p', grade: 'dry', atMs: 14 },
      { kind: 'mended', place: 'line', atMs: 20 },
      { kind: 'mended', place: 'p', atMs: 21 },
      { kind: 'mended', place: 'line', atMs: 22 },
      { kind: 'wet', place: 'line', grade: 'dry', atMs: 30 },
      { kind: 'wet', place: 'line', grade: 'dry', atMs: 31 },
      { kind: 'wet', place: 's', grade: 'no such grade', atMs: 40 },
      { kind: 'heard', place: 'p', among: ['p'], atMs: 5 },
      held(3, 117),
      held(50, 119.5),
    ];
    expect(huntOf([...events].reverse())).toEqual(huntOf(events));
    expect(huntOf(events)).toMatchSnapshot();
  });

  it('teaches what a grade was where one leak was mended alone between two holds', () => {
    const hunt = (...mends: [place: string, grade: Wetted['grade'], mendedAtMs: number][]) => ({
      wetted: mends.map(([place, grade, mendedAtMs]) => wet(place, grade, { mendedAtMs })),
      holds: [hold('released', 'primary', 4, 100), hold('released', 'primary', 1, 200)],
    });
    const of = (...mends: [string, Wetted['grade'], number][]) =>
      beforeAfter(TABLE, hunt(...mends));
    // 3 psi/min over 6 psi/min for each scfm.
    expect(of(['line', 'stream', 150])).toEqual([
      { grade: 'stream', scfm: 0.5, deviation: Math.hypot(0.2, 0.2) / 6 },
    ]);
    expect(of(['line', 'stream', 200])).toHaveLength(1);
    expect(of(['line', 'stream', 100])).toEqual([]);
    expect(of(['line', 'stream', 201])).toEqual([]);
    expect(of(['line', 'dry', 150])).toEqual([]);
    expect(of(['front', 'stream', 150])).toEqual([]);
    expect(of(['line', 'stream', 150], ['p', 'film', 160])).toEqual([]);
    expect(of(['line', 'stream', 150], ['front', 'film', 160])).toHaveLength(1);
    expect(of(['unknown', 'stream', 150])).toEqual([]);
  });

  it('is free air, where a tank’s own needle fell', () => {
    expect(scfmOfFall(TABLE, 0, 4)).toBe(0.5);
    expect(scfmOfFall({ ...TABLE, falls: {} }, 0, 4)).toBe(0);
    expect(scfmOfFall(TABLE, 9, 4)).toBe(0);
  });
});

describe('what was heard', () => {
  const spots = [
    { id: 'a', is: 'joints', at: 'p' },
    { id: 'b', is: 'exhaust', at: 'valve' },
    { id: 'c', is: 'joints', at: 'line' },
  ];
  const walk = { doing: { does: 'walk', of: 'air', spots } } as never;
  const choice = (of: string) => ({ kind: 'choice', choice: of }) as never;

  it('is the joints that were named, all of them passed; nothing of an exhaust or of another check', () => {
    expect(heardOf(walk, choice('c'), 3)).toEqual({ place: 'line', among: ['p', 'line'], atMs: 3 });
    expect(heardOf(walk, choice('b'), 3)).toBeNull();
    expect(heardOf(walk, { kind: 'grade', grade: 'hiss' } as never, 3)).toBeNull();
    expect(
      heardOf({ doing: { does: 'walk', of: 'rods', spots } } as never, choice('c'), 3),
    ).toBeNull();
    expect(heardOf({ doing: { does: 'listen', way: 'x' } } as never, choice('c'), 3)).toBeNull();
  });

  it('is likelier of a louder leak, and says nothing of a place that was not passed', () => {
    const named = [{ place: 'p', among: ['p', 'line', 'rear'], atMs: 1 }];
    expect(heardRatio('front', 1, named)).toBe(1);
    expect(heardRatio('p', 2, named)).toBeGreaterThan(heardRatio('p', 0.2, named));
    expect(heardRatio('line', 1, named)).toBeLessThan(heardRatio('p', 1, named));
    // At FROM_AFAR times the least that is heard close by, nine in ten are heard half the time.
    const quiet = [{ place: null, among: ['p'], atMs: 1 }];
    expect(heardRatio('p', 0.25, quiet)).toBeCloseTo(1 - 0.9 / 2, 9);
  });
});

const trailer: RigUnderTest = { unit: unitOf('trailer', '24'), towed: [] };
describe.each([
  ['a truck', truck],
  ['a trailer alone', trailer],
  ['two trailers', rigsOfEverySort['a tractor with two trailers, the last with numbered ports']!],
])('on %s', (name, rig) => {
  it('joints are wetted in this order, and what is capped takes this with it', () => {
    const joints = jointsOf(checksOf(rig, faultsOf(rig)));
    expect(
      joints.map(({ pass, unit, place, title }) => `${pass} ${unit} ${place}: ${title}`).join('\n'),
    ).toMatchSnapshot();
    const places = airOf(rig).nodes.map(({ id }) => id);
    expect(
      places.map((place) => `${place}: ${losesAir(rig, place).join(', ')}`).join('\n'),
    ).toMatchSnapshot();
  });

  if (name === 'two trailers') return;
  it('each needle loses this to a leak', () => {
    const { rows, falls, tanks, airless } = seenTable(rig);
    expect(
      [
        ...rows.map(({ state, needle, tank }) => `${state} ${needle} by ${tank}`),
        ...Object.entries(falls).map(
          ([place, of]) => `${place}: ${of.map((each) => each.toFixed(2)).join(' ')}`,
        ),
        `tanks ${tanks.join(', ')}`,
        `airless ${airless.join(', ')}`,
      ].join('\n'),
    ).toMatchSnapshot();
  });
});
