import { ruleSets } from '../standards/ruleSets';
import { rigsOfEverySort, switchedOver } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { procedureFor } from './procedureFor';

/*
 * Every step as it is asked, its warnings first, for a rig of each sort by each rule set: no proof that it is right,
 * but no warning and no line of it is lost unseen. Read the difference as a mechanic before you keep it.
 */
const rigs: Readonly<Record<string, RigUnderTest>> = {
  'a truck': { unit: unitOf('truck', '10'), towed: [] },
  'a tractor and trailer': { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] },
  'a trailer alone': { unit: unitOf('trailer', '24'), towed: [] },
};

describe.each(Object.entries(rigs))('the steps of %s', (_, rig) => {
  it.each(ruleSets.map((set) => [set.title, set] as const))('by %s', (_title, set) => {
    const steps = procedureFor(rig, set, []).steps.map((step) => JSON.stringify(step));
    expect(steps.join('\n')).toMatchSnapshot();
  });

  it('begin with what makes it safe, by every rule set', () => {
    for (const set of ruleSets) {
      const [first] = procedureFor(rig, set, []).steps;
      expect(JSON.stringify(first)).toMatch(/[Cc]hock/);
    }
  });
});

describe('on other rigs and with the switches the other way', () => {
  const sets = [...ruleSets, switchedOver];
  const above = new Set(
    Object.values(rigs).flatMap((rig) =>
      ruleSets.flatMap((set) =>
        procedureFor(rig, set, []).steps.map((step) => JSON.stringify(step)),
      ),
    ),
  );

  it.each(Object.entries({ ...rigsOfEverySort, ...rigs }))(
    'the steps of %s are these, and those that are not among the ones above so asked',
    (_, rig) => {
      const seen = new Set(above);
      for (const set of sets) {
        const { steps } = procedureFor(rig, set, ['drain']);
        const others = steps.map((step) => JSON.stringify(step)).filter((step) => !seen.has(step));
        others.forEach((step) => seen.add(step));
        expect([steps.map(({ id }) => id).join(' '), ...others].join('\n')).toMatchSnapshot();
      }
    },
  );
});
