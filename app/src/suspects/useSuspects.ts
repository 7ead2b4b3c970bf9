import * as Comlink from 'comlink';
import type { KeptTable } from '@keen-bleed/core/diagnosis';
import { useEffect, useState } from 'react';
import type { Asked, Suspecting, Told } from './suspecting';

interface Standing {
  told: Told | null;
  /** How the suspects stood before the newest evidence, to show what it moved; by fault. */
  before: ReadonlyMap<string, number>;
  failed: boolean;
  again: () => void;
}

/** One thread for the page: what is worked out of a rig outlives the screen that asked. */
let thread: { worker: Worker; suspecting: Comlink.Remote<Suspecting> } | null = null;

function theThread() {
  if (!thread) {
    const worker = new Worker(new URL('../workers/suspects.worker', window.location.href));
    thread = { worker, suspecting: Comlink.wrap<Suspecting>(worker) };
  }
  return thread;
}

function endThread(): void {
  thread?.worker.terminate();
  thread = null;
}

/** A second thread that begins at the other end of a rig's faults; gives back how to end it. */
function withHelp(what: Asked): () => void {
  const { suspecting } = theThread();
  const worker = new Worker(new URL('../workers/suspects.worker', window.location.href));
  const helper = Comlink.wrap<Suspecting>(worker);
  const hand = Comlink.proxy((table: KeptTable) => void suspecting.learn(what.rigKey, table));
  // Without help it only takes longer.
  helper.help(what.rig, what.rigKey, hand).catch(() => undefined);
  return () => worker.terminate();
}

/** Works a rig out while nobody asks yet, so that suspects stand at once when they are asked for. */
export function prepareSuspects(asked: Pick<Asked, 'rig' | 'rigKey'>): void {
  void theThread()
    .suspecting.prepare(asked.rig, asked.rigKey)
    .catch(() => endThread());
}

/** How suspects stand on some evidence, weighed apart from the screen; null while nothing is asked. */
export function useSuspects(asked: Asked | null): Standing {
  const [told, setTold] = useState<Told | null>(null);
  const [before, setBefore] = useState<ReadonlyMap<string, number>>(new Map());
  const [failed, setFailed] = useState(false);
  const [tries, setTries] = useState(0);
  // Evidence is weighed when what it says changes, not when it is made anew.
  const key = asked && JSON.stringify([asked, tries]);
  useEffect(() => {
    if (key === null) return;
    const [what] = JSON.parse(key) as [Asked, number];
    let isMine = true;
    let isFirst = true;
    const { worker, suspecting } = theThread();
    const break_ = () => {
      endThread();
      if (isMine) setFailed(true);
    };
    worker.addEventListener('error', break_);
    const isRun = what.evidence.some(({ kind }) => kind === 'run');
    let endHelp: (() => void) | null = null;
    const hear = (next: Told) => {
      if (!isMine) return;
      if (next.rough && isRun && !what.brief) endHelp ??= withHelp(what);
      if (!next.rough) endHelp?.();
      setFailed(false);
      setTold((last) => {
        if (isFirst && last) setBefore(chancesOf(last));
        isFirst = false;
        return next;
      });
    };
    suspecting.weigh(what, Comlink.proxy(hear)).catch(break_);
    return () => {
      isMine = false;
      endHelp?.();
      worker.removeEventListener('error', break_);
      void suspecting.stop();
    };
  }, [key]);
  return { told, before, failed, again: () => setTries((n) => n + 1) };
}

const chancesOf = ({ suspects }: Told): ReadonlyMap<string, number> =>
  new Map(suspects.flatMap(({ faults, chance }) => faults.map(({ id }) => [id, chance] as const)));
