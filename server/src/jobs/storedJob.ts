import type { ExportedChain, JobFact, JobHeader } from '@keen-bleed/contract';
import { FoldedLog, jobKind } from '@keen-bleed/core';
import type { Db } from '../db/database';
import { exportedChain } from '../log/chain';
import { findLog, readLog, storedFacts } from '../log/logRow';
import { writersOf } from '../log/writersOf';
import type { JobOnPaper } from '../report/jobOnPaper';

/** A job of this shop; throws where there is none of that id. */
export async function storedJob(
  db: Db,
  shopId: string,
  id: string,
): Promise<JobOnPaper & { chain: ExportedChain }> {
  const { log, by } = await findLog(db, shopId, id, 'job');
  const kept = await storedFacts(db, shopId, log.id);
  const read = readLog(log, kept);
  const header = read.header as JobHeader;
  const folded = new FoldedLog(jobKind, header, read.facts as JobFact[]);
  return {
    header,
    facts: folded.facts,
    state: folded.state,
    by,
    writers: await writersOf(db, shopId, log.id),
    startedAtMs: log.startedAtMs,
    closedAtMs: log.closedAtMs,
    chain: exportedChain(log, kept, read),
  };
}
