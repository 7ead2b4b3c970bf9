import type { FigureId, GradesTaught } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import {
  applicationsOf,
  checksOf,
  doAll,
  explainPart,
  failsAt,
  type Applications,
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
import {
  budgetOf,
  gradesLearnt,
  huntOf,
  losesAir,
  seenTable,
  type Budget,
  type Ears,
  type Hold,
  type HuntEvent,
  type MayLeak,
  type SeenTable,
} from '@keen-bleed/core/hunt';
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
  /** What a sound rig of this description answers to some checks. */
  answers: (rig: RigUnderTest, checkIds: readonly string[]) => Record<string, CheckAnswer>;
  /** What each needle loses to a leak at each place. */
  seen: (rig: RigUnderTest) => SeenTable;
  /** A hunt's budget: what was lost against what was found. */
  budget: (asked: AskedBudget) => Budget;
  /** Applications that each tank gives with the engine off, with and without the water in it. */
  applications: (
    rig: RigUnderTest,
    waterMl: Readonly<Record<string, number>>,
  ) => { dry: Applications[]; now: Applications[] };
  /** Places that have no air once one is capped, and that one itself. */
  loses: (rig: RigUnderTest, place: string) => { capped: LosesAir | null; lost: LosesAir[] };
}

/** What a budget is reckoned from. */
export interface AskedBudget {
  table: SeenTable;
  joints: readonly MayLeak[];
  events: readonly HuntEvent[];
  /** Holds of the newest run. */
  ofRun: readonly Hold[];
  soapMisses?: number;
  /** How this shop's ears err. */
  ears?: Ears;
  /** What grades turned out to be in this shop. */
  taught: GradesTaught;
}

/** A place that has no air any more, and the part it is of. */
export interface LosesAir {
  name: string;
  unit: number;
  part: string | null;
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

function answersOf(rig: RigUnderTest, checkIds: readonly string[]): Record<string, CheckAnswer> {
  const checks = checksOf(rig, []).filter(({ id }) => checkIds.includes(id));
  return Object.fromEntries(checks.length === 0 ? [] : doAll(rig, checks, []));
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
  expect: (rig, checkIds) => ({
    figures: expectedFigures(rig),
    answers: answersOf(rig, checkIds),
  }),
  answers: answersOf,
  seen: seenTable,
  budget: ({ table, joints, events, ofRun, soapMisses, ears, taught }) => {
    const { wetted, holds, heard } = huntOf(events);
    return budgetOf(table, joints, wetted, [...ofRun, ...holds], {
      learnt: gradesLearnt(taught),
      heard,
      ...(ears ? { ears } : {}),
      ...(soapMisses === undefined ? {} : { soapMisses }),
    });
  },
  applications: (rig, waterMl) => {
    const dry = applicationsOf(rig);
    const isDry = Object.values(waterMl).every((ml) => ml <= 0);
    return { dry, now: isDry ? dry : applicationsOf(rig, waterMl) };
  },
  loses: (rig, place) => {
    const { nodes } = airOf(rig);
    const told = (id: string): LosesAir[] => {
      const node = nodes.find((each) => each.id === id);
      return node ? [{ name: node.name, unit: node.unit, part: node.part }] : [];
    };
    return { capped: told(place)[0] ?? null, lost: losesAir(rig, place).flatMap(told) };
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
