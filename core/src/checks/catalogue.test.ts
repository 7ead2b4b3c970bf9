import { digest } from '../test/digest';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { actsAt, checksOfStep, failsAt } from './actsAt';
import { faultsOf } from '../twin/faults/faultsOf';
import { checksOf } from './catalogue';
import { valvesOf } from './valves';

/*
 * What is written down of each check, as it stands, for a rig of each sort: no proof that it is right, which the twin
 * and the trade's table give, but nothing of it changes unseen. Read the difference as a mechanic before you keep it.
 */
const rigs: Readonly<Record<string, RigUnderTest>> = {
  'a truck': { unit: unitOf('truck', '10'), towed: [] },
  'a tractor and trailer with numbered ports': {
    unit: unitOf('tractor', '13', { ports: 'numbers' }),
    towed: [unitOf('trailer', '23', { ports: 'numbers' })],
  },
  'a trailer alone': { unit: unitOf('trailer', '24'), towed: [] },
};
const STEPS = [
  ...['build-up', 'cut-out', 'cut-in', 'cycle', 'couplers', 'trailer-supply', 'static-hold'],
  ...['tractor-protection', 'applied-hold', 'trailer-alone', 'breakaway', 'warning', 'pop-out'],
  ...['rebuild', 'stop-lamps', 'tug-and-stop', 'drain'],
];

describe.each(Object.entries(rigs))('the catalogue of %s', (_, rig) => {
  const checks = checksOf(rig, []);

  it('has these checks, so done and so answered', () => {
    const said = checks.map((check) => {
      const { id, title, act, state, minutes, doing, answer, bearsOn } = check;
      const { kind, ...rest } = answer;
      const options = 'grades' in rest ? rest.grades : 'choices' in rest ? rest.choices : null;
      const asked = options ? options.map((each) => each.title).join(', ') : JSON.stringify(rest);
      const done = JSON.stringify(doing).replace(/["{}]/g, '');
      return [id, title, act, state.id, minutes, done, `${kind}: ${asked}`, bearsOn.length].join(
        ' | ',
      );
    });
    expect(said.join('\n')).toMatchSnapshot();
  });

  it('leads from each step of a run to the parts that act in it, and to their checks', () => {
    const of = (step: string) => ({
      acts: actsAt(rig, step).map(({ unit, part }) => `${unit} ${part}`),
      checks: checksOfStep(checks, step).map(({ id }) => id),
    });
    expect(Object.fromEntries(STEPS.map((step) => [step, of(step)]))).toMatchSnapshot();
  });

  it('leads from each figure out of its limit to the parts that may be at fault', () => {
    const keys = ['static-leak', 'applied-leak', 'cut-out', 'cut-in', 'build-up-time', 'warning'];
    const at = keys.map((key) => [
      key,
      failsAt(rig, key).map(({ unit, part }) => `${unit} ${part}`),
    ]);
    expect(Object.fromEntries(at)).toMatchSnapshot();
  });

  it('has these valves, each with what can be read of it', () => {
    const said = valvesOf(rig, checks).map((valve) => JSON.stringify(valve));
    expect(said.join('\n')).toMatchSnapshot();
  });
});

describe('of rigs of every sort', () => {
  it.each(Object.entries({ ...rigsOfEverySort, ...rigs }))(
    'the checks of %s are these, with a mark of all that is said of each',
    (_, rig) => {
      const checks = checksOf(rig, faultsOf(rig));
      expect(checks.map((check) => `${check.id} ${digest(check)}`).join('\n')).toMatchSnapshot();
      expect(
        valvesOf(rig, checks)
          .map((valve) => digest(valve))
          .join(' '),
      ).toMatchSnapshot();
    },
  );
});
