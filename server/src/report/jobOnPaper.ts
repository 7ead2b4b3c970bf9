import type { ChainStanding, JobFact, JobHeader } from '@keen-bleed/contract';
import type { JobState } from '@keen-bleed/core';

/** A job as its pages need it. */
export interface JobOnPaper {
  header: JobHeader;
  facts: readonly JobFact[];
  state: JobState;
  by: string;
  /** Who wrote in each lane, by name. */
  writers: Readonly<Record<string, string>>;
  /** By the server's clock, as far as it can be told. */
  startedAtMs: number;
  closedAtMs: number | null;
  chain: ChainStanding;
}
