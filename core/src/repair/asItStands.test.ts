import type { Repair } from '@keen-bleed/contract';
import { checksOf } from '../checks/catalogue';
import { checksOfRetest } from '../checks/retestChecks';
import { stepOfFailure } from '../procedure/stepOfFailure';
import { figureTitles } from '../reading/figureWords';
import { partListOf } from '../rig/partList';
import { couplingOf, unitsOf } from '../rig/rigUnderTest';
import { limitFor } from '../standards/limitFor';
import { ruleSets } from '../standards/ruleSets';
import { digest } from '../test/digest';
import { rigsOfEverySort, switchedOver } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import { isCriticalFailure, isCriticalStep } from './critical';
import { knownOf, mismatches, wantsOf } from './match';
import { retestOfStep, retestsOf } from './retests';

/*
 * What a part has to match, what a repair of it owes, which limit holds for a figure, and what takes a vehicle out of
 * service, on rigs of every sort: no proof that it is right, but none of it changes unseen.
 */
const rigs = Object.entries({
  'a truck': { unit: unitOf('truck', '10'), towed: [] },
  'a tractor and trailer': { unit: unitOf('tractor', '11'), towed: [unitOf('trailer', '22')] },
  ...rigsOfEverySort,
});
const sets = [...ruleSets, switchedOver];
const REPAIRS: readonly Repair[] = ['replaced', 'cleaned', 'reseated', 'remade', 'adjusted'];
const offered = {
  setPsi: 5,
  thread: '1/2',
  variant: 'other',
  chamberType: '24',
  stroke: 'long',
  lengthMm: 300,
};

describe.each(rigs)('on %s', (_, rig) => {
  it('repairs owe these retests, made by these checks', () => {
    const units = unitsOf(rig);
    const checks = checksOf(rig, []);
    const lines = units.flatMap((unit) =>
      partListOf(unit).map(({ id }) => {
        const at = { unitId: unit.id, partId: id };
        const owed = REPAIRS.map((repair) => retestsOf({ units, at, repair }));
        const done = owed.flatMap((retests) =>
          retests.map((retest) =>
            retest.check === undefined
              ? ''
              : checksOfRetest(checks, retest as never).map((check) => check.id),
          ),
        );
        return `${unit.kind} ${id}: ${[...new Set(owed.flat().map((retest) => retest.id))].join(', ')} ${digest([owed, done])}`;
      }),
    );
    expect(lines.join('\n')).toMatchSnapshot();
  });

  it('parts have to match this', () => {
    const lines = unitsOf(rig).flatMap((unit) =>
      partListOf(unit).map(({ id }) => {
        const read = {
          ...unit,
          parts: [
            {
              ...{ partId: id, standing: 'fitted' as const, foundAtMs: 1, number: 'N1' },
              ...{ thread: '3/8', setPsi: 9, variant: 'its-own' },
            },
          ],
        };
        const all = [unit, read].map((each) => [
          knownOf(each, id),
          wantsOf(each, id),
          mismatches(each, id, offered as never),
          mismatches(each, id, offered as never, { adapter: 'elbow', sayIn: 'bar' }),
        ]);
        return `${unit.kind} ${id}: ${wantsOf(unit, id)
          .map(({ field, value }) => `${field} ${value ?? '?'}`)
          .join(', ')} ${digest(all)}`;
      }),
    );
    expect(lines.join('\n')).toMatchSnapshot();
  });

  it('figures have these limits', () => {
    const lines = Object.keys(figureTitles).map((figure) => {
      const limits = sets.map((set) =>
        limitFor(figure as never, { unit: rig.unit, towed: rig.towed }, set),
      );
      return `${figure} ${couplingOf(rig)}: ${limits.map((limit) => (limit ? `${limit.min ?? ''}–${limit.max ?? ''}` : 'none')).join(' | ')} ${digest(limits)}`;
    });
    expect(lines.join('\n')).toMatchSnapshot();
  });
});

it('steps and failures of these take a vehicle out of service', () => {
  const steps = [...new Set(sets.flatMap((set) => set.steps.map(({ stepId }) => stepId)))].sort();
  const byHand = (critical: boolean) => ({
    steps: steps.map((stepId) => ({ stepId, need: 'must' as const, critical })),
  });
  const keys = [
    ...Object.keys(figureTitles).map((figure) => `figure:${figure}`),
    ...steps.map((step) => `look:${step}/x`),
    ...['figure:', 'look', ''],
  ];
  const [set] = ruleSets;
  expect(steps.filter((step) => isCriticalStep(set!, step)).join(' ')).toMatchSnapshot();
  expect(
    keys
      .map((key) => `${key} ${stepOfFailure(key) ?? 'none'} ${isCriticalFailure(set!, key)}`)
      .join('\n'),
  ).toMatchSnapshot();
  expect(steps.every((step) => isCriticalStep(byHand(true), step))).toBe(true);
  expect(steps.some((step) => isCriticalStep(byHand(false), step))).toBe(false);
  expect(isCriticalStep({ steps: [] }, 'no-such-step')).toBe(false);
});

it('a step is owed where a rig has what it tests', () => {
  const steps = [...new Set(sets.flatMap((set) => set.steps.map(({ stepId }) => stepId)))].sort();
  const lines = rigs.map(([name, rig]) => {
    const owed = steps.flatMap((step) => retestOfStep(unitsOf(rig), step) ?? []);
    return `${name}: ${owed.map(({ id, minutes }) => `${id} ${minutes}`).join(', ')} ${digest(owed)}`;
  });
  expect(lines.join('\n')).toMatchSnapshot();
});
