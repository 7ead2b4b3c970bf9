import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import { readRun } from '@keen-bleed/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { Clock } from '../run/desk/runClock';
import type { HowRead } from '../run/step/StepPane';
import { nextEvent } from '../store/nextEvent';
import type { LiveRun, NewFact } from '../store/useRun';

/** A run for practice: walked like any other and kept nowhere. It ends with the screen that holds it. */
export interface Practice {
  run: LiveRun;
  clock: Clock;
  reading: HowRead;
}

/** Holds a run for practice; null until there is something to run. */
export function usePractice(header: OpenRun | null, clock: Clock): Practice | null {
  const [events, setEvents] = useState<readonly RunEvent[]>([]);
  const [byGauge, choose] = useState(true);
  // The newest facts, read by `record` between two drawings of the screen.
  const newest = useRef<readonly RunEvent[]>([]);
  const record = useCallback(
    (fact: NewFact): Promise<string | null> => {
      if (!header) return Promise.resolve('Nothing is run yet.');
      const made = nextEvent(header, newest.current, fact, clock());
      if ('problem' in made) return Promise.resolve(made.problem);
      newest.current = [...newest.current, made.event];
      setEvents(newest.current);
      return Promise.resolve(null);
    },
    [clock, header],
  );
  const state = useMemo(() => (header ? readRun(header, events) : null), [events, header]);
  if (!header || !state) return null;
  return { run: { header, state, events, record }, clock, reading: { byGauge, choose } };
}
