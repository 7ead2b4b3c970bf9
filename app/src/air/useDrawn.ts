import type { RigUnderTest } from '@keen-bleed/core';
import * as Comlink from 'comlink';
import useSWRImmutable from 'swr/immutable';
import type { Drawing, DrawingOptions } from './drawing';
import type { DrawnRig } from './drawnRig';

/** What a drawing depends on: which units, and how each of them is described now. */
const keyOf = ({ unit, towed }: RigUnderTest) =>
  `drawn ${[unit, ...towed].map(({ id, revision }) => `${id}/${revision}`).join(' ')}`;

/** A rig's parts and their places, laid out in a worker: it takes longer than a screen may stand still. */
export function useDrawn(rig: RigUnderTest | null): {
  drawn: DrawnRig | undefined;
  failed: boolean;
  again: () => void;
} {
  // By what the drawing depends on, not by the record: that comes in again and again, the same as before.
  const { data, error, mutate } = useSWRImmutable<DrawnRig, Error>(rig && keyOf(rig), () =>
    draw(rig),
  );
  return { drawn: data, failed: error !== undefined && !data, again: () => void mutate() };
}

/** Draws a rig in a thread of its own, apart from any that runs its air. */
export async function draw(
  rig: RigUnderTest | null,
  options: DrawingOptions = {},
): Promise<DrawnRig> {
  if (!rig) throw new Error('no rig is known yet');
  const thread = new Worker(new URL('../workers/drawing.worker', window.location.href));
  try {
    const broken = new Promise<never>((_, reject) => {
      // What a thread fails at while it loads is told to nobody else.
      thread.onerror = () => reject(new Error('the drawing’s thread cannot run here'));
    });
    return await Promise.race([Comlink.wrap<Drawing>(thread).draw(rig, options), broken]);
  } finally {
    thread.terminate();
  }
}
