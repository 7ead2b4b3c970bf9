import type { HeldState } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import {
  bring,
  checksOf,
  doCheck,
  STATES,
  USUAL_SENSES,
  type Check,
} from '@keen-bleed/core/checks';
import {
  budgetOf,
  heardOf,
  jointsOf,
  seenTable,
  type Heard,
  type Hold,
  type Joint,
  type SeenTable,
  type Wetted,
  type LeakGrade,
} from '@keen-bleed/core/hunt';
import { drawRig, drawsOf, Twin, type Draws, type Effect } from '@keen-bleed/core/twin';

/* Leaking rigs that the budget does not know: sound ones drawn from their spread, with leaks, and holds read by eye. */

/** Sonic conductance that loses a cubic foot a minute at 110 psi, m³/(s·Pa): by the choked flow of ISO 6358. */
const PER_SCFM = 5.59e-10;
/** Needles are read to this, psi. */
const READ_TO = 1;
const HOLD_S = 180;

export interface HuntRig {
  rig: RigUnderTest;
  table: SeenTable;
  joints: readonly Joint[];
  /** Walks with an open ear, one a state. */
  walks: readonly Check[];
}

export const huntRig = (rig: RigUnderTest): HuntRig => ({
  rig,
  table: seenTable(rig),
  walks: checksOf(rig).filter(
    ({ doing, state }) =>
      doing.does === 'walk' &&
      doing.of === 'air' &&
      (state.id === 'parked' || state.id === 'released' || state.id === 'applied'),
  ),
  joints: underAir(
    rig,
    jointsOf(checksOf(rig)).filter(({ pass }) => pass !== 'running'),
  ),
});

/** What holds no air in its state, such as a line behind a shut cock, leaks none. */
function underAir(rig: RigUnderTest, joints: readonly Joint[]): Joint[] {
  const twins = new Map<string, Twin>();
  return joints.filter(({ check, place }) => {
    const twin = twins.get(check.state.id) ?? new Twin(rig, { tanksPsi: 90 });
    if (!twins.has(check.state.id)) bring(twin, check.state);
    twins.set(check.state.id, twin);
    return twin.psi(place) > 20;
  });
}

export interface Leak {
  joint: Joint;
  scfm: number;
}

export const sectionOf = ({ pass, unit }: Joint) => `${pass} ${unit}`;
export const inSections = (joints: readonly Joint[]) =>
  joints.map((joint) => ({ place: joint.place, section: sectionOf(joint) }));

/** A rig from its spread with leaks, in a state, at cut-out. */
function standing(
  { rig }: HuntRig,
  drawn: readonly Effect[],
  leaks: readonly Leak[],
  state: HeldState,
): Twin {
  const twin = new Twin(rig, { tanksPsi: 90 });
  twin.apply(drawn);
  twin.apply(
    leaks.map(({ joint, scfm }) => ({
      does: 'leak',
      place: joint.place,
      conductance: scfm * PER_SCFM,
    })),
  );
  bring(twin, STATES[state]);
  if (twin.hasWay('shop valve')) twin.open('shop valve', 0);
  return twin;
}

const PLACE = { primary: 'primary tank', secondary: 'secondary tank', trailer: '#0 tank' } as const;

/** Holds of both dash needles in some states, read to a whole psi. */
export function heldIn(
  hunted: HuntRig,
  drawn: readonly Effect[],
  leaks: readonly Leak[],
  states: readonly HeldState[],
  draws: Draws,
): Hold[] {
  return states.flatMap((state) => {
    const needles = hunted.table.rows.filter(
      (row) => row.state === state && row.needle !== 'supply',
    );
    if (needles.length === 0) return [];
    const twin = standing(hunted, drawn, leaks, state);
    const read = (needle: string) =>
      Math.round(twin.psi(PLACE[needle as keyof typeof PLACE]) + 0.3 * draws.normal(3));
    const from = needles.map(({ needle }) => read(needle));
    twin.advanceTo(twin.timeS + HOLD_S);
    return needles.map(({ needle }, n): Hold => ({
      state,
      needle,
      psiPerMin: ((from[n]! - read(needle)) * 60) / HOLD_S,
      deviation: (Math.SQRT2 * READ_TO * 0.42 * 60) / HOLD_S,
      atMs: 1,
    }));
  });
}

/** What soap shows of a joint: the twin's flow at its pressure, through an eye that is not the model's. */
export function wet(check: Check, rig: Twin, draws: Draws): 'dry' | LeakGrade {
  const answer = doCheck(rig, check, {
    senses: { ...USUAL_SENSES, soapMisses: 0.07, soapOff: 0.22 },
    chance: { even: draws.even, normal: () => draws.normal(3) },
  });
  return answer.kind === 'grade' ? (answer.grade as 'dry' | LeakGrade) : 'dry';
}

/** What an open ear names on a walk in each state: by ears that are not the model's. */
export function listened(
  hunted: HuntRig,
  drawn: readonly Effect[],
  leaks: readonly Leak[],
  draws: Draws,
): Heard[] {
  return hunted.walks.flatMap((check) => {
    const twin = standing(hunted, drawn, leaks, check.state.id as HeldState);
    const answer = doCheck(
      twin,
      check,
      {
        senses: { ...USUAL_SENSES, missed: 0.14, imagined: 0.03, heardQuietScfm: 0.12 },
        chance: { even: draws.even, normal: () => draws.normal(3) },
      },
      true,
    );
    return heardOf(check, answer, 1) ?? [];
  });
}

/** Seeds one after the other begin alike: this takes them apart. */
const apart = (seed: number) => Math.imul(seed, 2_654_435_761) >>> 1;

/** One rig that was hunted part of the way: what the budget said, and what was so. */
export interface Hunted {
  chance: number;
  leaks: boolean;
}

/**
 * Draws a rig with some leaks, holds it, wets a share of its joints, and asks what is left.
 *
 * @param rate one joint in so many leaks
 */
export function huntOnce(hunted: HuntRig, seed: number, rate = 0.025): Hunted {
  const draws = drawsOf(apart(seed));
  const { effects } = drawRig(hunted.rig, seed + 40_000);
  const leaks = hunted.joints.flatMap((joint): Leak[] =>
    draws.even() < rate ? [{ joint, scfm: 0.02 * 200 ** draws.even() }] : [],
  );
  const states: HeldState[] =
    draws.even() < 0.5 ? ['released', 'applied'] : ['parked', 'released', 'red out', 'applied'];
  const holds = heldIn(hunted, effects, leaks, states, draws);
  const share = draws.even();
  const wetted: Wetted[] = [];
  const twins = new Map<string, Twin>();
  const left: Leak[] = [...leaks];
  for (const joint of hunted.joints) {
    if (draws.even() >= share) continue;
    const isLeaky = leaks.find((each) => each.joint === joint);
    // Where nothing leaks soap shows nothing: only leaking joints are worth the twin's time.
    const grade = isLeaky
      ? wet(joint.check, soaped(hunted, effects, leaks, joint, twins), draws)
      : 'dry';
    wetted.push({ place: joint.place, grade, atMs: 2, mendedAtMs: null });
    if (isLeaky && grade !== 'dry') left.splice(left.indexOf(isLeaky), 1);
  }
  // Half of those who hunt walk round with an open ear first.
  const heard = draws.even() < 0.5 ? listened(hunted, effects, leaks, draws) : [];
  const { chance } = budgetOf(hunted.table, inSections(hunted.joints), wetted, holds, { heard });
  return { chance, leaks: left.some(({ scfm }) => scfm >= 0.05) };
}

function soaped(
  hunted: HuntRig,
  effects: readonly Effect[],
  leaks: readonly Leak[],
  joint: Joint,
  twins: Map<string, Twin>,
): Twin {
  const state = joint.check.state.id;
  const known = twins.get(state);
  if (known) return known;
  const twin = new Twin(hunted.rig, { tanksPsi: 90 });
  twin.apply(effects);
  twin.apply(
    leaks.map(({ joint: at, scfm }) => ({
      does: 'leak',
      place: at.place,
      conductance: scfm * PER_SCFM,
    })),
  );
  twins.set(state, twin);
  return twin;
}

/** Chances as told against what was so, in tenths; tenths under a number are pooled with a neighbour. */
export function tenths(hunted: readonly Hunted[], least = 40) {
  const bins: Hunted[][] = [];
  for (let tenth = 0; tenth < 10; tenth += 1) {
    const some = hunted.filter(({ chance }) => Math.min(9, Math.floor(10 * chance)) === tenth);
    const last = bins.at(-1);
    if (last && last.length < least) last.push(...some);
    else bins.push(some);
  }
  const end = bins.at(-1);
  if (end && end.length < least && bins.length > 1) bins.at(-2)!.push(...bins.pop()!);
  return bins.map((some) => {
    const told = some.reduce((sum, { chance }) => sum + chance, 0) / Math.max(1, some.length);
    const was = some.filter(({ leaks }) => leaks).length / Math.max(1, some.length);
    const by = 1.96 * Math.sqrt(Math.max(0.02, was * (1 - was)) / Math.max(1, some.length));
    return { told, was, by, of: some.length };
  });
}

/**
 * A rig with one leak: how many joints are wetted until it is found where the likeliest part of the walk is taken first,
 * and how many are met on the plain walk, all of it.
 */
export function guided(
  hunted: HuntRig,
  seed: number,
  scfm: number,
): { found: boolean; wetted: number; all: number } {
  const draws = drawsOf(apart(seed));
  const { effects } = drawRig(hunted.rig, seed + 60_000);
  const joint = hunted.joints[Math.floor(draws.even() * hunted.joints.length)]!;
  const leaks = [{ joint, scfm }];
  const states: HeldState[] = ['parked', 'released', 'red out', 'applied'];
  const holds = heldIn(hunted, effects, leaks, states, draws);
  const heard = listened(hunted, effects, leaks, draws);
  const places = inSections(hunted.joints);
  const twins = new Map<string, Twin>();
  const wetted: Wetted[] = [];
  const all = places.length;
  // What was dry may be wetted again, where the holds say that a leak must be somewhere.
  for (let n = 1; n <= all; n += 1) {
    const { places: by } = budgetOf(hunted.table, places, wetted, holds, { heard });
    const next = [...hunted.joints].sort(
      (a, b) => (by.get(b.place) ?? 0) - (by.get(a.place) ?? 0),
    )[0]!;
    const grade =
      next === joint ? wet(next.check, soaped(hunted, effects, leaks, next, twins), draws) : 'dry';
    if (grade !== 'dry') return { found: true, wetted: n, all };
    const before = wetted.findIndex(({ place }) => place === next.place);
    const times = (wetted[before]?.times ?? 0) + 1;
    if (before >= 0) wetted.splice(before, 1);
    wetted.push({ place: next.place, grade, atMs: n + 1, mendedAtMs: null, times });
  }
  return { found: false, wetted: all, all };
}
