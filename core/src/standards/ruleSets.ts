import type { RuleSet, Unit } from '@keen-bleed/contract';
import { inService } from './inService';
import { makersFigures } from './makersFigures';
import { numberedPorts } from './numberedPorts';
import { roadTest } from './roadTest';

/** Every rule set that ships, the default first. */
export const ruleSets: readonly RuleSet[] = [roadTest, inService, makersFigures, numberedPorts];

/** The rule set a new shop takes when none is picked. */
export const defaultRuleSetId = roadTest.id;

/** Finds a shipped rule set by id, or null. */
export function ruleSetById(id: string): RuleSet | null {
  return ruleSets.find((set) => set.id === id) ?? null;
}

/**
 * The rule set that is proposed for a unit: the shop's own choice, but a unit with numbered ports gets one
 * that speaks in numbers.
 *
 * @param sets those the shop may run by
 */
export function ruleSetFor(
  unit: Pick<Unit, 'ports'>,
  sets: readonly RuleSet[],
  shopDefaultId: string,
): RuleSet {
  const school = unit.ports === 'numbers' ? 'numbers' : 'words';
  const usual = sets.find((set) => set.id === shopDefaultId) ?? roadTest;
  if (usual.school === school) return usual;
  return sets.find((set) => set.school === school) ?? usual;
}
