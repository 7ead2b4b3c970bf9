import type { RigUnderTest } from '@keen-bleed/core';
import useSWRImmutable from 'swr/immutable';
import type { Drawing, LosesAir } from './drawing';
import { inDrawing, rigKey } from './useDrawn';

const NONE: readonly LosesAir[] = [];

/** What else has no air once a place is capped or taken off, worked out apart from the screen; `names` are null until then. */
export function useLosesAir(
  rig: RigUnderTest,
  place: string | null,
): {
  names: readonly string[] | null;
  lost: readonly LosesAir[];
  capped: LosesAir | null;
} {
  const { data, error } = useSWRImmutable<Awaited<ReturnType<Drawing['loses']>>, Error>(
    place === null ? null : `loses ${place} ${rigKey(rig)}`,
    () => inDrawing((drawing) => drawing.loses(rig, place ?? '')),
  );
  const lost = data?.lost ?? NONE;
  return {
    names: data || error ? lost.map(({ name }) => name) : null,
    lost,
    capped: data?.capped ?? null,
  };
}
