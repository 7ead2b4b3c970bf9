import type { PedalCall } from '@keen-bleed/contract';

/** What is called to whoever holds the pedal. */
export const CALLS: Readonly<Record<PedalCall, string>> = {
  press: 'Press and hold',
  release: 'Release',
};
