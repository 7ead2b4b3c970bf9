import type { FactStamp } from '@keen-bleed/contract';

/** What can say how far the clock of a lane was ahead. */
interface MayAnswer extends FactStamp {
  kind: string;
}

/** The answers given to how far clocks were ahead, by lane; the newest counts. */
export type ClockAnswers = ReadonlyMap<string, number>;

/** Finds the answers in a log's facts. */
export function clockAnswers(facts: readonly MayAnswer[]): ClockAnswers {
  const answers = new Map<string, number>();
  for (const fact of facts) {
    if (fact.kind !== 'clock') continue;
    const { ofLane, aheadMs } = fact as unknown as { ofLane: string; aheadMs: number };
    answers.set(ofLane, aheadMs);
  }
  return answers;
}

/** A moment by a device's clock as the server's clock would have said it; never later than it was received. */
export function correctedMs(
  { atMs, offsetMs, receivedAtMs }: Pick<FactStamp, 'atMs' | 'offsetMs' | 'receivedAtMs'>,
  answeredMs?: number,
): number {
  const byServerMs = atMs - (offsetMs ?? answeredMs ?? 0);
  return receivedAtMs === undefined ? byServerMs : Math.min(byServerMs, receivedAtMs);
}

/**
 * Whether the order of a log among others is not sure: a fact's clock could not be measured, and nobody has said how
 * far it was ahead.
 */
export function isTimeUnsure(facts: readonly MayAnswer[]): boolean {
  const answers = clockAnswers(facts);
  return facts.some((fact) => isUnsure(fact, answers));
}

/** Whether nobody knows how far the clock of one fact was ahead. */
export const isUnsure = ({ kind, offsetMs, lane }: MayAnswer, answers: ClockAnswers): boolean =>
  kind !== 'clock' && offsetMs === null && !answers.has(lane);

/** The lanes of which nobody knows how far their clock was ahead, in the order of their facts. */
export function unsureLanes(facts: readonly MayAnswer[]): string[] {
  const answers = clockAnswers(facts);
  const unsure = facts.filter((fact) => isUnsure(fact, answers));
  return [...new Set(unsure.map(({ lane }) => lane))];
}

/**
 * What a device's own word of the time is believed up to, against when the server received it: nothing happens after
 * it was received, and no phone keeps a record for years. House values; RUNNING names them.
 */
export const BELIEVED = { aheadMs: 15 * 60_000, agoMs: 3 * 365 * 86_400_000 } as const;

/**
 * Whether a log says times of itself that its receipt rules out, by an offset that was measured or told. Such a log is
 * kept and opens failures; it takes none away, and overtakes nothing.
 */
export function isTimeDoubted(facts: readonly MayAnswer[]): boolean {
  const answers = clockAnswers(facts);
  return facts.some((fact) => isDoubted(fact, answers));
}

/** Whether one fact says a time of itself that its receipt rules out. */
export function isDoubted(
  { kind, atMs, offsetMs, lane, receivedAtMs }: MayAnswer,
  answers: ClockAnswers,
): boolean {
  const aheadMs = offsetMs ?? answers.get(lane);
  if (kind === 'clock' || receivedAtMs === undefined || aheadMs === undefined) return false;
  const saidMs = atMs - aheadMs;
  return saidMs > receivedAtMs + BELIEVED.aheadMs || saidMs < receivedAtMs - BELIEVED.agoMs;
}
