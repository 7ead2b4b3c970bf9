import type { RuleSet, RuleSetDraft, RuleStep } from '@keen-bleed/contract';

/** What of a rule set can be changed. */
export function draftOfRuleSet({
  id: _id,
  revision: _revision,
  basedOn: _basedOn,
  ...draft
}: RuleSet): RuleSetDraft {
  return draft;
}

/** The steps with one moved up or down by one place; the first keeps its place. */
export function movedStep(steps: readonly RuleStep[], at: number, by: 1 | -1): RuleStep[] {
  const to = at + by;
  const step = steps[at];
  const other = steps[to];
  if (!step || !other || at === 0 || to === 0) return [...steps];
  const moved = [...steps];
  moved[at] = other;
  moved[to] = step;
  return moved;
}

/** A bound as typed: empty is none; null stands for text that is no number. */
export function boundOf(text: string): { value: number | null } | null {
  const trimmed = text.trim().replace(',', '.');
  if (trimmed === '') return { value: null };
  const value = Number(trimmed);
  return Number.isFinite(value) && value >= 0 ? { value } : null;
}
