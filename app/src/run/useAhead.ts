import { useSyncExternalStore } from 'react';
import type { LiveRun } from '../store/useRun';

const nobody = () => () => undefined;
const nothing = () => null;

/** The run as far as it is kept, which may be a moment ahead of what its screen is drawn with. */
export function useAhead({ ahead, state }: Pick<LiveRun, 'ahead' | 'state'>): LiveRun['state'] {
  return useSyncExternalStore(ahead?.subscribe ?? nobody, ahead?.state ?? nothing) ?? state;
}
