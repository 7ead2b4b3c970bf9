import type { Me, RunFact } from '@keen-bleed/contract';
import { runKind, type NewFact, type RunState } from '@keen-bleed/core';
import { useLog, type LiveLog } from './useLog';

/** A fact of a run before it is stamped. */
export type NewRunFact = NewFact<RunFact>;

/** A run that is being made. */
export type LiveRun = Pick<LiveLog<'run', RunState>, 'header' | 'state' | 'facts' | 'record'> &
  // A run for practice is kept nowhere: nothing of it is ahead.
  Partial<Pick<LiveLog<'run', RunState>, 'ahead'>>;

/** The run kept on this device under an id, `loading`, or `elsewhere` where it is not kept here. */
export const useRun = (id: string, who: Me): LiveLog<'run', RunState> | 'loading' | 'elsewhere' =>
  useLog(runKind, id, who);
