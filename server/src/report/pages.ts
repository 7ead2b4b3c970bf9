import type { RunFact } from '@keen-bleed/contract';
import { FoldedLog, outcomeOfRun, runKind } from '@keen-bleed/core';
import { releasePage } from './releasePage';
import { runReport, type ReportedRun } from './runReport';
import { sharedJob } from './sharedJob';
import { visitReport } from './visitReport';

/** A run on paper; it is judged where it is printed, since that is the longer part of the work. */
function judgedRunReport(page: Omit<ReportedRun, 'state' | 'outcome'>): Promise<Buffer> {
  const { facts, state } = new FoldedLog(runKind, page.header, [...page.facts] as RunFact[]);
  return runReport({ ...page, facts, state, outcome: outcomeOfRun(page.header, state) });
}

/** Every page that goes out of the product, by its name. */
export const pages = {
  run: judgedRunReport,
  visit: visitReport,
  release: releasePage,
  share: sharedJob,
} as const;

export type PageName = keyof typeof pages;
/** What a page is made of. */
export type PageOf<N extends PageName> = Parameters<(typeof pages)[N]>[0];
/** What comes of it. */
export type Made<N extends PageName> = Awaited<ReturnType<(typeof pages)[N]>>;
