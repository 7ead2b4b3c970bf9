import type { RigUnderTest } from '@keen-bleed/core';
import { explainPart, type Explained } from '@keen-bleed/core/checks';
import {
  planAir,
  planOf,
  type Facing,
  type Level,
  type Plan,
  type PlanAir,
} from '@keen-bleed/core/drawing';
import { airOf } from '@keen-bleed/core/twin';
import { describeRig } from './describeRig';
import type { DrawnRig } from './drawnRig';

/** What else is drawn: places and ways come in the order of a twin with the same. */
export interface DrawingOptions {
  shopAir?: boolean;
  load?: number;
}

/** A drawing, and what of a twin moves it. */
export interface BoundPlan {
  plan: Plan;
  air: PlanAir;
}

/** The drawing’s own thread, as the screen calls it. */
export interface Drawing {
  draw: (rig: RigUnderTest, options?: DrawingOptions) => DrawnRig;
  plan: (rig: RigUnderTest, facing: Facing, level: Level, options?: DrawingOptions) => BoundPlan;
  explain: (rig: RigUnderTest, unit: number, part: string) => Explained;
}

/** Draws rigs, with nothing running in them. */
export const makeDrawing = (): Drawing => ({
  draw: (rig, options) => describeRig(airOf(rig, options)),
  plan: (rig, facing, level, options) => {
    const plan = planOf(rig, facing, level);
    return { plan, air: planAir(rig, plan, options) };
  },
  explain: explainPart,
});
