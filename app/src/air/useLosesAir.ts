import type { RigUnderTest } from '@keen-bleed/core';
import useSWRImmutable from 'swr/immutable';
import type { LosesAir } from './drawing';
import { inDrawing, rigKey } from './useDrawn';

const NONE: readonly LosesAir[] = [];

/** What else has no air once a place is capped or taken off, worked out apart from the screen; `names` are null until then. */
export function useLosesAir(
  rig: RigUnderTest,
  place: string | null,
): { names: readonly string[] | null; lost: readonly LosesAir[] } {
  const { data, error } = useSWRImmutable<readonly LosesAir[], Error>(
    place === null ? null : `loses ${place} ${rigKey(rig)}`,
    () => inDrawing((drawing) => drawing.loses(rig, place ?? '')),
  );
  const lost = data ?? NONE;
  return { names: data || error ? lost.map(({ name }) => name) : null, lost };
}
