import type { GaugeSample } from '@keen-bleed/core';
import type { CheckAnswer } from '@keen-bleed/core/checks';
import * as Comlink from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import { draw } from '../air/useDrawn';
import type { DrawnRig } from '../air/drawnRig';
import { sampled } from '../practice/practiceGauge';
import type { BayFrame, BayMove, BayRig, BaySetup, BayWorker } from './bayProtocol';
import type { KnownPatterns } from './twinTypes';

/** A rig in the Bay: its worker, what it is, and what it does now. */
export interface Bay {
  rig: BayRig & DrawnRig;
  frame: BayFrame;
  /** The moment its time is counted from, ms since 1970, and what a gauge set in it has sent since. */
  startedAtMs: number;
  log: readonly GaugeSample[];
  move: (move: BayMove) => void;
  check: (id: string, isBrought?: boolean) => Promise<CheckAnswer | null>;
  mend: (unit: number, partId: string) => Promise<void>;
  sound: (ids: readonly string[]) => Promise<Record<string, CheckAnswer>>;
  end: (guesses: readonly string[]) => ReturnType<Comlink.Remote<BayWorker>['end']>;
}

/** What the last rig's worker has worked out: the next one, if plumbed alike, opens at once. */
let known: KnownPatterns = [];

/** Opens a rig in a worker of its own, its drawing in another, and closes it with the screen. */
export function useBay(setup: BaySetup | null): { bay: Bay | null; trouble: string | null } {
  const worker = useRef<Comlink.Remote<BayWorker> | null>(null);
  const [rig, setRig] = useState<(BayRig & DrawnRig) | null>(null);
  const [frame, setFrame] = useState<BayFrame | null>(null);
  const [startedAtMs, setStarted] = useState(0);
  const [log, setLog] = useState<readonly GaugeSample[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    if (!setup) return undefined;
    const thread = new Worker(new URL('../workers/twin.worker', window.location.href));
    const remote = Comlink.wrap<BayWorker>(thread);
    worker.current = remote;
    let open = true;
    const fromMs = Date.now();
    thread.onerror = () => setTrouble('The rig cannot be run on this device.');
    const opening = async (): Promise<BayRig> => {
      await remote.learn(known);
      const opened = await remote.open(
        setup,
        Comlink.proxy((next: BayFrame): Promise<void> => {
          if (!open) return Promise.resolve();
          setFrame(next);
          setLog((before) =>
            next.samples.reduce(
              (log, [timeS, psi]) =>
                sampled(log, fromMs + Math.round(timeS * 1000), Math.max(0, psi)),
              before,
            ),
          );
          // Kept once it is drawn: on a slow phone the next one waits for that.
          return new Promise((resolve) => requestAnimationFrame(() => resolve()));
        }),
      );
      known = await remote.known();
      return opened;
    };
    void Promise.all([opening(), draw(setup.rig, { shopAir: true, load: setup.load })])
      .then(([opened, drawn]) => {
        if (!open) return;
        setStarted(fromMs);
        setRig({ ...opened, ...drawn });
      })
      .catch(() => {
        if (open) setTrouble('The rig cannot be run on this device.');
      });
    return () => {
      open = false;
      thread.terminate();
      worker.current = null;
      setRig(null);
      setFrame(null);
      setLog([]);
    };
  }, [setup]);
  const move = useCallback((what: BayMove) => void worker.current?.move(what), []);
  const ask = useCallback(() => {
    if (!worker.current) throw new Error('no rig stands in the Bay');
    return worker.current;
  }, []);
  if (!rig || !frame) return { bay: null, trouble };
  return {
    bay: {
      rig,
      frame,
      startedAtMs,
      log,
      move,
      check: (id, isBrought) => ask().check(id, isBrought),
      mend: (unit, partId) => ask().mend(unit, partId),
      sound: (ids) => ask().sound(ids),
      end: (guesses) => ask().end(guesses),
    },
    trouble,
  };
}
