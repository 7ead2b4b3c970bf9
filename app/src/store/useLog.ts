import type { LogKindName, LogShapes, Me } from '@keen-bleed/contract';
import type { FoldedLog, LogKind, LogState, NewFact } from '@keen-bleed/core';
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { DeviceLog } from './database';
import { laneOf } from './kept';
import { LogAhead } from './logAhead';
import { folded, isWritable, keptLog } from './logs';
import { countWaiting, moreSoon } from './outbox';
import { recordFact } from './recordFact';
import { onLogChanged } from './tabs';
import { deviceMs, goOnFrom } from '../wire/serverClock';

/** A log that is written on this device. */
export interface LiveLog<K extends LogKindName, S extends LogState> {
  header: LogShapes[K]['header'];
  state: S;
  /** In their order. */
  facts: readonly LogShapes[K]['fact'][];
  /** Names of those who write in it, by lane; this device's own is not among them until the server said so. */
  writers: DeviceLog['writers'];
  personId: string;
  /** Whether whoever is here may go on with it. */
  isWritable: boolean;
  /** The lane this device writes in for the person who is here. */
  lane: string;
  /** Adds a fact; done when it is on the disk. Gives back what is wrong with it, or null. */
  record: (fact: NewFact<LogShapes[K]['fact']>) => Promise<string | null>;
  /** What is kept of it already, drawn here or not. */
  ahead: LogAhead<S>;
}

type Loaded =
  | { standing: 'loading' }
  | { standing: 'elsewhere' }
  | { standing: 'here'; device: DeviceLog; log: FoldedLog; lane: string; count: number };

/** The same with all that is kept of its log by now. */
function withNewest(loaded: Loaded, log: FoldedLog | null): Loaded {
  if (loaded.standing !== 'here' || !log) return loaded;
  const count = log.facts.length;
  return loaded.log === log && loaded.count === count ? loaded : { ...loaded, log, count };
}

/**
 * A log kept on this device under an id, `loading`, or `elsewhere` where it is not kept here. It follows what other
 * tabs write.
 */
export function useLog<K extends LogKindName, S extends LogState>(
  kind: LogKind<LogShapes[K]['header'], LogShapes[K]['fact'], S>,
  id: string,
  who: Pick<Me, 'shopId' | 'personId'>,
): LiveLog<K, S> | 'loading' | 'elsewhere' {
  const [loaded, setLoaded] = useState<Loaded>({ standing: 'loading' });
  // The log as far as it has come, read by `record` between two drawings of the screen.
  const now = useRef<FoldedLog | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  // Entries that are pressed and not kept yet, and those kept since the screen was last drawn.
  const onTheWay = useRef(0);
  const keptNow = useRef(0);
  const [ahead] = useState(
    () =>
      new LogAhead<S>(() =>
        flushSync(() => setLoaded((before) => withNewest(before, now.current))),
      ),
  );
  const { shopId, personId } = who;

  useEffect(() => {
    let stale = false;
    const load = async () => {
      const kept = await keptLog(id);
      const lane = await laneOf({ shopId, personId });
      if (stale) return;
      if (kept?.log.kind !== kind.name || kept.log.shopId !== shopId) {
        setLoaded({ standing: 'elsewhere' });
        return;
      }
      const log = folded(kept);
      const latest = log.state.closed ? null : log.latestOf(lane);
      if (latest) goOnFrom(latest);
      now.current = log;
      ahead.tell(log.state as S);
      setLoaded({ standing: 'here', device: kept.log, log, lane, count: log.facts.length });
    };
    // In turn with what is recorded: what was read before a mark was kept must not be shown after it.
    const inTurn = (does: () => Promise<unknown>) => {
      queue.current = queue.current.then(does).catch(() => undefined);
    };
    inTurn(() => load().then(countWaiting));
    const stop = onLogChanged(id, () => inTurn(load));
    return () => {
      stale = true;
      stop();
    };
  }, [ahead, id, kind, personId, shopId]);

  const lane = loaded.standing === 'here' ? loaded.lane : null;
  const record = useCallback(
    (fact: NewFact): Promise<string | null> => {
      // The moment is taken when the pad is pressed, not when its turn to be written comes.
      const pressedAtMs = deviceMs();
      const write = async () => {
        if (!now.current || lane === null) return 'This record is not open on this device.';
        const done = await recordFact({ log: now.current, lane }, fact, pressedAtMs);
        if ('problem' in done) return done.problem;
        now.current = done.log;
        keptNow.current += 1;
        return null;
      };
      const draw = () => {
        onTheWay.current -= 1;
        const log = now.current;
        // Of what one press records, the last entry draws and sends them all.
        if (onTheWay.current > 0 || !log) return;
        const { isShown } = ahead;
        ahead.tell(log.state as S);
        const drawn = () => setLoaded((before) => withNewest(before, log));
        if (isShown) startTransition(drawn);
        else drawn();
        if (keptNow.current > 0) moreSoon(keptNow.current);
        keptNow.current = 0;
      };
      onTheWay.current += 1;
      const turn = queue.current.then(write).finally(draw);
      queue.current = turn.catch(() => undefined);
      return turn;
    },
    [ahead, lane],
  );

  return useMemo(() => {
    if (loaded.standing !== 'here') return loaded.standing;
    const { device, log } = loaded;
    return {
      header: log.header,
      state: log.state as S,
      facts: log.facts,
      writers: device.writers,
      personId: device.personId,
      isWritable: isWritable(device, { shopId, personId }),
      lane: loaded.lane,
      record,
      ahead,
    } as LiveLog<K, S>;
  }, [ahead, loaded, personId, record, shopId]);
}
