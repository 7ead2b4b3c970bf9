import { outflowScfm } from '../twin/senses/freeAir';
import { lossAt } from '../twin/senses/soapAndEar';
import type { Twin } from '../twin/twin';
import { press, wait } from './bring';
import type { Doing, RodsWrong, Senses, Spot } from './check';
import type { Chance } from './observe';
import { ALL, NOTHING } from './walkChecks';

/** From two paces away air has to be so much louder than at an ear held close. */
const FROM_AFAR = 2.5;
/** The one beside is named for the right one so often. */
const BESIDE = 0.07;
/** At a light pedal a rod has moved from so much on, psi. */
const LIGHT_PSI = 9;
const MOVED_PSI = 2.5;
/** A rod that is later than the usual one of its unit by this is seen to be, s. */
const LATER_S = 0.35;
const ON_PSI = 60;
const GONE_PSI = 40;
/** Released, a service side above this, or springs under that, keep a rod out; psi. */
const RESIDUAL_PSI = 3;
const SPRINGS_HOLD_PSI = 55;
/** A stroke is plainly long from so many times the usual on. */
const LONG = 1.18;
/** So much of a tank’s room is more than a sound rig gathers between two drainings. */
const A_CUP = 0.17;

type Walk = Extract<Doing, { does: 'walk' }>;

/** What somebody who walks round a twin comes back with: the id of a spot, or that nothing stood out. */
export function walked(twin: Twin, { of, spots }: Walk, senses: Senses, chance: Chance): string {
  const shown = shownOn(twin, of, spots, senses);
  if (of === 'lamps') return shown;
  // What a rod does stands before its place: another place is taken for it, not another thing.
  const what = /^(out|idle|late)\./.exec(shown)?.[0] ?? '';
  const at = spots.findIndex(({ id }) => `${what}${id}` === shown);
  const missed = of === 'air' ? senses.missed : senses.lookWrong;
  const imagined = of === 'air' ? senses.imagined : senses.lookWrong / 2;
  if (shown === NOTHING) {
    if (chance.even() >= imagined || spots.length === 0) return NOTHING;
    const { id } = spots[Math.min(spots.length - 1, Math.floor(chance.even() * spots.length))]!;
    return of === 'rods' ? `late.${id}` : id;
  }
  if (missed > 0 && chance.even() < missed) return NOTHING;
  if (at < 0 || missed === 0 || chance.even() >= BESIDE) return shown;
  return `${what}${(spots[at + 1] ?? spots[at - 1] ?? spots[at])!.id}`;
}

function shownOn(twin: Twin, of: Walk['of'], spots: readonly Spot[], senses: Senses): string {
  switch (of) {
    case 'air': {
      const close = twin.rpm > 0 ? senses.heardRunningScfm : senses.heardQuietScfm;
      return most(
        spots,
        ({ at, is }) => (is === 'port' ? outflowScfm(twin, at) : lossAt(twin, at)),
        FROM_AFAR * close,
      );
    }
    case 'rods':
      return rodsOn(twin, spots);
    case 'strokes':
      return most(spots, ({ at }) => strokeOf(twin, at), LONG);
    case 'water':
      return most(spots, ({ at }) => waterShare(twin, at), A_CUP);
    case 'lamps': {
      const isLit = () => twin.isSomeHigh('stop-lamp switch');
      press(twin, 0);
      wait(twin, 2);
      if (isLit()) return 'always';
      press(twin, 8);
      wait(twin, 2);
      if (isLit()) return NOTHING;
      press(twin, 30);
      wait(twin, 2);
      return isLit() ? 'late' : 'dead';
    }
  }
}

/** The worst of what rods do, one place named for each. */
function rodsOn(twin: Twin, spots: readonly Spot[]): string {
  press(twin, LIGHT_PSI);
  wait(twin, 4);
  const idle = outlier(spots, ({ at }) => MOVED_PSI - twin.psi(at), 0);
  press(twin, 0);
  wait(twin, 4);
  const late = latest(twin, spots);
  press(twin, 90);
  wait(twin, 6);
  press(twin, 0);
  wait(twin, 2);
  const out = outlier(
    spots,
    ({ at }) => {
      const springs = springsOf(twin, at);
      return Math.max(
        twin.psi(at) - RESIDUAL_PSI,
        springs === null ? -1 : SPRINGS_HOLD_PSI - springs,
      );
    },
    0,
  );
  const found: readonly (readonly [RodsWrong, string])[] = [
    ['out', out],
    ['idle', idle],
    ['late', late],
  ];
  const worst = found.find(([, spot]) => spot !== NOTHING);
  return worst ? `${worst[0]}.${worst[1]}` : NOTHING;
}

/** The spot where a measure is largest, where it is over a least. */
function most(spots: readonly Spot[], measure: (spot: Spot) => number, least: number): string {
  let [name, largest] = [NOTHING, least];
  for (const spot of spots) {
    const value = measure(spot);
    if (value > largest) [name, largest] = [spot.id, value];
  }
  return name;
}

/** As `most`; where nearly every spot is over it, all are. */
function outlier(spots: readonly Spot[], measure: (spot: Spot) => number, least: number): string {
  const values = spots.map(measure);
  const over = values.filter((value) => value > least).length;
  if (over > 0.8 * spots.length) return ALL;
  return most(spots, (spot) => values[spots.indexOf(spot)]!, least);
}

/** The rod that passes a pressure plainly later than the others of its unit. */
function latest(twin: Twin, spots: readonly Spot[]): string {
  press(twin, ON_PSI + 20);
  const fromS = twin.timeS;
  const passedS = new Map<string, number>();
  while (passedS.size < spots.length && twin.timeS - fromS < 5) {
    wait(twin, 0.04);
    for (const { id, at } of spots) {
      if (!passedS.has(id) && twin.psi(at) >= GONE_PSI) passedS.set(id, twin.timeS - fromS);
    }
  }
  const timeOf = ({ id }: Spot) => passedS.get(id) ?? 5;
  const usual = (unit: number) => {
    const times = spots
      .filter((spot) => spot.unit === unit)
      .map(timeOf)
      .sort((a, b) => a - b);
    return times[0] ?? 0;
  };
  return most(spots, (spot) => timeOf(spot) - usual(spot.unit), LATER_S);
}

/** What stands at the spring side of a service chamber; null where it has none. */
function springsOf(twin: Twin, service: string): number | null {
  const spring = `${service} spring`;
  return twin.hasPlace(spring) ? twin.psi(spring) : null;
}

const indexOf = (twin: Twin, place: string) =>
  twin.system.network.nodes.findIndex(({ id }) => id === place);

const strokeOf = (twin: Twin, place: string) => twin.system.stroke[indexOf(twin, place)] ?? 1;

function waterShare(twin: Twin, place: string): number {
  const at = indexOf(twin, place);
  const room = twin.system.network.nodes[at]?.volumeM3 ?? 1;
  return 1 - (twin.system.volume[at] ?? room) / room;
}
