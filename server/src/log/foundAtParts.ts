import type { FoundAtParts, VisitFact, VisitHeader } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  partOfEntry,
  photosOf,
  sayEntry,
  visitKind,
  type VisitEntry,
} from '@keen-bleed/core';
import type { Db } from '../db/database';
import { readLog, storedFacts } from './logRow';
import { logsOfUnit } from './logsOfUnit';
import { writersOf } from './writersOf';

/** Visits that are looked through, and entries that are told: what is older is read in its visit. */
const VISITS = 20;
const ENTRIES = 400;

/** What of an entry suspects are weighed by. */
function evidenceOf(entry: VisitEntry): FoundAtParts[number]['evidence'] {
  switch (entry.kind) {
    case 'check':
      return {
        kind: 'check',
        checkId: entry.checkId,
        answer: entry.answer,
        ...(entry.water ? { water: entry.water } : {}),
      };
    case 'mended':
      return { kind: 'mended', checkId: entry.checkId };
    case 'held': {
      const { state, needle, fromPsi, toPsi, seconds } = entry;
      return { kind: 'held', state, needle, fromPsi, toPsi, seconds };
    }
    case 'weather': {
      const { airC, humidityPct, lowC, engineHours, loadedShare } = entry;
      return {
        kind: 'weather',
        airC,
        humidityPct,
        ...(lowC === undefined ? {} : { lowC }),
        ...(engineHours === undefined ? {} : { engineHours }),
        ...(loadedShare === undefined ? {} : { loadedShare }),
      };
    }
    case 'complaint':
      return { kind: 'complaint', complaintId: entry.complaintId };
    case 'named':
      return { kind: 'named', faultId: entry.faultId };
    default:
      return null;
  }
}

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
      const at = partOfEntry(entry);
      const of = at?.unitId ?? ('unitId' in entry ? entry.unitId : null);
      if (of?.toLowerCase() !== unitId || entry.kind === 'ranked') continue;
      found.push({
        id: entry.id,
        logId: log.id,
        partId: at?.partId ?? '',
        atMs: Math.max(0, Math.round(correctedMs(entry, answers.get(entry.lane)))),
        by: writers[entry.lane] ?? '',
        said: sayEntry(entry),
        photos: [...photosOf(entry)],
        evidence: evidenceOf(entry),
      });
    }
  }
  return found.sort((a, b) => b.atMs - a.atMs).slice(0, ENTRIES);
}
