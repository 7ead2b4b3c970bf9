import { sixDigits } from '../test/sixDigits';
import { mlOf, totalMl, type Drained } from './drained';
import { dryerHealth, settlesPerKg, type Duty } from './dryerHealth';
import { frostRisks } from './frost';
import { dryerStates } from './dryerHealth';

/*
 * Air of every sort through dryers of every state. No proof, which the psychrometric library and handbook figures give
 * beside, but no term changes unseen.
 */
const usual: Duty = {
  airC: 20,
  humidity: 0.6,
  engineHours: 8,
  loadedShare: 0.3,
  scfm: 15,
  tankPsi: 120,
  hasDryer: true,
};
const DUTIES: readonly (readonly [string, Duty])[] = [
  ['usual', usual],
  ['without a dryer', { ...usual, hasDryer: false }],
  ['a damp summer', { ...usual, airC: 32, humidity: 0.95, loadedShare: 0.7 }],
  ['a dry winter', { ...usual, airC: -15, humidity: 0.4 }],
  ['a short day', { ...usual, engineHours: 0.5, scfm: 9, tankPsi: 90 }],
];

it.each(DUTIES)('%s', (_, duty) => {
  const found = [null, [0, 0.5], [5, 30], [250, 2_000]] as const;
  const lines = found.flatMap((ml) => {
    const health = dryerHealth(duty, ml);
    return [
      `${ml ? ml.join(' to ') : 'nothing drained'} ml: ${sixDigits(health)}`,
      ...[3, -4, -22].map(
        (low) => `frost at ${low}: ${sixDigits(frostRisks(health, low, duty.tankPsi))}`,
      ),
    ];
  });
  const settles = dryerStates.map((state) =>
    [5, 25, 45]
      .map((tankC) => settlesPerKg(state, duty, tankC, tankC + 12).toPrecision(6))
      .join(' '),
  );
  expect([...lines, ...settles].join('\n')).toMatchSnapshot();
});

it('what came out of drains, added up', () => {
  const drained = (amount: Drained['amount'], ml: number | null): Drained => ({
    ...{ place: 'supply', amount, ml, what: [], stuck: false, atMs: 0 },
  });
  expect(mlOf(drained('cup', null))).toEqual([30, 250]);
  // A measured amount is right within a fifth, and within one millilitre.
  expect(mlOf(drained('cup', 100))).toEqual([79, 121]);
  expect(mlOf(drained('mist', 0.5))).toEqual([0, 1.6]);
  expect(totalMl([drained('dry', null), drained('spoonful', null), drained('cup', 100)])).toEqual([
    84, 151.5,
  ]);
  expect(totalMl([])).toEqual([0, 0]);
});
