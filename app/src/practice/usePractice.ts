import type { RunFact, RunHeader } from '@keen-bleed/contract';
import { FoldedLog, runKind, type RunState } from '@keen-bleed/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { Clock } from '../run/desk/runClock';
import type { HowRead } from '../run/step/StepPane';
import { stamped } from '../store/recordFact';
import type { LiveRun, NewRunFact } from '../store/useRun';

/** A run for practice: walked like any other and kept nowhere. It ends with the screen that holds it. */
export interface Practice {
  run: LiveRun;
  clock: Clock;
  reading: HowRead;
}

/** Holds a run for practice; null until there is something to run. */
export function usePractice(header: RunHeader | null, clock: Clock): Practice | null {
  // The log as far as it has come, read by `record` between two drawings of the screen.
  const now = useRef<FoldedLog<RunHeader, RunFact, RunState> | null>(null);
  const [drawn, setDrawn] = useState<Pick<LiveRun, 'header' | 'state' | 'facts'> | null>(null);
  const [byGauge, choose] = useState(true);
  const record = useCallback(
    (fact: NewRunFact): Promise<string | null> => {
      if (!header) return Promise.resolve('Nothing is run yet.');
      if (now.current?.header !== header) now.current = new FoldedLog(runKind, header);
      const log = now.current;
      const made = stamped({ log: log as never, lane: header.id }, fact, clock(), 0) as RunFact;
      const problem = log.admit(made);
      if (problem) return Promise.resolve(problem.message);
      log.add(made);
      setDrawn({ header, state: log.state, facts: log.facts });
      return Promise.resolve(null);
    },
    [clock, header],
  );
  const empty = useMemo(
    () =>
      header
        ? { header, state: new FoldedLog(runKind, header).state, facts: [] as RunFact[] }
        : null,
    [header],
  );
  const shown = drawn?.header === header ? drawn : empty;
  if (!shown) return null;
  return { run: { ...shown, record }, clock, reading: { byGauge, maySimulate: true, choose } };
}
