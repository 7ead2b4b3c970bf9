import type { RigUnderTest } from '@keen-bleed/core';
import useSWRImmutable from 'swr/immutable';
import type { Expected } from '../air/drawing';
import { inDrawing, rigKey } from '../air/useDrawn';

/** What a sound rig of this description gives, worked out apart from the screen; null where it is not wanted or not ready. */
export function useExpected(
  rig: RigUnderTest | null,
  checkIds: readonly string[],
): Expected | null {
  const { data } = useSWRImmutable<Expected, Error>(
    rig === null ? null : `expected ${checkIds.join(' ')} ${rigKey(rig)}`,
    () => inDrawing((drawing) => drawing.expect(rig!, checkIds)),
  );
  return data ?? null;
}
