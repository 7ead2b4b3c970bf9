import type { PartRecord, PartStanding, Unit, UnitDraft } from '@keen-bleed/contract';
import { partsOf, type Part } from './partsOf';

/** A part in a unit's list, with what was found of it; null where it is as usual and nobody has confirmed it. */
export interface ListedPart extends Part {
  record: PartRecord | null;
}

/** Parts whose absence the twin and the procedures understand, and the detail of the air system that says it. */
const OPTIONAL = {
  'modulating-valve': 'modulatingValve',
  'anti-compounding': 'antiCompounding',
} as const;

const isOptional = (partId: string): partId is keyof typeof OPTIONAL => partId in OPTIONAL;

/**
 * Every part a unit may have, in the order of {@link partsOf}: the usual ones, those that were found not to be there,
 * and for each what was found.
 */
export function partListOf(unit: Pick<Unit, keyof UnitDraft>): ListedPart[] {
  const records = new Map((unit.parts ?? []).map((record) => [record.partId, record]));
  // What is not fitted is in no network, and stays in the list to be found after all.
  const usual = new Set(partsOf(unit).map(({ id }) => id));
  return partsOf(withAll(unit))
    .filter(({ id }) => usual.has(id) || records.has(id))
    .map((part) => ({ ...part, record: records.get(part.id) ?? null }));
}

/** What a part of a unit is called, fitted or not; null where such a unit never has it. */
export function partTitle(unit: Pick<Unit, keyof UnitDraft>, partId: string): string | null {
  return partsOf(withAll(unit)).find(({ id }) => id === partId)?.title ?? null;
}

const withAll = (unit: Pick<Unit, keyof UnitDraft>) => ({
  ...unit,
  air: { ...unit.air, modulatingValve: true, antiCompounding: true },
});

/**
 * The unit with a part as it was found. What was found earlier than what is known changes nothing: it comes late from a
 * phone without network.
 */
export function withPart(draft: UnitDraft, found: PartRecord): UnitDraft {
  const parts = draft.parts ?? [];
  const known = parts.find(({ partId }) => partId === found.partId);
  if (known && known.foundAtMs > found.foundAtMs) return draft;
  const next = {
    ...draft,
    parts: [...parts.filter(({ partId }) => partId !== found.partId), found],
  };
  if (!isOptional(found.partId)) return next;
  const { [OPTIONAL[found.partId]]: _before, ...air } = draft.air ?? {};
  return {
    ...next,
    air:
      found.standing === 'not-known'
        ? air
        : { ...air, [OPTIONAL[found.partId]]: found.standing === 'fitted' },
  };
}

/** The standing that a detail of the air system says. */
const said = (fitted: boolean | undefined): PartStanding =>
  fitted === undefined ? 'not-known' : fitted ? 'fitted' : 'not-fitted';

/**
 * The records that the unit's own details still bear out: where somebody has filled in otherwise since, that is the
 * newer word, and the part is not confirmed any more.
 */
export const recordsThatHold = ({
  parts = [],
  air,
}: Pick<UnitDraft, 'parts' | 'air'>): PartRecord[] =>
  parts.filter(
    ({ partId, standing }) => !isOptional(partId) || said(air?.[OPTIONAL[partId]]) === standing,
  );
