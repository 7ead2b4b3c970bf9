import type { RigUnderTest } from '@keen-bleed/core';
import { airOf } from '@keen-bleed/core/twin';
import { describeRig } from './describeRig';
import type { DrawnRig } from './drawnRig';

/** What else is drawn: places and ways come in the order of a twin with the same. */
export interface DrawingOptions {
  shopAir?: boolean;
  load?: number;
}

/** The drawing’s own thread, as the screen calls it. */
export interface Drawing {
  draw: (rig: RigUnderTest, options?: DrawingOptions) => DrawnRig;
}

/** Draws rigs, with nothing running in them. */
export const makeDrawing = (): Drawing => ({
  draw: (rig, options) => describeRig(airOf(rig, options), rig),
});
