import { unitOf } from '../test/walk';
import { faultsOf } from '../twin/faults/faultsOf';
import { complaints } from './complaints';
import { symptoms } from './symptoms';

/*
 * Rows take faults by their names. Written down: how many names each takes as they are, with a word before, with a word
 * behind, and on a twelfth unit. No proof that a row is right, but none takes more or less than before unseen.
 */
const rigs = [
  { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22'), unitOf('trailer', '23')] },
  { unit: unitOf('truck', '12'), towed: [unitOf('trailer', '23')] },
  { unit: unitOf('bus', '2'), towed: [] },
];
const names = [...new Set(rigs.flatMap((rig) => faultsOf(rig, -10).map(({ id }) => id)))];
const variants: readonly ((name: string) => string)[] = [
  (name) => name,
  (name) => `other ${name}`,
  (name) => `${name} other`,
  (name) => name.replace(/#\d/, '#12'),
  (name) => name.replace('#', ''),
];

const taken = (of: RegExp) =>
  variants.map((variant) => names.filter((name) => of.test(variant(name))).length).join(' ');

it('complaints', () => {
  expect(
    complaints
      .flatMap(({ id, said }) => said.map(([of], n) => `${id} ${n}: ${taken(of)}`))
      .join('\n'),
  ).toMatchSnapshot();
});

it('the trade’s table', () => {
  expect(
    symptoms
      .flatMap(({ id, suspects }) => suspects.map((of, n) => `${id} ${n}: ${taken(of)}`))
      .join('\n'),
  ).toMatchSnapshot();
});
