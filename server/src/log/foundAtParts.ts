import type { FoundAtParts, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { clockAnswers, correctedMs, sayEntry, visitKind } from '@keen-bleed/core';
import type { Db } from '../db/database';
import { readLog, storedFacts } from './logRow';
import { logsOfUnit } from './logsOfUnit';
import { writersOf } from './writersOf';

/** Visits that are looked through, and entries that are told: what is older is read in its visit. */
const VISITS = 20;
const ENTRIES = 120;

/** What was noted, seen and checked at a unit's parts in its visits, as it stands now, the newest first. */
export async function foundAtParts(db: Db, shopId: string, unitId: string): Promise<FoundAtParts> {
  const visits = await logsOfUnit(db, shopId, unitId, { kind: 'visit', most: VISITS });
  const found: FoundAtParts = [];
  for (const { log } of visits) {
    const { header, facts } = readLog(log, await storedFacts(db, shopId, log.id));
    const writers = await writersOf(db, shopId, log.id);
    const { state } = visitKind.fold(header as VisitHeader, facts as VisitFact[]);
    const answers = clockAnswers(facts);
    for (const entry of state.entries) {
      if (entry.at?.unitId.toLowerCase() !== unitId) continue;
      found.push({
        id: entry.id,
        logId: log.id,
        partId: entry.at.partId,
        atMs: Math.max(0, Math.round(correctedMs(entry, answers.get(entry.lane)))),
        by: writers[entry.lane] ?? '',
        said: sayEntry(entry),
        photos: entry.photos ?? [],
      });
    }
  }
  return found.sort((a, b) => b.atMs - a.atMs).slice(0, ENTRIES);
}
