import { rigKey, type RigUnderTest } from '@keen-bleed/core';
import * as Comlink from 'comlink';
import type { Drawing, DrawingOptions } from './drawing';
import type { DrawnRig } from './drawnRig';

/** What a drawing depends on. */
export { rigKey };

/** Describes a rig's air in a thread of its own. */
export const draw = (rig: RigUnderTest, options: DrawingOptions = {}): Promise<DrawnRig> =>
  inDrawing((drawing) => drawing.draw(rig, options));

/** Does something in the drawing's own thread, apart from any that runs a rig's air: it takes longer than a screen may stand still. */
export async function inDrawing<T>(
  does: (drawing: Comlink.Remote<Drawing>) => Promise<T>,
): Promise<T> {
  const thread = new Worker(new URL('../workers/drawing.worker', window.location.href));
  try {
    const broken = new Promise<never>((_, reject) => {
      // What a thread fails at while it loads is told to nobody else.
      thread.onerror = () => reject(new Error('the drawing’s thread cannot run here'));
    });
    return await Promise.race([does(Comlink.wrap<Drawing>(thread)), broken]);
  } finally {
    thread.terminate();
  }
}
