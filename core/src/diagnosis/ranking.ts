import type { Fault } from '../twin/faults/fault';
import { answerDeviation, type WouldAnswer } from './likelihood';
import type { Check } from '../checks/check';
import { faultsIn, type Weighing } from './weigh';

/** A cause, or some that nothing but opening them tells apart, and its chance. */
export interface Suspect {
  /** The likeliest first; more than one where no check tells them apart. */
  faults: readonly Fault[];
  /** Of a hundred rigs that read like this, so many have it; 0 to 1. */
  chance: number;
  /** How bad the first of them would be: its mean, 0 to 1. */
  severity: number;
}

/** What is behind the evidence, the likeliest first. */
export interface Ranking {
  suspects: readonly Suspect[];
  /** Chances of what is no fault of the list. */
  sound: number;
  reader: number;
  unlisted: number;
  /** That two faults are there at once, and which they would be. */
  two: { chance: number; faults: readonly Fault[] };
}

/** Suspects under this are not spoken of. */
export const LEAST_SPOKEN_OF = 0.01;
/** So many of the likeliest are looked at for groups. */
const GROUPED = 10;
/** A suspect that hardly anything speaks for is of no group. */
const LEAST_GROUPED = 0.05;
/** Apart by less than this, in nats both ways, a check does not tell two causes apart. */
const TELLS_NATS = 2;

/** Chances of single faults, whether alone or beside another, with how bad each would be. */
export function faultChances(
  weighing: Weighing,
): ReadonlyMap<string, { fault: Fault; chance: number; severity: number }> {
  const found = new Map<string, { fault: Fault; chance: number; sum: number }>();
  for (const { cause, chance } of weighing.weighed) {
    faultsIn(cause).forEach((fault, n) => {
      const severity =
        cause.kind === 'fault' ? cause.severity : cause.kind === 'pair' ? cause.severities[n]! : 0;
      const before = found.get(fault.id) ?? { fault, chance: 0, sum: 0 };
      found.set(fault.id, {
        fault,
        chance: before.chance + chance,
        sum: before.sum + chance * severity,
      });
    });
  }
  return new Map(
    [...found].map(([id, { fault, chance, sum }]) => [
      id,
      { fault, chance, severity: chance > 0 ? sum / chance : 0 },
    ]),
  );
}

/** How far apart what two causes would answer is, in nats both ways. */
export function tellsApart(
  check: Check,
  a: WouldAnswer,
  b: WouldAnswer,
  soundDeviation: number,
): number {
  if (check.answer.kind === 'number' || check.answer.kind === 'points') {
    const one = answerDeviation(check, soundDeviation, a.shift);
    const other = answerDeviation(check, soundDeviation, b.shift);
    return ((a.mean - b.mean) ** 2 * (1 / one ** 2 + 1 / other ** 2)) / 2;
  }
  return Object.keys({ ...a.chances, ...b.chances }).reduce((sum, said) => {
    const p = Math.max(1e-3, a.chances[said] ?? 0);
    const q = Math.max(1e-3, b.chances[said] ?? 0);
    return sum + (p - q) * Math.log(p / q);
  }, 0);
}

/** The ranking that a weighing comes to. */
export function rankingOf(weighing: Weighing): Ranking {
  const sum = (kind: string) =>
    weighing.weighed.reduce(
      (all, { cause, chance }) => all + (cause.kind === kind ? chance : 0),
      0,
    );
  const ranked = [...faultChances(weighing).values()].sort((a, b) => b.chance - a.chance);
  const pairs = weighing.weighed.filter(({ cause }) => cause.kind === 'pair');
  const best = pairs.reduce<(typeof pairs)[number] | null>(
    (most, each) => (most === null || each.chance > most.chance ? each : most),
    null,
  );
  return {
    suspects: grouped(weighing, ranked),
    sound: sum('sound'),
    reader: sum('reader'),
    unlisted: sum('unlisted'),
    two: { chance: sum('pair'), faults: best ? faultsIn(best.cause) : [] },
  };
}

interface Ranked {
  fault: Fault;
  chance: number;
  severity: number;
}

/** Puts together what no check tells apart. */
function grouped(weighing: Weighing, ranked: readonly Ranked[]): Suspect[] {
  const groups: Ranked[][] = [];
  ranked.forEach((each, n) => {
    const group =
      n < GROUPED && each.chance >= LEAST_GROUPED && isShown(weighing, each)
        ? groups
            .slice(0, GROUPED)
            .find((some) => some.every((other) => isAlike(weighing, each, other)))
        : undefined;
    if (group) group.push(each);
    else groups.push([each]);
  });
  return groups
    .map((group) => ({
      faults: group.map(({ fault }) => fault),
      chance: group.reduce((all, { chance }) => all + chance, 0),
      severity: group[0]!.severity,
    }))
    .sort((a, b) => b.chance - a.chance);
}

/** How bad a fault is taken to be, where it is asked whether a check tells it: hardly there, nothing tells anything. */
const plain = (severity: number) => Math.max(0.4, severity);

/** Some check tells it from a sound rig. */
const isShown = (weighing: Weighing, { fault, severity }: Ranked): boolean =>
  weighing.model.checks.some((check) => {
    const would = weighing.wouldAnswer(check, fault, plain(severity));
    const sound = weighing.wouldAnswer(check, null, 0);
    const isLook = check.doing.does === 'look';
    const deviation = isLook ? 1 : weighing.model.soundTo(check.id).deviation;
    return tellsApart(check, would, sound, deviation) >= TELLS_NATS;
  });

/** No check tells the one from the other, as far as the model has done them. */
function isAlike(weighing: Weighing, a: Ranked, b: Ranked): boolean {
  const { model } = weighing;
  return model.checks.every((check) => {
    const isLook = check.doing.does === 'look';
    if (!isLook && (!model.knows(check.id, a.fault.id) || !model.knows(check.id, b.fault.id))) {
      // What is not worked out yet may tell them apart.
      return false;
    }
    const one = weighing.wouldAnswer(check, a.fault, plain(a.severity));
    const other = weighing.wouldAnswer(check, b.fault, plain(b.severity));
    const deviation = isLook ? 1 : model.soundTo(check.id).deviation;
    return tellsApart(check, one, other, deviation) < TELLS_NATS;
  });
}
