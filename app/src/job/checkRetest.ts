import type { CheckFact, JobFact } from '@keen-bleed/contract';
import type { NewFact, Owed, VisitState } from '@keen-bleed/core';
import { judgeAnswer, type Check, type CheckAnswer } from '@keen-bleed/core/checks';
import { folded, keptLog, openLogs } from '../store/logs';
import type { Writer } from '../store/kept';

/** The checks that were made in the open visit of a unit or rig on this device, the newest last. */
export async function checksMade(
  who: Writer,
  unitId: string,
  rigId: string | null,
): Promise<{ visitId: string; checks: readonly CheckFact[] } | null> {
  const open = await openLogs(who);
  const visit = open.find(
    ({ kind, header }) =>
      kind === 'visit' && header.subject.unitId === unitId && header.subject.rigId === rigId,
  );
  const kept = visit && (await keptLog(visit.id));
  if (!kept) return null;
  const { entries } = folded(kept).state as unknown as VisitState;
  return {
    visitId: kept.log.id,
    checks: entries.flatMap((entry) => (entry.kind === 'check' ? [entry] : [])),
  };
}

/**
 * What the checks of a retest come to together, once each of them was made since the work that owes it; null until then.
 *
 * @param made checks of one visit
 * @param sinceMs when the work was done, by this device
 * @param expected what a sound rig gives, by check
 */
export function retestByChecks(
  owed: Owed,
  asked: readonly Check[],
  { visitId, checks }: { visitId: string; checks: readonly CheckFact[] },
  sinceMs: number,
  expected: Readonly<Record<string, CheckAnswer>>,
): NewFact<JobFact> | null {
  const each = asked.map((check) => ({
    check,
    fact: checks.findLast(({ checkId, atMs }) => checkId === check.id && atMs >= sinceMs),
    sound: expected[check.id],
  }));
  const judged = each.flatMap(({ check, fact, sound }) =>
    fact && sound ? [judgeAnswer(check, fact.answer as CheckAnswer, sound)] : [],
  );
  const last = each.at(-1)?.fact;
  if (judged.length < asked.length || judged.length === 0 || !last) return null;
  const verdicts = judged.map(({ verdict }) => verdict);
  const worst =
    judged.find(({ verdict }) => verdict === 'fail') ??
    judged.find(({ verdict }) => verdict === 'cant-tell') ??
    judged[0]!;
  return {
    kind: 'retested',
    owedId: owed.id,
    logId: visitId,
    factId: last.id,
    verdict: verdicts.includes('fail')
      ? 'fail'
      : verdicts.includes('cant-tell')
        ? 'cant-tell'
        : 'pass',
    said: worst.said,
    readings: judged.flatMap(({ readings }) => readings).slice(0, 12),
  };
}
