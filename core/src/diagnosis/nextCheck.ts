import type { Check, RigStateId } from '../checks/check';
import { answerDeviation, logStudent, type WouldAnswer } from './likelihood';
import { faultChances, rankingOf, type Ranking } from './ranking';
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
const CAUSES = 16;

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

/** What a check may part: the likeliest suspects, and what is no fault of the list. */
function causesOf(weighing: Weighing, ranking: Ranking): Weight[] {
  const chances = faultChances(weighing);
  const faults = ranking.suspects.slice(0, CAUSES).flatMap(({ faults: group }): Weight[] =>
    group.map((fault) => {
      const { chance = 0, severity = 0 } = chances.get(fault.id) ?? {};
      return {
        group: group[0]!.id,
        chance,
        would: (check) => weighing.wouldAnswer(check, fault, severity),
      };
    }),
  );
  const rest = ranking.sound + ranking.reader;
  return [
    ...faults,
    { group: 'sound', chance: rest, would: (check) => weighing.wouldAnswer(check, null, 0) },
  ];
}

const entropyOf = (chances: ReadonlyMap<string, number>): number => {
  let sum = 0;
  for (const chance of chances.values()) sum += chance;
  let entropy = 0;
  for (const chance of chances.values()) {
    if (chance > 0) entropy -= (chance / sum) * Math.log(chance / sum);
  }
  return entropy;
};

function groupsOf(causes: readonly Weight[], times: (n: number) => number): Map<string, number> {
  const groups = new Map<string, number>();
  causes.forEach(({ group, chance }, n) => {
    groups.set(group, (groups.get(group) ?? 0) + chance * times(n));
  });
  return groups;
}

/** Points of a number that stand for all it may be under one cause: deviations off its mean, and their shares. */
const POINTS = [
  [-1.2, 0.25],
  [0, 0.5],
  [1.2, 0.25],
] as const;

/** How much less there is to guess once a check is answered, nats. */
function gainOf(weighing: Weighing, check: Check, causes: readonly Weight[]): number {
  const before = entropyOf(groupsOf(causes, () => 1));
  const all = causes.reduce((sum, { chance }) => sum + chance, 0);
  const would = causes.map((cause) => cause.would(check));
  if (check.answer.kind === 'number' || check.answer.kind === 'points') {
    const { deviation } = weighing.model.soundTo(check.id);
    const by = would.map(({ shift }) => answerDeviation(check, deviation, shift));
    let after = 0;
    causes.forEach(({ chance }, n) => {
      if (chance < 0.002 * all) {
        after += (chance / all) * before;
        return;
      }
      for (const [off, share] of POINTS) {
        const at = would[n]!.mean + off * by[n]!;
        const posterior = groupsOf(causes, (m) =>
          Math.exp(logStudent(at - would[m]!.mean, by[m]!)),
        );
        after += (chance / all) * share * entropyOf(posterior);
      }
    });
    return before - after;
  }
  const answers = new Set(would.flatMap(({ chances }) => Object.keys(chances)));
  let after = 0;
  for (const said of answers) {
    const posterior = groupsOf(causes, (m) => would[m]!.chances[said] ?? 0);
    let share = 0;
    for (const chance of posterior.values()) share += chance;
    if (share > 0) after += (share / all) * entropyOf(posterior);
  }
  return before - after;
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
