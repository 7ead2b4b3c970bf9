import type { CheckFact, JobReading } from '@keen-bleed/contract';
import { isAfterWork } from '../repair/afterWork';
import type { RetestOutcome } from '../repair/retestOutcome';
import type { RigUnderTest } from '../rig/rigUnderTest';
import type { Check, CheckAnswer } from './check';
import { checkedAt, judgeAnswer } from './retestChecks';

/** A check that was made, with when by the server’s clock. */
export interface CheckMade {
  fact: Pick<CheckFact, 'id' | 'checkId' | 'answer'>;
  atMs: number;
}

/** What the checks of a retest came to together. */
export interface ChecksCameTo extends RetestOutcome {
  /** The entry of the last of them. */
  factId: string;
  /** When the first of them was made. */
  testedAtMs: number;
}

/** Readings that a record shows before and after. */
const MOST_READINGS = 12;

/**
 * What the checks of a retest come to together, once each of them was made since the work that owes it; null until
 * then. The device asks it before it records, the server before it releases: both from the answers themselves.
 *
 * @param asked the checks the retest consists of
 * @param made checks of one visit that stand, the newest last
 * @param workMs when the work was done, by the server’s clock
 * @param expected what a good rig gives, by check
 */
export function retestByChecks(
  rig: RigUnderTest,
  asked: readonly Check[],
  made: readonly CheckMade[],
  workMs: number,
  expected: Readonly<Record<string, CheckAnswer>>,
): ChecksCameTo | null {
  const each = asked.map((check) => ({
    check,
    found: made.findLast(
      ({ fact, atMs }) => fact.checkId === check.id && isAfterWork(workMs, atMs),
    ),
  }));
  const found = each.flatMap((one) => (one.found ? [{ ...one, found: one.found }] : []));
  const last = found.at(-1);
  if (!last || found.length < asked.length) return null;
  const judged = found.map(({ check, found: { fact } }) =>
    judgeAnswer(
      check,
      fact.answer as CheckAnswer,
      expected[check.id] ?? null,
      checkedAt(rig, check),
    ),
  );
  const worst =
    judged.find(({ verdict }) => verdict === 'fail') ??
    judged.find(({ verdict }) => verdict === 'cant-tell') ??
    judged[0]!;
  return {
    verdict: worst.verdict,
    said: worst.said,
    readings: judged
      .flatMap(({ readings }): readonly JobReading[] => readings)
      .slice(0, MOST_READINGS),
    factId: last.found.fact.id,
    testedAtMs: Math.min(...found.map(({ found: { atMs } }) => atMs)),
  };
}
