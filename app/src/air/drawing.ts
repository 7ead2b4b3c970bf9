import type { RigUnderTest } from '@keen-bleed/core';
import { Twin } from '@keen-bleed/core/twin';
import { describeRig } from './describeRig';
import type { DrawnRig } from './drawnRig';

/** The drawing’s own thread, as the screen calls it. */
export interface Drawing {
  draw: (rig: RigUnderTest) => DrawnRig;
}

/** Draws rigs, with nothing running in them. */
export const makeDrawing = (): Drawing => ({
  draw: (rig) => describeRig(new Twin(rig).system.network, rig),
});
