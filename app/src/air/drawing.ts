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
import { pointsAt } from '@keen-bleed/core/diagnosis';
import { airOf, faultsOf } from '@keen-bleed/core/twin';
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
  /** What the trade’s table says of open failures, by their keys. */
  points: (rig: RigUnderTest, keys: readonly string[]) => Told[];
}

/** A row of the trade’s table for an open failure, in words. */
export interface Told {
  key: string;
  found: string;
  suspects: readonly string[];
  check: string;
}

/** Draws rigs, with nothing running in them. */
export const makeDrawing = (): Drawing => ({
  draw: (rig, options) => describeRig(airOf(rig, options)),
  plan: (rig, facing, level, options) => {
    const plan = planOf(rig, facing, level);
    return { plan, air: planAir(rig, plan, options) };
  },
  explain: explainPart,
  points: (rig, keys) => {
    const faults = faultsOf(rig);
    return keys.flatMap((key): Told[] => {
      const pointed = pointsAt(key, faults, []);
      if (!pointed) return [];
      const { symptom, suspects } = pointed;
      return [
        {
          key,
          found: symptom.found,
          suspects: suspects.map(({ part, title }) => `${part}: ${title}`),
          check: symptom.check,
        },
      ];
    });
  },
});
