import type { RuleSet } from '@keen-bleed/contract';
import { roadTest } from '../standards/roadTest';
import { ruleSets } from '../standards/ruleSets';
import { checkRuleSet } from './checkRuleSet';

type Need = RuleSet['steps'][number]['need'];
const steps = (...of: readonly (string | readonly [string, Need])[]): RuleSet => ({
  ...roadTest,
  steps: of.map((each) =>
    typeof each === 'string'
      ? { stepId: each, need: 'must' as const }
      : { stepId: each[0], need: each[1] },
  ),
});
const fieldsOf = (set: RuleSet) => checkRuleSet(set).map(({ field }) => field);

describe('a rule set', () => {
  it('that is shipped has nothing wrong with it', () => {
    expect(ruleSets.length).toBeGreaterThan(3);
    for (const set of ruleSets) expect(checkRuleSet(set)).toEqual([]);
  });

  it('begins with making it safe, which cannot be left out', () => {
    expect(fieldsOf(steps('build-up', 'prepare'))).toEqual(['steps']);
    expect(fieldsOf(steps())).toEqual(['steps']);
    expect(fieldsOf(steps(['prepare', 'off'], 'build-up'))).toEqual(['steps.0.need']);
    expect(fieldsOf(steps('prepare', ['build-up', 'off']))).toEqual([]);
  });

  it('has each step once, and none that there is not', () => {
    expect(checkRuleSet(steps('prepare', 'build-up', 'build-up'))).toEqual([
      { field: 'steps.2.stepId', message: '“build-up” stands twice: once is enough.' },
    ]);
    expect(checkRuleSet(steps('prepare', 'polish'))).toEqual([
      { field: 'steps.1.stepId', message: 'There is no step "polish".' },
    ]);
  });

  it('holds before the pop-out, or rebuilds between the two: a hold after it has no air', () => {
    const bad = 'A hold after the pop-out has no air: rebuild first, or hold before it.';
    expect(fieldsOf(steps('prepare', 'applied-hold', 'pop-out'))).toEqual([]);
    expect(fieldsOf(steps('prepare', 'pop-out', 'rebuild', 'applied-hold'))).toEqual([]);
    for (const wrong of [
      steps('prepare', 'pop-out', 'applied-hold'),
      steps('prepare', 'rebuild', 'pop-out', 'applied-hold'),
      steps('prepare', 'pop-out', ['rebuild', 'off'], 'applied-hold'),
      steps('prepare', 'pop-out', 'applied-hold', 'rebuild'),
    ]) {
      const at = wrong.steps.findIndex(({ stepId }) => stepId === 'applied-hold');
      expect(checkRuleSet(wrong)).toEqual([{ field: `steps.${at}.stepId`, message: bad }]);
    }
    // What is not asked for stands in nothing's way.
    expect(fieldsOf(steps('prepare', ['pop-out', 'off'], 'applied-hold'))).toEqual([]);
    expect(fieldsOf(steps('prepare', 'pop-out', ['applied-hold', 'off']))).toEqual([]);
  });

  it('has limits with an end, the lower under the upper, each on its own', () => {
    const [limit] = roadTest.limits;
    const limits = (...of: readonly (readonly [number | null, number | null])[]) =>
      fieldsOf({ ...roadTest, limits: of.map(([min, max]) => ({ ...limit!, min, max })) });
    expect(limits([1, 2], [null, 2], [1, null])).toEqual([]);
    expect(limits([1, 2], [null, null])).toEqual(['limits.1.max']);
    expect(limits([2, 2], [3, 2], [1.99, 2])).toEqual(['limits.0.min', 'limits.1.min']);
  });

  it('has each look of the shop’s own once', () => {
    const look = { key: 'hoses', ask: 'Hoses', options: [] } as never;
    expect(fieldsOf({ ...roadTest, looks: [look, look] })).toEqual(['looks.1.key']);
    expect(fieldsOf({ ...roadTest, looks: [look] })).toEqual([]);
  });
});
