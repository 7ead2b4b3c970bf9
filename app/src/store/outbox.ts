import { useSyncExternalStore } from 'react';
import { ask, RequestProblem } from '../wire/api';
import {
  changeRun,
  countUnsent,
  keptRuns,
  setSent,
  unsentEvents,
  type DeviceRun,
} from './deviceStore';

/** What has not reached the server, and why. */
export interface OutboxState {
  unsent: number;
  standing: 'sent' | 'sending' | 'offline' | 'database-away' | 'signed-out' | 'refused';
  message: string | null;
}

const RETRY_FIRST_MS = 2_000;
const RETRY_MOST_MS = 60_000;
const LOT = 200;

let state: OutboxState = { unsent: 0, standing: 'sent', message: null };
let owner: { shopId: string; personId: string } | null = null;
let running: Promise<void> | null = null;
let again = false;
let retryMs = RETRY_FIRST_MS;
let retryTimer: ReturnType<typeof setTimeout> | null = null;
const listeners = new Set<() => void>();

function set(change: Partial<OutboxState>): void {
  state = { ...state, ...change };
  listeners.forEach((listener) => listener());
}

/** Names whose facts are sent; only the person who took a mark can hand it in. */
export function setOutboxOwner(next: typeof owner): void {
  owner = next;
  if (owner) void sendNow();
}

/** Sends what is waiting, in order. Safe to call at any time; calls fold into one another. */
export function sendNow(): Promise<void> {
  if (running) {
    again = true;
    return running;
  }
  running = withLock(pass).finally(() => {
    running = null;
    if (again) {
      again = false;
      void sendNow();
    }
  });
  return running;
}

/** Tells the sign at once that one more fact waits. */
export function oneMoreWaits(): void {
  set({ unsent: state.unsent + 1, ...(state.standing === 'sent' ? { standing: 'sending' } : {}) });
}

/** Counts what waits, for the sign; called when a run is opened on the screen. */
export async function countWaiting(): Promise<void> {
  const unsent = await countUnsent();
  set({
    unsent,
    ...(unsent > 0 && state.standing === 'sent' ? { standing: 'sending' } : {}),
  });
}

/** Two tabs of one device share a store: only one of them sends at a time. */
async function withLock(work: () => Promise<void>): Promise<void> {
  if ('locks' in navigator) await navigator.locks.request('keen-bleed-outbox', work);
  else await work();
}

async function pass(): Promise<void> {
  const mine = owner;
  if (!mine) return;
  if (retryTimer) clearTimeout(retryTimer);
  retryTimer = null;
  let refused: string | null = null;
  try {
    for (const run of await keptRuns()) {
      if (run.shopId !== mine.shopId || run.personId !== mine.personId) continue;
      if (run.refused === null) await sendRun(run);
      const message = run.refused ?? (await refusalOf(run.id));
      if (message !== null) refused = message;
    }
    retryMs = RETRY_FIRST_MS;
    const unsent = await countUnsent();
    set({ unsent, standing: refused ? 'refused' : 'sent', message: refused });
  } catch (error) {
    const problem = error instanceof RequestProblem ? error : null;
    const unsent = await countUnsent();
    if (problem?.code === 'not-signed-in') {
      set({
        unsent,
        standing: unsent > 0 ? 'signed-out' : 'sent',
        message: problem.message,
      });
      return;
    }
    const away = problem?.code === 'database-unavailable';
    set({
      unsent,
      standing: away ? 'database-away' : 'offline',
      message: problem?.message ?? null,
    });
    retryTimer = setTimeout(() => void sendNow(), retryMs);
    retryMs = Math.min(retryMs * 2, RETRY_MOST_MS);
  }
}

async function refusalOf(runId: string): Promise<string | null> {
  const all = await keptRuns();
  return all.find((run) => run.id === runId)?.refused ?? null;
}

/** Answers after which trying the same again is of no use. */
const FINAL = new Set([
  'wrong-shape',
  'not-right',
  'run-closed',
  'id-taken',
  'not-found',
  'not-allowed',
  'too-large',
]);

async function sendRun(run: DeviceRun): Promise<void> {
  const events = await unsentEvents(run.id);
  if (run.opened && events.length === 0) return;
  try {
    if (!run.opened) {
      set({ standing: 'sending' });
      await ask('POST', '/api/runs', run.header);
      await changeRun(run.id, { opened: true });
    }
    for (let from = 0; from < events.length; from += LOT) {
      set({ standing: 'sending' });
      const lot = events.slice(from, from + LOT);
      await ask('POST', `/api/runs/${run.id}/events`, { events: lot });
      await setSent(run.id, true, new Set(lot.map((event) => event.id)));
    }
  } catch (error) {
    if (!(error instanceof RequestProblem)) throw error;
    if (error.code === 'events-missing') {
      // The server lost sight of earlier ones (a restored backup, say): all are sent again, harmlessly.
      await setSent(run.id, false);
      again = true;
      return;
    }
    if (!FINAL.has(error.code)) throw error;
    // Kept here, shown, and never thrown away by itself.
    await changeRun(run.id, { refused: error.message });
  }
}

if (typeof window !== 'undefined') {
  window.addEventListener('online', () => void sendNow());
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void sendNow();
  });
}

/** What the sign shows. */
export function useOutbox(): OutboxState {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
    () => state,
  );
}
