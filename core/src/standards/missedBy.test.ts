import type { RuleSet } from '@keen-bleed/contract';
import shippedBefore from '../../../server/src/ruleSets/shippedBefore.json';
import { checkRuleSet } from '../procedure/checkRuleSet';
import { procedureFor } from '../procedure/procedureFor';
import { itemsOf } from '../run/findingsOf';
import { unitOf } from '../test/walk';
import { hasOldStop, missedBy, takenOver } from './missedBy';
import { ruleSets } from './ruleSets';

const before = shippedBefore as unknown as readonly RuleSet[];
const rig = { unit: unitOf('truck', '10'), towed: [] };
const asked = (set: RuleSet) => procedureFor(rig, set, ['drain']).steps;

describe.each(ruleSets.map((set) => [set.title, set] as const))('a copy of %s', (_, shipped) => {
  const older = before.find(({ id, revision }) => id === shipped.id && revision === 2)!;
  const copy: RuleSet = { ...older, id: 'ours', basedOn: shipped.id };

  it('made before the stop was a step of its own asks the old one, and says so', () => {
    expect(hasOldStop(copy)).toBe(true);
    const holding = asked(copy).find(({ id }) => id === 'holding')!;
    expect(holding.title).toBe('Tug, and old stop test');
    expect(itemsOf(holding).find(({ key }) => key === 'stop')?.ask).toMatch(/^Old stop test/);
    expect(asked(copy).map(({ id }) => id)).not.toContain('service-stop');
  });

  it('misses the stop with its figures, and takes them over in one go', () => {
    const missed = missedBy(copy, shipped);
    expect(missed.steps.map(({ stepId }) => stepId)).toContain('service-stop');
    expect(missed.limits.map(({ figure }) => figure)).toContain('stop-braking');
    const now = takenOver(copy, shipped);
    expect(missedBy(now, shipped)).toEqual({ steps: [], limits: [] });
    expect(hasOldStop(now)).toBe(false);
    expect(checkRuleSet(now)).toEqual([]);
    const steps = asked(now).map(({ id }) => id);
    expect(steps.indexOf('service-stop')).toBe(steps.indexOf('holding') + 1);
    // Nothing it had is gone.
    for (const { stepId } of copy.steps)
      expect(now.steps.map((each) => each.stepId)).toContain(stepId);
  });

  it('keeps a limit that a lead has changed', () => {
    const own = {
      ...copy,
      limits: copy.limits.map((each) => (each.figure === 'warning' ? { ...each, min: 58 } : each)),
    };
    const now = takenOver(own, shipped);
    expect(now.limits.filter(({ figure }) => figure === 'warning')).toEqual(
      own.limits.filter(({ figure }) => figure === 'warning'),
    );
  });

  it('of today misses nothing', () => {
    expect(missedBy({ ...shipped, basedOn: shipped.id } as RuleSet, shipped)).toEqual({
      steps: [],
      limits: [],
    });
  });
});
