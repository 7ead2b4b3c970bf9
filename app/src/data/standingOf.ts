import type { YardRow } from '@keen-bleed/contract';

/** The open jobs of a unit; a yard that was kept by an earlier version does not say. */
export const jobsOf = (row: YardRow | undefined): YardRow['jobs'] =>
  (row as Partial<YardRow> | undefined)?.jobs ?? [];

/** Why a unit may not leave; a yard that was kept by an earlier version does not say. */
export const holdsOfRow = (row: YardRow | undefined): readonly string[] =>
  (row as Partial<YardRow> | undefined)?.holds ?? [];
