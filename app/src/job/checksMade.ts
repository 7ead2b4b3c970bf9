import { clockAnswers, correctedMs, type VisitState } from '@keen-bleed/core';
import type { CheckMade } from '@keen-bleed/core/checks';
import type { Writer } from '../store/kept';
import { folded, keptLog, openLogs } from '../store/logs';

/** The checks that were made in the open visit of a unit or rig on this device, the newest last, by the server’s clock. */
export async function checksMade(
  who: Writer,
  unitId: string,
  rigId: string | null,
): Promise<{ visitId: string; checks: readonly CheckMade[] } | null> {
  const open = await openLogs(who);
  const visit = open.find(
    ({ kind, header }) =>
      kind === 'visit' && header.subject.unitId === unitId && header.subject.rigId === rigId,
  );
  const kept = visit && (await keptLog(visit.id));
  if (!kept) return null;
  const log = folded(kept);
  const answers = clockAnswers(log.facts);
  const { entries } = log.state as unknown as VisitState;
  return {
    visitId: kept.log.id,
    checks: entries.flatMap((entry) =>
      entry.kind === 'check'
        ? [{ fact: entry, atMs: correctedMs(entry, answers.get(entry.lane)) }]
        : [],
    ),
  };
}
