import type { HeldNeedle, HeldState } from '@keen-bleed/contract';
import { bring, firstCocks } from '../checks/bring';
import { STATES } from '../checks/states';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { conductanceOf } from '../twin/faults/scales';
import { placeInfo } from '../twin/network/placeKinds';
import { Twin } from '../twin/twin';

/** A needle watched in a state. */
export interface Watched {
  state: HeldState;
  needle: HeldNeedle;
  /** The place of the tank behind it. */
  tank: string;
}

/** What each needle loses to a leak at each place: made from a sound twin of the rig. */
export interface SeenTable {
  rows: readonly Watched[];
  /** By place: how much faster each row falls for a leak of 1 scfm there, psi/min. */
  falls: Readonly<Record<string, readonly number[]>>;
  /** Places that are tanks: sound rigs seep there. */
  tanks: readonly string[];
  /** Places without air in every state, such as what lies behind a shut cock: nothing leaks there. */
  airless: readonly string[];
}

/** A leak as it is tried, scfm; what it does is taken as even up to what is met. */
const TRIED_SCFM = 0.4;
/** States in which needles are watched, in walking order. */
const STATES_HELD = [
  'parked',
  'released',
  'red out',
  'applied',
  'supply drained',
  'cocks shut',
] as const satisfies readonly HeldState[];
/** Under this a place has no air that would leak, psi. */
const AIRLESS_PSI = 20;
/** A needle is watched so long on the twin, s. */
const WATCHED_S = 60;

const NEEDLES: Readonly<Record<HeldNeedle, readonly string[]>> = {
  primary: ['primary tank'],
  secondary: ['secondary tank'],
  supply: ['supply tank'],
  trailer: ['#0 tank'],
};

/**
 * Puts a leak at every place of a rig in each state a hold is made in, and notes what each needle loses to it. Some
 * hundreds of short runs of the twin: not on the screen's thread.
 */
export function seenTable(rig: RigUnderTest): SeenTable {
  const twin = new Twin(rig, { tanksPsi: 90, shopAir: true });
  const needles = (Object.keys(NEEDLES) as HeldNeedle[]).flatMap((needle) => {
    const place = NEEDLES[needle].find((each) => twin.hasPlace(each));
    return place === undefined ? [] : [{ needle, place }];
  });
  const { nodes } = twin.system.network;
  const places = nodes.filter(({ unit, part }) => unit >= 0 && part !== null);
  const hasRed = nodes.some(({ kind, unit }) => kind === 'towed tank' && unit > 0);
  const falls = new Map<string, number[]>(places.map(({ id }) => [id, []]));
  const rows: Watched[] = [];
  const aired = new Set<string>();
  for (const state of STATES_HELD) {
    if (state === 'red out' && !hasRed) continue;
    if (state === 'supply drained' && !twin.hasWay('supply drain')) continue;
    // With one trailer there is nothing behind its cocks.
    if (state === 'cocks shut' && (firstCocks(twin).length === 0 || rig.towed.length < 2)) continue;
    const rigAs = new Twin(rig, { tanksPsi: 90 });
    bring(rigAs, STATES[state]);
    if (rigAs.hasWay('shop valve')) rigAs.open('shop valve', 0);
    const start = rigAs.save();
    for (const { id } of places) if (rigAs.psi(id) > AIRLESS_PSI) aired.add(id);
    const fallen = (): number[] => {
      const before = needles.map(({ place }) => rigAs.psi(place));
      rigAs.advanceTo(rigAs.timeS + WATCHED_S);
      return needles.map(({ place }, n) => (before[n]! - rigAs.psi(place)) * (60 / WATCHED_S));
    };
    const sound = fallen();
    for (const { id } of places) {
      rigAs.restore(start);
      rigAs.leak(id, conductanceOf(TRIED_SCFM));
      const with_ = fallen();
      falls.get(id)!.push(...with_.map((by, n) => Math.max(0, (by - sound[n]!) / TRIED_SCFM)));
    }
    for (const { needle, place } of needles) rows.push({ state, needle, tank: place });
  }
  return {
    rows,
    falls: Object.fromEntries(falls),
    airless: places.filter(({ id }) => !aired.has(id)).map(({ id }) => id),
    tanks: places.filter(({ kind }) => placeInfo(kind).isTank).map(({ id }) => id),
  };
}

/** Free air that a fall of a row comes to, scfm: by what a leak at the needle's own tank does to it. */
export const scfmOfFall = (table: SeenTable, row: number, psiPerMin: number): number => {
  const own = table.falls[table.rows[row]?.tank ?? '']?.[row] ?? 0;
  return own > 0 ? psiPerMin / own : 0;
};
