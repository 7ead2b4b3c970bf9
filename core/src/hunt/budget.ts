import { drawsOf } from '../twin/random';
import type { HeldNeedle, HeldState } from '@keen-bleed/contract';
import { drawFlow, type GradesLearnt, type LeakGrade } from './grades';
import { heardRatio, heardThatCounts, type Ears, type Heard } from './heard';
import { scfmOfFall, type SeenTable } from './seenTable';

/** A hold: how fast a needle fell in a state, psi/min, and the standard deviation of that. */
export interface Hold {
  state: HeldState;
  needle: HeldNeedle;
  psiPerMin: number;
  deviation: number;
  atMs: number;
}

/** What was found wetting a joint. */
export interface Wetted {
  place: string;
  grade: 'dry' | LeakGrade;
  atMs: number;
  /** When it was mended, where it was. */
  mendedAtMs: number | null;
  /** How often in a row it was wetted and looked so; once where it is not said. */
  times?: number;
}

/** A joint that may be wetted. */
export interface MayLeak {
  place: string;
  /** What part of the walk it is in. */
  section: string;
}

/** One line of a budget: a needle in a state. */
export interface BudgetLine {
  state: HeldState;
  needle: HeldNeedle;
  /** Free air that the hold lost, scfm, and its standard deviation. */
  lostScfm: number;
  lostDeviation: number;
  /** What the leaks found lose there, scfm: mean and standard deviation. */
  foundScfm: number;
  foundDeviation: number;
  /** What a sound rig seeps there, scfm. */
  usualScfm: number;
  /** What the next hold should read once all that was found is mended and nothing else leaks, psi/min: 5 and 95 of 100. */
  nextFrom: number;
  nextTo: number;
}

/** Measured loss against the sum of what was found. */
export interface Budget {
  lines: readonly BudgetLine[];
  /** Chance that a leak worth finding is still out there, 0 to 1. */
  chance: number;
  /** In which part of the walk it would be, the likeliest first; shares of `chance`. */
  where: readonly { section: string; chance: number; joints: number }[];
  /** By place: the chance that it leaks and was not found. */
  places: ReadonlyMap<string, number>;
  /** More was found than is lost: the place whose grade is worth another look. */
  tooMuch: string | null;
  /** The hold that would part what is left best; null where none would. */
  nextHold: { state: HeldState; needle: HeldNeedle } | null;
  closed: boolean;
}

export interface BudgetOptions {
  learnt?: GradesLearnt;
  /** Share of leaks that soap misses. */
  soapMisses?: number;
  /** Walks with an open ear, and how ears err. */
  heard?: readonly Heard[];
  ears?: Ears;
}

/** A leak that loses less is not worth a hunt, scfm. */
export const WORTH_FINDING_SCFM = 0.05;
/** Under this chance of another leak a hunt is over. */
export const CLOSED_UNDER = 0.1;

const DRAWN = 160;
/** Leaks that may be out there, scfm: even by the logarithm from what soap just shows to what nobody misses. */
const SIZES = [0.02, 0.035, 0.06, 0.1, 0.16, 0.25, 0.4, 0.65, 1, 1.6, 2.5, 4] as const;
/** One joint in so many leaks on a rig that is being hunted [common practice, no source]. */
const LEAKS = 0.02;
/** What a sound tank seeps: median, factor, least and most, scfm [trade: 0.01 to 0.1 a circuit]. */
const SEEP = { median: 0.03, factor: 2.5, least: 0.005, most: 0.12 } as const;
/** What the twin is off by in a needle's fall: a share of it, and a little beside, psi/min. */
const MODEL_SHARE = 0.12;
const MODEL_PSI_PER_MIN = 0.12;
const USUAL_SOAP_MISSES = 0.05;

interface Drawn {
  /** By row. */
  mean: Float64Array;
  seep: Float64Array;
  flows: number[];
}

/**
 * Weighs what holds lost against what was found: with seepage as sound rigs have it, each grade as the range an eye means
 * by it, and at most one more leak anywhere that was not wetted, or was and the soap missed it. Falls by the rig's own twin.
 *
 * @throws nothing: a hold of a needle the rig does not have is left out
 */
export function budgetOf(
  table: SeenTable,
  joints: readonly MayLeak[],
  wetted: readonly Wetted[],
  everHeld: readonly Hold[],
  { learnt = {}, soapMisses = USUAL_SOAP_MISSES, heard = [], ears }: BudgetOptions = {},
): Budget {
  const newestMs = Math.max(...everHeld.map(({ atMs }) => atMs));
  const holds = everHeld.filter(({ atMs }) => atMs >= newestMs - STALE_MS);
  const rows = newestHolds(table, holds);
  const found = foundOf(wetted);
  const drawn = drawAll(table, rows, found, learnt);
  const counts = heardThatCounts(heard, wetted);
  const unfound = mayStill(joints, wetted, soapMisses).map((each) => ({
    ...each,
    // Once for each size: it is asked for at every draw.
    prior: byHeard(
      each,
      SIZES.map((scfm) => heardRatio(each.place, scfm, counts, ears)),
    ),
  }));
  const [measuredAt, deviations] = [
    Float64Array.from(rows, ({ hold }) => hold.psiPerMin),
    Float64Array.from(rows, ({ hold }) => Math.hypot(hold.deviation, MODEL_PSI_PER_MIN)),
  ];
  // Student with 5 degrees: a needle that stuck, a foot that moved. Multiplied out, and raised once.
  const likelihood = (one: Drawn, scfm: number, falls: Float64Array): number => {
    let spread = 1;
    let off = 1;
    for (let r = 0; r < rows.length; r += 1) {
      const at = one.mean[r]! + scfm * falls[r]!;
      const seen = measuredAt[r]!;
      const share = MODEL_SHARE * (at > seen ? at : seen);
      const variance = deviations[r]! * deviations[r]! + share * share;
      spread *= variance;
      off *= 1 + ((seen - at) * (seen - at)) / (5 * variance);
    }
    return 1 / (off * off * off * Math.sqrt(spread));
  };
  const still = new Float64Array(rows.length);
  // Under no further leak.
  const weights = drawn.map((one) => likelihood(one, 0, still));
  const soundly = mean(weights);
  // Under one more, of each size, at each group of places that no needle tells apart.
  const groups = grouped(table, rows, unfound);
  const perSize = SIZES.length;
  let worth = 0;
  let slight = 0;
  const ofPlace = new Map<string, number>();
  for (const { places, falls } of groups) {
    const by = Float64Array.from(rows, ({ index }) => falls[index] ?? 0);
    SIZES.forEach((scfm, s) => {
      let share = 0;
      for (const one of drawn) share += likelihood(one, scfm, by);
      share /= DRAWN;
      const seen = places.reduce((sum, { prior }) => sum + prior(s), 0);
      const weight = (share * seen) / perSize;
      if (scfm < WORTH_FINDING_SCFM) slight += weight;
      else {
        worth += weight;
        for (const { place, prior } of places) {
          const part = seen > 0 ? (weight * prior(s)) / seen : 0;
          ofPlace.set(place, (ofPlace.get(place) ?? 0) + part);
        }
      }
    });
  }
  const all = soundly + slight + worth;
  const chance = all > 0 ? worth / all : 0;
  const places = new Map([...ofPlace].map(([place, w]) => [place, all > 0 ? w / all : 0]));
  const lines = linesOf(table, rows, drawn, weights);
  const tooMuch = tooMuchAt(table, rows, drawn, found);
  return {
    lines,
    chance,
    where: sectionsOf(unfound, places),
    places,
    tooMuch,
    nextHold: nextHoldOf(table, holds, places, chance),
    closed:
      rows.length > 0 &&
      chance < CLOSED_UNDER &&
      found.every(({ mendedAtMs }) => mendedAtMs !== null),
  };
}

interface Row {
  hold: Hold;
  /** Of the table. */
  index: number;
}

/** Holds longer before the newest one than this are of another rig, nearly: what leaks now may not have leaked then, ms. */
const STALE_MS = 24 * 3_600_000;

/** The newest hold of each needle in each state; what the rig does not have is left out. */
function newestHolds(table: SeenTable, holds: readonly Hold[]): Row[] {
  return table.rows.flatMap(({ state, needle }, index): Row[] => {
    const hold = holds
      .filter((each) => each.state === state && each.needle === needle)
      .reduce<Hold | null>(
        (newest, each) => (newest === null || each.atMs >= newest.atMs ? each : newest),
        null,
      );
    return hold ? [{ hold, index }] : [];
  });
}

interface FoundLeak {
  place: string;
  grade: LeakGrade;
  /** First seen; it leaked before that, too. */
  mendedAtMs: number | null;
}

/** Leaks found, each place by what was last seen there before it was mended. */
function foundOf(wetted: readonly Wetted[]): FoundLeak[] {
  return wetted.flatMap(({ place, grade, mendedAtMs }) =>
    grade === 'dry' ? [] : [{ place, grade, mendedAtMs }],
  );
}

function drawAll(
  table: SeenTable,
  rows: readonly Row[],
  found: readonly FoundLeak[],
  learnt: GradesLearnt,
): Drawn[] {
  const draws = drawsOf(11);
  const { median, factor, least, most } = SEEP;
  return Array.from({ length: DRAWN }, (): Drawn => {
    const seeps = table.tanks.map(() => {
      for (;;) {
        const scfm = median * factor ** draws.normal(3);
        if (scfm >= least && scfm <= most) return scfm;
      }
    });
    const flows = found.map(({ grade }) => drawFlow(grade, draws, learnt));
    const seep = Float64Array.from(rows, ({ index }) =>
      table.tanks.reduce((sum, tank, t) => sum + seeps[t]! * (table.falls[tank]?.[index] ?? 0), 0),
    );
    const meanOf = Float64Array.from(rows, ({ index, hold }, r) =>
      found.reduce(
        (sum, { place, mendedAtMs }, f) =>
          mendedAtMs !== null && mendedAtMs <= hold.atMs
            ? sum
            : sum + flows[f]! * (table.falls[place]?.[index] ?? 0),
        seep[r]!,
      ),
    );
    return { mean: meanOf, seep, flows };
  });
}

interface Unfound {
  place: string;
  section: string;
  /** Chance of a leak of the size of this index there, unfound. */
  prior: (size: number) => number;
}

/** Where a leak may still be: joints that were not wetted, and dry ones where the soap may have missed it. */
function mayStill(
  joints: readonly MayLeak[],
  wetted: readonly Wetted[],
  soapMisses: number,
): Unfound[] {
  const last = new Map(wetted.map((each) => [each.place, each]));
  return joints.flatMap(({ place, section }): Unfound[] => {
    const of = last.get(place);
    if (!of) return [{ place, section, prior: () => LEAKS }];
    if (of.grade !== 'dry' && of.mendedAtMs === null) return [];
    // A mend may not have held: as often as soap misses, until it is wetted again.
    const missed = () => LEAKS * Math.max(0.01, soapMisses) ** (of.times ?? 1);
    return [{ place, section, prior: missed }];
  });
}

const byHeard =
  ({ prior }: Unfound, ratios: readonly number[]) =>
  (size: number) =>
    Math.min(0.9, prior(size) * (ratios[size] ?? 1));

interface Group {
  falls: readonly number[];
  places: Unfound[];
}

/** Places whose leaks no hold that was made tells apart. */
function grouped(table: SeenTable, rows: readonly Row[], unfound: readonly Unfound[]): Group[] {
  const groups = new Map<string, Group>();
  for (const each of unfound) {
    const falls = table.falls[each.place] ?? [];
    const key = rows.map(({ index }) => (falls[index] ?? 0).toFixed(1)).join(' ');
    const group = groups.get(key);
    if (group) group.places.push(each);
    else groups.set(key, { falls, places: [each] });
  }
  return [...groups.values()];
}

const mean = (values: readonly number[]) =>
  values.reduce((sum, each) => sum + each, 0) / Math.max(1, values.length);

function linesOf(
  table: SeenTable,
  rows: readonly Row[],
  drawn: readonly Drawn[],
  weights: readonly number[],
): BudgetLine[] {
  const all = weights.reduce((sum, each) => sum + each, 0);
  return rows.map(({ hold, index }, r) => {
    const scfm = (psiPerMin: number) => scfmOfFall(table, index, psiPerMin);
    const found = drawn.map(({ mean: m, seep }) => m[r]! - seep[r]!);
    const foundMean = mean(found);
    const seeps = drawn
      .map(({ seep }, k) => ({ at: seep[r]!, weight: all > 0 ? weights[k]! / all : 1 / DRAWN }))
      .sort((a, b) => a.at - b.at);
    const quantile = (share: number) => {
      let sum = 0;
      for (const { at, weight } of seeps) {
        sum += weight;
        if (sum >= share) return at;
      }
      return seeps.at(-1)?.at ?? 0;
    };
    return {
      state: hold.state,
      needle: hold.needle,
      lostScfm: scfm(hold.psiPerMin),
      lostDeviation: scfm(hold.deviation),
      foundScfm: scfm(foundMean),
      foundDeviation: scfm(Math.sqrt(mean(found.map((each) => (each - foundMean) ** 2)))),
      usualScfm: scfm(quantile(0.5)),
      nextFrom: quantile(0.05),
      nextTo: quantile(0.95) + MODEL_PSI_PER_MIN,
    };
  });
}

/** What was found loses more than the holds: beyond what grades, eyes and gauges leave open. */
function tooMuchAt(
  table: SeenTable,
  rows: readonly Row[],
  drawn: readonly Drawn[],
  found: readonly FoundLeak[],
): string | null {
  for (const [r, { hold, index }] of rows.entries()) {
    const by = 2 * Math.hypot(hold.deviation, MODEL_PSI_PER_MIN);
    const least = drawn.map(({ mean: m }) => m[r]!).sort((a, b) => a - b)[Math.floor(DRAWN / 50)]!;
    if (least <= hold.psiPerMin + by) continue;
    // The grade that weighs most in it.
    return found
      .map(({ place, mendedAtMs }, f) => ({
        place,
        by:
          mendedAtMs !== null && mendedAtMs <= hold.atMs
            ? 0
            : mean(drawn.map(({ flows }) => flows[f]!)) * (table.falls[place]?.[index] ?? 0),
      }))
      .reduce((most, each) => (each.by > most.by ? each : most), { place: '', by: 0 }).place;
  }
  return null;
}

function sectionsOf(unfound: readonly Unfound[], places: ReadonlyMap<string, number>) {
  const sections = new Map<string, { chance: number; joints: number }>();
  for (const { place, section } of unfound) {
    const of = sections.get(section) ?? { chance: 0, joints: 0 };
    of.chance += places.get(place) ?? 0;
    of.joints += 1;
    sections.set(section, of);
  }
  return [...sections]
    .map(([section, of]) => ({ section, ...of }))
    .sort((a, b) => b.chance - a.chance);
}

/** A needle that falls by less for a leak of 0.2 scfm does not tell it, psi/min. */
const TELLS_PSI_PER_MIN = 0.5;
const TELLS_SCFM = 0.2;

/** The hold, of those not made yet, that splits what is left most evenly: an isolating step. */
function nextHoldOf(
  table: SeenTable,
  holds: readonly Hold[],
  places: ReadonlyMap<string, number>,
  chance: number,
): Budget['nextHold'] {
  const made = new Set(holds.map(({ state, needle }) => `${state} ${needle}`));
  let best: Budget['nextHold'] = null;
  let most = 0.1;
  table.rows.forEach(({ state, needle }, index) => {
    if (made.has(`${state} ${needle}`) || chance <= CLOSED_UNDER) return;
    let seen = 0;
    for (const [place, of] of places) {
      if ((table.falls[place]?.[index] ?? 0) * TELLS_SCFM >= TELLS_PSI_PER_MIN) seen += of;
    }
    const share = seen / chance;
    const gain = Math.min(share, 1 - share);
    if (gain > most) {
      most = gain;
      best = { state, needle };
    }
  });
  return best;
}
