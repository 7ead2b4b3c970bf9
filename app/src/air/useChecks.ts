import type { RigUnderTest } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import useSWRImmutable from 'swr/immutable';
import { inDrawing, rigKey } from './useDrawn';

const NONE: readonly Check[] = [];

/** Everything that can be checked on a rig, made apart from the screen: it takes longer than that may stand still. Empty until then. */
export function useChecks(rig: RigUnderTest): readonly Check[] {
  const { data } = useSWRImmutable<readonly Check[], Error>(
    `checks ${rigKey(rig)}`,
    () => checksNow(rig),
    { keepPreviousData: true },
  );
  return data ?? NONE;
}

/** Everything that can be checked on a rig, once it has been made. */
export const checksNow = (rig: RigUnderTest): Promise<readonly Check[]> =>
  inDrawing((drawing) => drawing.checks(rig));
