import type { PlumbedPart } from '../rig/plumbing/plumbing';
import { NOWHERE } from '../rig/plumbing/plumbingOf';

/** A part's own slot: rows from the front, columns from −3 to 3; no two parts have the same. */
export interface Slot {
  row: number;
  column: number;
}

/** Columns nearest to one first; wheels and what hangs outside the rails stand at the outermost. */
const nearest = (column: number): number[] =>
  [-2, -1, 0, 1, 2].sort(
    (a, b) => Math.abs(a - column) - Math.abs(b - column) || Math.abs(a) - Math.abs(b),
  );

/**
 * Gives each part a slot of its own, as near as there is one to where it sits, and closes up rows that nothing stands
 * in. Wheels take theirs first: an axle is where it is.
 */
export function slotsOf(parts: readonly PlumbedPart[]): ReadonlyMap<string, Slot> {
  const taken = new Map<string, string>();
  const axles = new Set(parts.flatMap(({ wheel, place }) => (wheel ? [place.row] : [])));
  const keyOf = ({ row, column }: Slot) => `${row} ${column}`;
  const placed = new Map<string, Slot>();
  const put = (id: string, slot: Slot) => {
    taken.set(keyOf(slot), id);
    placed.set(id, slot);
  };
  // The outermost columns of an axle are its wheels.
  const isFree = (slot: Slot) =>
    !taken.has(keyOf(slot)) && !(axles.has(slot.row) && Math.abs(slot.column) === 3);
  const order = [...parts].sort(
    (a, b) => Number(b.wheel !== null) - Number(a.wheel !== null) || a.place.row - b.place.row,
  );
  for (const { id, place } of order) {
    if (isFree(place)) {
      put(id, place);
      continue;
    }
    // In its own row first, then in the rows behind and in front.
    const rows = [0, 0.25, -0.25, 0.5, 0.75].map((by) => place.row + by);
    const free = rows
      .flatMap((row) => nearest(place.column).map((column) => ({ row, column })))
      .find(isFree);
    put(id, free ?? { row: NOWHERE.row + placed.size, column: 0 });
  }
  const rows = [...new Set([...placed.values()].map(({ row }) => row))].sort((a, b) => a - b);
  return new Map(
    [...placed].map(([id, { row, column }]) => [id, { row: rows.indexOf(row), column }]),
  );
}
