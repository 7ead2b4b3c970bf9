import type { RuleSet, RuleSetDraft, RuleStep, ShopLook } from '@keen-bleed/contract';

/** What of a rule set can be changed. */
export function draftOfRuleSet({
  id: _id,
  revision: _revision,
  basedOn: _basedOn,
  ...draft
}: RuleSet): RuleSetDraft {
  return draft;
}

/** The draft with another list of own looks; the step that asks them comes and goes with it. */
export function withLooks(draft: RuleSetDraft, looks: readonly ShopLook[]): RuleSetDraft {
  const asked = looks.map(({ usual, ...look }) => (usual?.trim() ? { ...look, usual } : look));
  const { looks: _before, ...rest } = draft;
  const at = draft.steps.findIndex(({ stepId }) => stepId === SHOP_LOOKS);
  if (asked.length === 0) {
    return { ...rest, steps: draft.steps.filter(({ stepId }) => stepId !== SHOP_LOOKS) };
  }
  if (at >= 0) return { ...rest, looks: asked };
  // After the walk round the rig, of which draining is a part.
  const after = draft.steps[1]?.stepId === 'drain' ? 2 : 1;
  const steps = [...draft.steps];
  steps.splice(after, 0, { stepId: SHOP_LOOKS, need: 'may' });
  return { ...rest, steps, looks: asked };
}

const SHOP_LOOKS = 'shop-looks';

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
