import type { Unit } from '@keen-bleed/contract';
import { useMemo } from 'react';
import useSWRImmutable from 'swr/immutable';
import type { Told } from '../air/drawing';
import { inDrawing, rigKey } from '../air/useDrawn';

/** What the trade’s table says of a unit’s open failures, by key; worked out apart from the screen. */
export function usePoints(unit: Unit, keys: readonly string[]): ReadonlyMap<string, Told> {
  const rig = useMemo(() => ({ unit, towed: [] }), [unit]);
  const { data } = useSWRImmutable<Told[], Error>(
    keys.length === 0 ? null : `points ${keys.join(' ')} ${rigKey(rig)}`,
    () => inDrawing((drawing) => drawing.points(rig, keys)),
  );
  return useMemo(() => new Map((data ?? []).map((told) => [told.key, told])), [data]);
}
