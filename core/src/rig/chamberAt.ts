import type { ChamberGroup, ChamberStroke, Unit, UnitDraft } from '@keen-bleed/contract';
import { axlesOf } from './partsOf';

type Described = Pick<Unit, keyof UnitDraft>;

/** A wheel’s chamber and what works its brake. */
export interface ChamberAt {
  group: ChamberGroup;
  /** As marked; standard where nobody has read it. */
  stroke: ChamberStroke;
  /** Null where nobody has looked. */
  adjuster: 'automatic' | 'manual' | null;
}

/** The chamber of a wheel, or of a group of wheels, by its part’s id; null for any other part. */
export function chamberAt(unit: Described, partId: string): ChamberAt | null {
  const [groupId = ''] = partId.split('.');
  const found = /^(front-chambers|rear-chambers|chambers)(?:-(\d+))?$/.exec(groupId);
  if (!found) return null;
  const { front, rear } = axlesOf(unit.chambers);
  const groups =
    found[1] === 'front-chambers' ? front : found[1] === 'rear-chambers' ? rear : unit.chambers;
  const group = groups[Number(found[2] ?? 1) - 1];
  if (!group) return null;
  // A wheel is as it was found itself, and otherwise as its group was.
  const records = [partId, groupId].flatMap(
    (id) => unit.parts?.find((each) => each.partId === id) ?? [],
  );
  const first = <T>(of: (each: (typeof records)[number]) => T | undefined): T | undefined =>
    records.map(of).find((each) => each !== undefined);
  return {
    group,
    stroke: first(({ stroke }) => stroke) ?? 'standard',
    adjuster: first(({ adjuster }) => adjuster) ?? null,
  };
}
