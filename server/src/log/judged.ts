import {
  anyLogKind,
  CORE_VERSION,
  correctedMs,
  type FoldedLog,
  type JobBoard,
} from '@keen-bleed/core';
import type { AnyHeader } from '@keen-bleed/contract';
import type { logs, logUnits } from '../db/schema';

/** Later than every clock: where a failure whose time cannot be told is listed. */
const END_OF_TIME_MS = 8_640_000_000_000_000;

/** Earlier than every clock: where one that passed is listed whose own times cannot be. It takes nothing away. */
const BEFORE_ALL_MS = 1;

/** When a log was started and closed by the server's clock, as far as it can be told. */
function timesOf({ header, facts, state, times }: FoldedLog, receivedAtMs: number) {
  const { answers } = times;
  const { startedAtMs, offsetMs } = header;
  const firstLane = facts[0]?.lane ?? '';
  const closing = state.closed;
  const close = closing
    ? facts.find(
        ({ kind, atMs }) => (kind === 'close' || kind === 'released') && atMs === closing.atMs,
      )
    : undefined;
  return {
    startedAtMs: correctedMs({ atMs: startedAtMs, offsetMs, receivedAtMs }, answers.get(firstLane)),
    closedAtMs: close ? correctedMs(close, answers.get(close.lane)) : null,
    lastAtMs: times.lastMs,
    timeUnsure: facts.length === 0 ? offsetMs === null : times.isUnsure || times.isDoubted,
  };
}

type LogColumns = Partial<typeof logs.$inferInsert> & {
  startedAtMs: number;
  closedAtMs: number | null;
};

/**
 * The columns of a log that follow from its facts; all can be made again. It is judged only once it is closed: while
 * it goes on, facts are folded to be admitted and nothing more.
 */
export function judged(
  log: FoldedLog,
  receivedAtMs: number,
): { log: LogColumns; units: Partial<typeof logUnits.$inferInsert> } {
  const times = timesOf(log, receivedAtMs);
  const kind = anyLogKind(log.header.kind);
  const counted = {
    ...times,
    lastAtMs: Math.max(times.lastAtMs, times.startedAtMs),
    factCount: log.facts.length,
  };
  const { startedAtMs, closedAtMs, timeUnsure } = times;
  // What is written by many is never quite finished, and its line costs next to nothing.
  if (closedAtMs === null && kind.writers === 'opener') {
    return { log: counted, units: { startedAtMs, closedAtMs: null, rankMs: null } };
  }
  const summary = kind.summary(log.header, log.state);
  const { verdict, headline, decisive, figures, owes, trend, drained } = summary;
  const board = (summary.board ?? null) as JobBoard | null;
  return {
    log: {
      ...counted,
      verdict,
      headline,
      decisive,
      figures: [...figures],
      owes: [...owes],
      drained,
      board,
      result: closedAtMs === null ? null : kind.result(log.header, log.state),
      coreVersion: CORE_VERSION,
    },
    units: {
      startedAtMs,
      closedAtMs,
      rankMs:
        timeUnsure && verdict === 'fail'
          ? END_OF_TIME_MS
          : closedAtMs !== null && log.times.isDoubted
            ? BEFORE_ALL_MS
            : closedAtMs,
      verdict,
      whole: !isRetest(log.header),
      trend,
    },
  };
}

/** A run that asked only what repairs owed. */
const isRetest = (header: AnyHeader): boolean =>
  header.kind === 'run' && header.made.retestOf !== undefined;
