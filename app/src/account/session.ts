import type { Me } from '@keen-bleed/contract';
import { useSyncExternalStore } from 'react';
import { sayTimesIn } from '../data/when';
import { ask, asProblem } from '../wire/api';
import { dropKeptCache, dropKeptOnDevice } from '../store/keptCache';
import { keepByName, keepMe, keptByName, keptMe } from '../store/kept';
import { setOutboxOwner } from '../store/outbox';

/** Who is at this device, and whether the server agrees. */
export type SessionState =
  | { standing: 'asking' }
  | { standing: 'set-up'; needsCode: boolean }
  | { standing: 'signed-out' }
  | { standing: 'unreachable'; message: string }
  /** `stale` when the session ended under a screen that is still open. */
  | { standing: 'signed-in'; me: Me; stale: boolean };

/** Kept while somebody has left this device and the server has not been told yet. */
const OWED_SIGN_OUT = 'sign-out owed';

let state: SessionState = { standing: 'asking' };
const listeners = new Set<() => void>();

function set(next: SessionState): void {
  state = next;
  if (next.standing === 'signed-in' && next.me.timeZone) sayTimesIn(next.me.timeZone);
  void setOutboxOwner(next.standing === 'signed-in' && !next.stale ? next.me : null);
  listeners.forEach((listener) => listener());
}

/** Forgets on this device who was here and what they read. What they recorded stays, for them alone. */
async function forget(): Promise<void> {
  await keepMe(null);
  await dropKeptCache();
}

/**
 * Finds out who is here: from the server, or from the device's memory where it cannot be asked. Whoever left without
 * network has left: the server is told before anything else.
 */
export async function findSession(): Promise<void> {
  if (await keptByName(OWED_SIGN_OUT)) {
    const told = await ask('POST', '/api/v1/sign-out').then(
      () => true,
      (error: unknown) => asProblem(error).code !== 'offline',
    );
    if (told) await keepByName(OWED_SIGN_OUT, undefined);
    set({ standing: 'signed-out' });
    return;
  }
  try {
    const me = await ask('GET', '/api/v1/me');
    await keepMe(me);
    set({ standing: 'signed-in', me, stale: false });
  } catch (error) {
    const problem = asProblem(error);
    if (problem.code === 'not-signed-in') {
      // Let go, signed out elsewhere, or idle too long: without network it must not open again either.
      await forget();
      const { needsFirstLead, needsCode } = await ask('GET', '/api/v1/set-up').catch(() => ({
        needsFirstLead: false,
        needsCode: false,
      }));
      set(needsFirstLead ? { standing: 'set-up', needsCode } : { standing: 'signed-out' });
      return;
    }
    const remembered = await keptMe();
    if (remembered) set({ standing: 'signed-in', me: remembered, stale: false });
    else set({ standing: 'unreachable', message: problem.message });
  }
}

/** Takes somebody in after sign-in or set-up. Another person than before gets a fresh page. */
export async function enter(me: Me): Promise<void> {
  const before = state.standing === 'signed-in' ? state.me.personId : me.personId;
  await keepByName(OWED_SIGN_OUT, undefined);
  await keepMe(me);
  if (before !== me.personId) {
    window.location.assign('/');
    return;
  }
  set({ standing: 'signed-in', me, stale: false });
}

/** Told by any request that the session is over; what is on the screen stays, and nothing of it opens again. */
export function sessionEnded(): void {
  if (state.standing !== 'signed-in' || state.stale) return;
  set({ ...state, stale: true });
  // Not what the screen shows: somebody who signs in again goes on with it.
  void keepMe(null).then(dropKeptOnDevice);
}

/** Takes in what the shop now says of itself. */
export async function shopChanged(me: Me): Promise<void> {
  await keepMe(me);
  set({ standing: 'signed-in', me, stale: false });
}

/**
 * Leaves, on this device or on all. Marks not sent stay on the device for the same person. This device is left without
 * network, too: the server is told when it can be.
 *
 * @throws RequestProblem where all devices are meant and the server cannot be asked
 */
export async function leave(everywhere: boolean): Promise<void> {
  if (everywhere) await ask('POST', '/api/v1/sign-out-everywhere');
  else {
    await ask('POST', '/api/v1/sign-out').catch(async (error: unknown) => {
      if (asProblem(error).code !== 'offline') throw error;
      await keepByName(OWED_SIGN_OUT, true);
    });
  }
  await forget();
  set({ standing: 'signed-out' });
}

/** Who is here. */
export function useSession(): SessionState {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
    () => state,
  );
}

/** Who is signed in; only for screens that stand behind the sign-in. */
export function useMe(): Me {
  const session = useSession();
  if (session.standing !== 'signed-in')
    throw new Error('a screen behind the sign-in was shown without one');
  return session.me;
}
