import type { FigureId } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import {
  checksOf,
  doAll,
  explainPart,
  failsAt,
  type Check,
  type CheckAnswer,
  type Explained,
} from '@keen-bleed/core/checks';
import {
  planAir,
  planOf,
  type Facing,
  type Level,
  type Plan,
  type PlanAir,
} from '@keen-bleed/core/drawing';
import { expectedFigures, pointsAt } from '@keen-bleed/core/diagnosis';
import { airOf, faultsOf, partOf, Twin, type Fault } from '@keen-bleed/core/twin';
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
  /** Everything that can be checked on a rig. */
  checks: (rig: RigUnderTest) => readonly Check[];
  /** What is suspected, then where open failures may come from in the trade’s order. */
  likely: (rig: RigUnderTest, keys: readonly string[], faultIds: readonly string[]) => Likely[];
  /** What a sound rig of this description gives: figures of a run, and answers of checks. */
  expect: (rig: RigUnderTest, checkIds: readonly string[]) => Expected;
}

/** A fault that an open failure may come from, and the part it is of. */
export interface Likely {
  faultId: string;
  unit: number;
  partId: string;
  part: string;
  title: string;
}

/** What a repair should bring a rig to. */
export interface Expected {
  figures: Partial<Record<FigureId, number>>;
  answers: Record<string, CheckAnswer>;
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
  checks: (rig) => checksOf(rig, []),
  likely: (rig, keys, faultIds) => {
    const faults = faultsOf(rig);
    const twin = new Twin(rig);
    const named = [
      ...faults.filter(({ id }) => faultIds.includes(id)),
      ...keys.flatMap((key) => pointsAt(key, faults, [])?.suspects ?? []),
    ];
    const told = (fault: Fault): Likely => {
      const { unit, part: partId } = partOf(fault, twin);
      return { faultId: fault.id, unit, partId, part: fault.part, title: fault.title };
    };
    // What the failed step itself acts on comes after what the table names.
    const acting = keys.flatMap((key) => failsAt(rig, key));
    const all = [...new Set(named)].map(told);
    const own = faults
      .map(told)
      .filter(({ unit, partId }) => acting.some((at) => at.unit === unit && at.part === partId));
    const listed = [...new Map([...all, ...own].map((each) => [each.faultId, each])).values()];
    // Each part once before any of them a second time: it is the part that is looked for first.
    const seen = new Set<string>();
    const isFirst = ({ unit, partId }: Likely) =>
      !seen.has(`${unit} ${partId}`) && seen.add(`${unit} ${partId}`) !== undefined;
    const first = listed.filter(isFirst);
    return [...first, ...listed.filter((each) => !first.includes(each))];
  },
  expect: (rig, checkIds) => {
    const checks = checksOf(rig, []).filter(({ id }) => checkIds.includes(id));
    return {
      figures: expectedFigures(rig),
      answers: Object.fromEntries(checks.length === 0 ? [] : doAll(rig, checks, [])),
    };
  },
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
