import type {
  FittedFact,
  LineFact,
  LineRecord,
  PartFact,
  PartRecord,
  PartStanding,
  Unit,
  UnitDraft,
} from '@keen-bleed/contract';
import { optionalParts, partsOf, type Part } from './partsOf';

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
 * Every part a unit has or may have, in the order of {@link partsOf}: the usual ones, those that were found not to be
 * there, those that only some units have once they were looked for; and for each what was found. An axle's chambers are
 * listed by wheel.
 */
export function partListOf(unit: Pick<Unit, keyof UnitDraft>): ListedPart[] {
  const records = new Map((unit.parts ?? []).map((record) => [record.partId, record]));
  // What is not fitted is in no network, and stays in the list to be found after all.
  const usual = new Set(partsOf(unit).map(({ id }) => id));
  return everyPart(unit)
    .filter(({ id, role }) => records.has(id) || (usual.has(id) && role !== 'chambers'))
    .map((part) => ({ ...part, record: records.get(part.id) ?? null }));
}

/** Parts that such a unit may have beside the usual ones, and that nobody has looked for yet. */
export function unlookedParts(unit: Pick<Unit, keyof UnitDraft>): ListedPart[] {
  const listed = new Set(partListOf(unit).map(({ id }) => id));
  return everyPart(unit)
    .filter(({ id, role }) => !listed.has(id) && role !== 'chambers')
    .map((part) => ({ ...part, record: null }));
}

/** What a part of a unit is called, fitted or not; null where such a unit never has it. */
export function partTitle(unit: Pick<Unit, keyof UnitDraft>, partId: string): string | null {
  return partById(unit, partId)?.title ?? null;
}

/** A part that such a unit has or may have, fitted or not; null where it never has it. */
export const partById = (unit: Pick<Unit, keyof UnitDraft>, partId: string): Part | null =>
  everyPart(unit).find(({ id }) => id === partId) ?? null;

function everyPart(unit: Pick<Unit, keyof UnitDraft>): readonly Part[] {
  const known = everyPartOf.get(unit) ?? [
    ...partsOf({ ...unit, air: { ...unit.air, modulatingValve: true, antiCompounding: true } }),
    ...optionalParts(unit),
  ];
  everyPartOf.set(unit, known);
  return known;
}

/** A record asks after the parts of one and the same unit with every entry. */
const everyPartOf = new WeakMap<Pick<Unit, keyof UnitDraft>, readonly Part[]>();

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

/** The unit with a line as it was found; what was found earlier than what is known changes nothing. */
export function withLine(draft: UnitDraft, found: LineRecord): UnitDraft {
  const lines = draft.lines ?? [];
  const known = lines.find(({ lineId }) => lineId === found.lineId);
  if (known && known.foundAtMs > found.foundAtMs) return draft;
  return { ...draft, lines: [...lines.filter(({ lineId }) => lineId !== found.lineId), found] };
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

/** What a visit's fact says of a part, as it is kept with the unit. */
export function partRecordOf(fact: PartFact, foundAtMs: number): PartRecord {
  const { at, standing, number, thread, setPsi, fittedOn, note, variant, place, photos } = fact;
  const { stroke, adjuster } = fact;
  const said = { number, thread, setPsi, fittedOn, note, variant, place, photos, stroke, adjuster };
  return { partId: at.partId, standing, ...given(said), foundAtMs };
}

/**
 * What a repair says of a part, as it is kept with the unit: what came off stands no longer, where it sits and what
 * else was known of its place does. A part that was put right where it sits keeps what was known of it.
 */
export function fittedRecordOf(
  draft: Pick<UnitDraft, 'parts'>,
  { at, repair, now, photos, note }: FittedFact,
  foundAtMs: number,
): PartRecord {
  const known = draft.parts?.find(({ partId }) => partId === at.partId);
  const { number, thread, setPsi, variant, stroke } = now;
  // What takes up the wear stays on the wheel when its chamber is changed.
  const kept = repair === 'replaced' ? { place: known?.place, adjuster: known?.adjuster } : known;
  return {
    ...given({ ...kept }),
    ...given({ number, thread, setPsi, variant, stroke, photos, note }),
    partId: at.partId,
    standing: 'fitted',
    ...(repair === 'replaced' ? { fittedOn: new Date(foundAtMs).toISOString().slice(0, 10) } : {}),
    mendedAtMs: foundAtMs,
    foundAtMs,
  };
}

/** What a visit's fact says of a line, as it is kept with the unit. */
export function lineRecordOf(fact: LineFact, foundAtMs: number): LineRecord {
  const { at, standing, from, to, boreMm, colour, moves, note } = fact;
  const said = { from, to, boreMm, colour, moves, note };
  return { lineId: at.lineId, standing, ...given(said), foundAtMs };
}

type Given<T> = { [K in keyof T]?: NonNullable<T[K]> };
const given = <T extends object>(said: T): Given<T> =>
  Object.fromEntries(Object.entries(said).filter(([, value]) => value !== undefined)) as Given<T>;
