import type { RuleSet } from '@keen-bleed/contract';
import { roadTest } from '../standards/roadTest';
import { usualLooks } from '../standards/usualLooks';
import { findingsOf, itemsOf, NOT_DONE } from '../run/findingsOf';
import { testUnit, Walk } from '../test/walk';
import { checkRuleSet } from './checkRuleSet';
import { procedureFor } from './procedureFor';

const own: RuleSet = {
  ...roadTest,
  id: 'own',
  steps: [
    { stepId: 'prepare', need: 'must' },
    { stepId: 'shop-looks', need: 'may' },
  ],
  looks: [
    { key: 'belt', ask: 'Compressor belt', usual: 'no cracks, tight' },
    { key: 'horn', ask: 'Horn' },
  ],
};
const rig = { unit: testUnit(), towed: [] };

describe('a shop’s own list of looks', () => {
  it('is asked with its usual figures, each with an answer of its own, and found bad in words', () => {
    const walk = new Walk(rig.unit, { ruleSet: own }).ready();
    expect(itemsOf(walk.state.step!).map(({ ask }) => ask)).toEqual([
      'Compressor belt: no cracks, tight',
      'Horn',
    ]);
    expect(() =>
      walk.add({ kind: 'look', stepId: 'shop-looks', answers: { belt: 'bad' } }),
    ).toThrow('Horn');
    walk.add({ kind: 'look', stepId: 'shop-looks', answers: { belt: 'bad', horn: NOT_DONE } });
    const found = findingsOf(walk.state, 'words').filter(({ stepId }) => stepId === 'shop-looks');
    expect(found.map(({ key, standing }) => [key, standing])).toEqual([
      ['belt', 'bad'],
      ['horn', 'noted'],
    ]);
  });

  it('is not asked where there is none', () => {
    const { looks: _looks, ...none } = own;
    expect(procedureFor(rig, none).steps.map(({ id }) => id)).toEqual(['prepare']);
    expect(procedureFor(rig, roadTest).steps.some(({ id }) => id === 'shop-looks')).toBe(false);
  });

  it('holds each look once; the usual ones are such a list', () => {
    expect(checkRuleSet({ ...own, looks: [...usualLooks] })).toEqual([]);
    const twice = checkRuleSet({ ...own, looks: [...usualLooks, usualLooks[0]!] });
    expect(twice.map(({ field }) => field)).toEqual([`looks.${usualLooks.length}.key`]);
  });
});
