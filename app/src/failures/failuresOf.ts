import type { OpenFailure, YardRow } from '@keen-bleed/contract';

/** What stands open on a unit; a yard that was kept by an earlier version does not say. */
export const failuresOf = (row: YardRow | undefined): readonly OpenFailure[] =>
  (row as { failures?: OpenFailure[] } | undefined)?.failures ?? [];
