import { useSyncExternalStore } from 'react';
import { RequestProblem } from '../wire/api';
import { buildName } from './buildName';
import { compareWithServer } from './compareWithServer';
import { recallClock, type Writer } from './kept';
import {
  countUnsent,
  isMine,
  isWritable,
  refuse,
  setRefused,
  waitingInOrder,
  waitingLogs,
} from './logs';
import type { DeviceLog } from './database';
import { leaveOldLogs } from './retention';
import { sendLog } from './sendLog';
import { oneAtATime } from './tabs';

/** What has not reached the server, and why. */
export interface OutboxState {
  unsent: number;
  standing:
    'sent' | 'sending' | 'stumbling' | 'offline' | 'database-away' | 'signed-out' | 'refused';
  message: string | null;
  /** Logs the server would not take as they are. */
  refused: number;
}

const RETRY_FIRST_MS = 2_000;
const RETRY_MOST_MS = 60_000;
/**
 * The way to the server is tried again after no more than this: not every device says when its network is back, and a
 * request that finds none costs nothing.
 */
const WAY_RETRY_MOST_MS = 15_000;
/** Long enough for a slow phone to have drawn a mark, ms. */
const AFTER_DRAWING_MS = 120;

let state: OutboxState = { unsent: 0, standing: 'sent', message: null, refused: 0 };
let owner: Writer | null = null;
let running: Promise<void> | null = null;
let again = false;
/** Whether what the server holds was compared since the owner came. */
let isCompared = false;
/**
 * What is retried by itself, and when: the whole pass, or one log that stumbled. It goes by the page's steady clock: a
 * clock that is set back by a day must not make a log wait for a day.
 */
let retryMs = RETRY_FIRST_MS;
let retryTimer: ReturnType<typeof setTimeout> | null = null;
const waits = new Map<string, { ms: number; untilMs: number; message: string }>();
const listeners = new Set<() => void>();

function set(change: Partial<OutboxState>): void {
  state = { ...state, ...change };
  listeners.forEach((listener) => listener());
}

/**
 * Names whose facts are sent; only the person who took a mark can hand it in. What was refused them is tried again,
 * and what the server holds is compared: it may have been restored meanwhile, and lack what it once had.
 */
export async function setOutboxOwner(next: Writer | null): Promise<void> {
  const isNew = next !== null && (owner === null || !isMine(next, owner));
  owner = next;
  if (next === null) return;
  if (isNew) {
    isCompared = false;
    try {
      await recallClock();
      await retryRefused((log) => isWritable(log, next));
    } catch {
      // A store that cannot be read now is read again with the next pass.
    }
  }
  await sendNow();
}

/** Compares what the server holds, once for each time somebody is here; without network, as soon as there is one. */
async function compareOnce(mine: Writer): Promise<void> {
  if (isCompared) return;
  try {
    await compareWithServer(mine);
    await leaveOldLogs();
  } catch (error) {
    if (error instanceof RequestProblem && NO_WAY.has(error.code)) return;
  }
  // Somebody else may have come meanwhile: theirs is not compared yet.
  if (owner === mine) isCompared = true;
}

/** Forgets refusals so that the next pass tries again; by hand, at sign-in, and by a build that was not refused. */
export async function retryRefused(which: (log: DeviceLog) => boolean): Promise<void> {
  for (const log of await waitingLogs()) {
    if (log.refused && which(log)) await setRefused(log.id, null);
  }
  waits.clear();
}

/** Tries one refused log again, by hand. */
export async function tryAgain(logId: string): Promise<void> {
  await retryRefused((log) => log.id === logId);
  await sendNow();
}

/** Sends a moment later: the mark is drawn first. */
export function sendSoon(): void {
  setTimeout(() => void sendNow(), AFTER_DRAWING_MS);
}

/** So many more facts wait: said by the sign and sent a moment later, when the mark is drawn. */
export function moreSoon(count: number): void {
  setTimeout(() => {
    moreWait(count);
    void sendNow();
  }, AFTER_DRAWING_MS);
}

/** Sends what is waiting, in order. Safe to call at any time; calls fold into one another. */
export function sendNow(): Promise<void> {
  if (running) {
    again = true;
    return running;
  }
  running = pass().finally(() => {
    running = null;
    if (again) {
      again = false;
      void sendNow();
    }
  });
  return running;
}

function moreWait(count: number): void {
  set({
    unsent: state.unsent + count,
    ...(state.standing === 'sent' ? { standing: 'sending' } : {}),
  });
}

/** Counts what waits, for the sign; called when a log is opened on the screen. */
export async function countWaiting(): Promise<void> {
  const unsent = await countUnsent();
  set({
    unsent,
    ...(unsent > 0 && state.standing === 'sent' ? { standing: 'sending' } : {}),
  });
}

/** A log that still waits after this, ms, has been tried thrice: whoever looks at the sign is told. */
const STUMBLES_FROM_MS = 8_000;

/** Answers that may be another the next time. After any other, trying again by itself is of no use: somebody has to look. */
const PASSING = new Set([
  'facts-missing',
  'photo-missing',
  'place-taken',
  'changed-meanwhile',
  'too-many-tries',
  'went-wrong',
]);

/** Problems of the way to the server, not of any one log. */
const NO_WAY = new Set(['offline', 'database-unavailable', 'not-signed-in', 'wrong-origin']);

async function pass(): Promise<void> {
  const mine = owner;
  if (!mine) return;
  if (retryTimer) clearTimeout(retryTimer);
  retryTimer = null;
  try {
    await compareOnce(mine);
    for (const { log, factIds } of await waitingInOrder()) {
      if (!isWritable(log, mine) || isWaiting(log.id)) continue;
      if (log.refused !== null) {
        // Another build of the app may be taken where this log's last one was not.
        if (log.refused.build === buildName()) continue;
        await setRefused(log.id, null);
      }
      set({ standing: 'sending' });
      await oneAtATime(`keen-bleed-send-${log.id}`, () => sendOne(log.id, mine, factIds));
    }
    retryMs = RETRY_FIRST_MS;
    await settle();
  } catch (error) {
    await stumble(error instanceof RequestProblem ? error : null);
  }
}

/** Sends one log. What goes wrong with it alone never ends the pass. */
async function sendOne(logId: string, mine: Writer, factIds: ReadonlySet<string>): Promise<void> {
  try {
    await sendLog(logId, mine, factIds);
    waits.delete(logId);
  } catch (error) {
    const problem = error instanceof RequestProblem ? error : null;
    if (problem && NO_WAY.has(problem.code)) throw problem;
    if (problem && !PASSING.has(problem.code)) {
      // Kept here, shown, and never thrown away by itself.
      await refuse(logId, {
        code: problem.code,
        message: problem.message,
        field: problem.fields[0]?.field ?? null,
        factId: problem.factId,
        atMs: Date.now(),
        build: buildName(),
      });
      return;
    }
    // A gap, or a fault of the server's: this log waits, longer each time, and the others go on.
    const ms = Math.min((waits.get(logId)?.ms ?? RETRY_FIRST_MS / 2) * 2, RETRY_MOST_MS);
    const message = problem?.message ?? 'Something went wrong on this device.';
    waits.set(logId, { ms, untilMs: performance.now() + ms, message });
  }
}

const isWaiting = (logId: string) => (waits.get(logId)?.untilMs ?? 0) > performance.now();

/** Says how things stand after a pass that went through. */
async function settle(): Promise<void> {
  const unsent = await countUnsent();
  const waiting = await waitingLogs();
  const refused = waiting.filter((log) => log.refused !== null);
  // What another tab has sent meanwhile, or what was dropped, is waited for no more.
  for (const id of waits.keys()) if (!waiting.some((log) => log.id === id)) waits.delete(id);
  const next = Math.min(...[...waits.values()].map(({ untilMs }) => untilMs));
  if (Number.isFinite(next)) retryIn(Math.max(50, next - performance.now()));
  const stumbling = [...waits.values()].find(({ ms }) => ms >= STUMBLES_FROM_MS);
  set({
    unsent,
    refused: refused.length,
    standing:
      refused.length > 0
        ? 'refused'
        : stumbling
          ? 'stumbling'
          : waits.size > 0
            ? 'sending'
            : 'sent',
    message:
      refused.at(-1)?.refused?.message ??
      (stumbling ? `${stumbling.message} It is tried again by itself.` : null),
  });
}

async function stumble(problem: RequestProblem | null): Promise<void> {
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
  retryIn(retryMs);
  retryMs = Math.min(retryMs * 2, WAY_RETRY_MOST_MS);
}

function retryIn(ms: number): void {
  if (retryTimer) clearTimeout(retryTimer);
  retryTimer = setTimeout(() => void sendNow(), ms);
}

if (typeof window !== 'undefined') {
  window.addEventListener('online', () => void sendNow());
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void sendNow();
  });
}

/** Calls whenever the outbox stands otherwise, without drawing anything. */
export function onOutbox(listener: () => void): () => void {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
}

/** How the outbox stands now. */
export const outboxNow = (): OutboxState => state;

/** What the sign shows. */
export const useOutbox = (): OutboxState => useOutboxPart(outboxNow);

/** A part of what the sign shows: whoever asks for it is drawn anew when that part changes, and not at each mark. */
export const useOutboxPart = <T>(part: (outbox: OutboxState) => T): T =>
  useSyncExternalStore(
    onOutbox,
    () => part(state),
    () => part(state),
  );
