import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import { readRun, type RunState } from '@keen-bleed/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { changeRun, keepEvents, keptEvents, keptRun, type DeviceRun } from './deviceStore';
import { nextEvent } from './nextEvent';
import { countWaiting, oneMoreWaits, sendNow } from './outbox';

type Each<T> = T extends RunEvent ? Omit<T, 'id' | 'seq' | 'atMs'> : never;

/** A fact without what the store adds to it; a correction keeps the time of what it corrects. */
export type NewFact = Each<RunEvent> & { atMs?: number };

/** A run that is being made on this device. */
export interface LiveRun {
  header: OpenRun;
  state: RunState;
  events: readonly RunEvent[];
  /** Adds a fact; done when it is on the disk. Gives back what is wrong with it, or null. */
  record: (fact: NewFact) => Promise<string | null>;
}

/** Long enough for a slow phone to have drawn a mark, ms. */
const AFTER_DRAWING_MS = 120;

type Loaded =
  | { standing: 'loading' }
  | { standing: 'elsewhere' }
  | { standing: 'here'; run: DeviceRun; events: readonly RunEvent[] };

/** The run kept on this device under an id, `loading`, or `elsewhere` where it is not kept here. */
export function useRun(runId: string): LiveRun | 'loading' | 'elsewhere' {
  const [loaded, setLoaded] = useState<Loaded>({ standing: 'loading' });
  // The newest facts, read by `record` between two drawings of the screen.
  const events = useRef<readonly RunEvent[]>([]);
  const queue = useRef<Promise<unknown>>(Promise.resolve());

  useEffect(() => {
    let stale = false;
    void (async () => {
      const run = await keptRun(runId);
      const kept = run ? await keptEvents(runId) : [];
      if (stale) return;
      events.current = kept;
      setLoaded(run ? { standing: 'here', run, events: kept } : { standing: 'elsewhere' });
      await countWaiting();
    })();
    return () => {
      stale = true;
    };
  }, [runId]);

  const header = loaded.standing === 'here' ? loaded.run.header : null;
  const record = useCallback(
    (fact: NewFact): Promise<string | null> => {
      // The moment is taken when the pad is pressed, not when its turn to be written comes.
      const pressedAtMs = Date.now();
      const turn = queue.current.then(async () => {
        if (!header) return 'This run is not open on this device.';
        const made = nextEvent(header, events.current, fact, pressedAtMs);
        if ('problem' in made) return made.problem;
        const { event } = made;
        await keepEvents(runId, [event], false);
        if (event.kind === 'close') await changeRun(runId, { closed: true });
        events.current = [...events.current, event];
        setLoaded((before) =>
          before.standing === 'here' ? { ...before, events: events.current } : before,
        );
        oneMoreWaits();
        // The mark is drawn first; sending can wait that long.
        setTimeout(() => void sendNow(), AFTER_DRAWING_MS);
        return null;
      });
      queue.current = turn.catch(() => undefined);
      return turn;
    },
    [header, runId],
  );

  const state = useMemo(() => {
    return loaded.standing === 'here' ? readRun(loaded.run.header, loaded.events) : null;
  }, [loaded]);

  if (loaded.standing !== 'here') return loaded.standing;
  if (!state) return 'elsewhere';
  return { header: loaded.run.header, state, events: loaded.events, record };
}
