import type { Check, RigStateId } from '../checks/check';
import type { Fault } from '../twin/faults/fault';
import { answerDeviation, logStudent, type WouldAnswer } from './likelihood';
import { rankingOf, type Ranking } from './ranking';
import type { Weighing } from './weigh';

/** A check and what it buys. */
export interface Bought {
  check: Check;
  /** How much less there is to guess after it, nats. */
  gain: number;
  /** With what it costs to change the rig's state, minutes. */
  minutes: number;
}

/** What to do next. */
export type Next =
  | { next: 'check'; best: Bought; others: readonly Bought[] }
  /** One part, or a group that nothing tells apart, stands out. */
  | { next: 'found' }
  | { next: 'sound' }
  /** Readings contradict each other, or a dial is off: read again, on a master gauge. */
  | { next: 'again'; which: string }
  /** No check tells more: something has to be opened, or measured again. */
  | { next: 'open' };

export interface NextOptions {
  /** The state the rig stands in now: checks of the same cost less. */
  state?: RigStateId | null;
  /** Checks that cannot be made now, or were made already, by id. */
  without?: readonly string[];
}

/** A cause stands out from this chance on. */
export const STANDS_OUT = 0.9;
/** A check that buys less is not worth anybody's time, nats. */
const LEAST_GAIN = 0.03;
/** What every check costs beside its own minutes: to fetch, to write down, to think. */
const EACH_COSTS = 6;
/** What a caution is worth in minutes: danger is paid for. */
const CAUTION_COSTS = 0.5;
/** What hardly anything speaks for is left out of the reckoning. */
const LEAST_RECKONED = 0.002;

/** The check that buys most for its minutes and its risk, or why there is none to make. */
export function nextCheck(
  weighing: Weighing,
  { state = null, without = [] }: NextOptions = {},
  ranking: Ranking = rankingOf(weighing),
): Next {
  if (ranking.sound >= STANDS_OUT) return { next: 'sound' };
  if (ranking.reader >= READ_AGAIN) return { next: 'again', which: slipOf(weighing) };
  const [first] = ranking.suspects;
  if (first && first.chance >= STANDS_OUT && ranking.two.chance < 0.5) return { next: 'found' };
  const done = new Set([
    ...without,
    ...weighing.evidence.flatMap((each) => (each.kind === 'answer' ? [each.checkId] : [])),
  ]);
  // In one go: each by itself would bring the rig into its state anew.
  weighing.model.answersTo([...weighing.model.checkById.keys()], null);
  const causes = causesOf(weighing, ranking);
  const bought = weighing.model.checks
    .filter(({ id }) => !done.has(id))
    .map((check) => ({
      check,
      gain: gainOf(weighing, check, causes),
      minutes: check.minutes + (check.state.id === state ? 0 : check.state.minutes),
    }))
    .filter(({ gain }) => gain >= LEAST_GAIN)
    .sort((a, b) => worth(b) - worth(a));
  const [best, ...others] = bought;
  if (best) return { next: 'check', best, others: others.slice(0, 6) };
  return first && first.chance >= 0.5 ? { next: 'found' } : { next: 'open' };
}

/** A dial or a reader is asked again from this chance on. */
const READ_AGAIN = 0.5;

/** Which reading most likely slipped, or `dial`. */
const slipOf = ({ weighed }: Weighing): string => {
  let which = '';
  let most = 0;
  for (const { cause, chance } of weighed) {
    if (cause.kind === 'reader' && chance > most) [which, most] = [cause.which, chance];
  }
  return which;
};

const worth = ({ check, gain, minutes }: Bought) =>
  gain / (minutes + EACH_COSTS + CAUTION_COSTS * check.cautions.length);

interface Weight {
  /** Causes of one group count as one. */
  group: string;
  chance: number;
  would: (check: Check) => WouldAnswer;
}

/** A fault is reckoned with slight, plain and bad: up to these severities. */
const BADNESS = [0.45, 0.75, 1] as const;

/**
 * What a check may part: every fault that anything speaks for, at each of three severities, since how bad it would be is
 * not known and a number tells little of which it is before that; and what is no fault of the list.
 */
function causesOf(weighing: Weighing, ranking: Ranking): Weight[] {
  // Where nothing of the list explains it, checks still part what is left of it.
  const listed = 1 - ranking.unlisted;
  const groupOf = new Map(
    ranking.suspects
      .filter(({ chance }) => chance >= LEAST_RECKONED * listed)
      .flatMap(({ faults }) => faults.map(({ id }) => [id, faults[0]!.id] as const)),
  );
  const parts = new Map<string, { fault: Fault; chance: number; severity: number }>();
  const add = (fault: Fault, severity: number, chance: number) => {
    if (!groupOf.has(fault.id)) return;
    const key = `${fault.id} ${BADNESS.findIndex((upTo) => severity <= upTo)}`;
    const part = parts.get(key) ?? { fault, chance: 0, severity: 0 };
    part.chance += chance;
    part.severity += chance * severity;
    parts.set(key, part);
  };
  for (const { cause, chance } of weighing.weighed) {
    if (cause.kind === 'fault') add(cause.fault, cause.severity, chance);
    if (cause.kind === 'pair') {
      cause.faults.forEach((fault, n) => add(fault, cause.severities[n]!, chance / 2));
    }
  }
  const faults = [...parts.values()]
    .filter(({ chance }) => chance >= (LEAST_RECKONED * listed) / BADNESS.length)
    .map(({ fault, chance, severity }): Weight => ({
      group: groupOf.get(fault.id)!,
      chance,
      would: (check) => weighing.wouldAnswer(check, fault, severity / chance),
    }));
  const rest = ranking.sound + ranking.reader;
  return [
    ...faults,
    { group: 'sound', chance: rest, would: (check) => weighing.wouldAnswer(check, null, 0) },
  ];
}

/** Entropy of what is left, times its share: so that shares of answers need not be summed first. */
const entropyTimes = (chances: Float64Array): number => {
  let sum = 0;
  let logs = 0;
  for (const chance of chances) {
    if (chance <= 0) continue;
    sum += chance;
    logs += chance * Math.log(chance);
  }
  return sum > 0 ? sum * Math.log(sum) - logs : 0;
};

/** Groups of causes by number, so that what an answer does to them is summed without looking names up. */
function numbered(causes: readonly Weight[]): { of: Int32Array; count: number } {
  const numbers = new Map<string, number>();
  const of = Int32Array.from(causes, ({ group }) => {
    const known = numbers.get(group) ?? numbers.size;
    numbers.set(group, known);
    return known;
  });
  return { of, count: numbers.size };
}

function groupsOf(causes: readonly Weight[], times: (n: number) => number): Map<string, number> {
  const groups = new Map<string, number>();
  causes.forEach(({ group, chance }, n) => {
    groups.set(group, (groups.get(group) ?? 0) + chance * times(n));
  });
  return groups;
}

/** Where a number is told apart from a sound rig's, in deviations off its mean, either way. */
const APART = [0.7, 1.5, 2.5, 4, 7, 12, 25] as const;

/** Shares of a number in each band about a sound rig's mean; a logistic law stands for the normal one. */
function inBands(off: number, by: number, deviation: number): number[] {
  const under = [...APART.map((at) => -at).reverse(), ...APART].map(
    (at) => 1 / (1 + Math.exp((-1.702 * (at * deviation - off)) / by)),
  );
  return [...under, 1].map((share, n) => share - (under[n - 1] ?? 0));
}

/** How much less there is to guess once a check is answered, nats. */
function gainOf(weighing: Weighing, check: Check, causes: readonly Weight[]): number {
  const all = causes.reduce((sum, { chance }) => sum + chance, 0);
  const { of, count } = numbered(causes);
  const would = causes.map((cause) => cause.would(check));
  // Most causes show nothing in most checks: what they would answer is one and the same object, and they are summed once.
  const still = weighing.wouldAnswer(check, null, 0);
  const unmoved = new Float64Array(count);
  const moved: number[] = [];
  causes.forEach(({ chance }, n) => {
    if (would[n] === still) unmoved[of[n]!]! += chance;
    else moved.push(n);
  });
  const posterior = new Float64Array(count);
  const leftBy = (unmovedTimes: number, times: (n: number) => number): number => {
    for (let g = 0; g < count; g += 1) posterior[g] = unmoved[g]! * unmovedTimes;
    for (const n of moved) posterior[of[n]!]! += causes[n]!.chance * times(n);
    return entropyTimes(posterior);
  };
  const before = leftBy(1, () => 1);
  let after = 0;
  if (check.answer.kind === 'number' || check.answer.kind === 'points') {
    const { deviation: sound, mean } = weighing.model.soundTo(check.id);
    const usual = answerDeviation(check, sound, 0);
    const bandsStill = inBands(0, usual, usual);
    const bands = new Map(
      moved.map((n) => {
        const { mean: at, shift, unsure } = would[n]!;
        return [
          n,
          shift === 0 && unsure === 0
            ? bandsStill
            : inBands(at - mean, Math.hypot(answerDeviation(check, sound, shift), unsure), usual),
        ] as const;
      }),
    );
    bandsStill.forEach((share, band) => {
      after += leftBy(share, (n) => bands.get(n)![band]!);
    });
  } else {
    const answers = new Set(
      [still, ...moved.map((n) => would[n]!)].flatMap(({ chances }) => Object.keys(chances)),
    );
    for (const said of answers) {
      after += leftBy(still.chances[said] ?? 0, (n) => would[n]!.chances[said] ?? 0);
    }
  }
  return (before - after) / all;
}

/** What an answer would mean: the suspect that would then stand first, or none. */
export interface Meaning {
  /** An option of the check, or at, under and over which a number would lie. */
  answer: { option: string } | { mean: number };
  /** First suspect after it, by the fault it is named for; `sound` for no fault of the list. */
  group: string;
  chance: number;
}

/** What each answer to a check would mean, the likeliest answers first. */
export function meaningsOf(weighing: Weighing, check: Check, ranking: Ranking): Meaning[] {
  const causes = causesOf(weighing, ranking);
  const would = causes.map((cause) => cause.would(check));
  const best = (times: (n: number) => number) => {
    const groups = groupsOf(causes, times);
    let sum = 0;
    let first: readonly [string, number] = ['sound', 0];
    for (const [group, chance] of groups) {
      sum += chance;
      if (chance > first[1]) first = [group, chance];
    }
    return { group: first[0], chance: sum > 0 ? first[1] / sum : 0, sum };
  };
  if (check.answer.kind === 'number' || check.answer.kind === 'points') {
    const { deviation, mean } = weighing.model.soundTo(check.id);
    const by = would.map(({ shift }) => answerDeviation(check, deviation, shift));
    const at = (value: number) => best((n) => Math.exp(logStudent(value - would[n]!.mean, by[n]!)));
    const first = causes.findIndex(
      ({ chance, group }, n) =>
        group !== 'sound' && chance > 0 && Math.abs(would[n]!.mean - mean) > by[n]!,
    );
    const points = first < 0 ? [mean] : [mean, would[first]!.mean];
    return points.map((value) => {
      const { group, chance } = at(value);
      return { answer: { mean: value }, group, chance };
    });
  }
  const options = [...new Set(would.flatMap(({ chances }) => Object.keys(chances)))];
  return options
    .map((option) => ({ option, ...best((n) => would[n]!.chances[option] ?? 0) }))
    .sort((a, b) => b.sum - a.sum)
    .map(({ option, group, chance }) => ({ answer: { option }, group, chance }));
}
