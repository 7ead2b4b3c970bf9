import type { Me } from '@keen-bleed/contract';
import { useSyncExternalStore } from 'react';
import { sayTimesIn } from '../data/when';
import { ask, asProblem } from '../wire/api';
import { dropKeptCache } from '../store/keptCache';
import { keepMe, keptMe } from '../store/kept';
import { setOutboxOwner } from '../store/outbox';

/** Who is at this device, and whether the server agrees. */
export type SessionState =
  | { standing: 'asking' }
  | { standing: 'set-up' }
  | { standing: 'signed-out' }
  | { standing: 'unreachable'; message: string }
  /** `stale` when the session ended under a screen that is still open. */
  | { standing: 'signed-in'; me: Me; stale: boolean };

let state: SessionState = { standing: 'asking' };
const listeners = new Set<() => void>();

function set(next: SessionState): void {
  state = next;
  if (next.standing === 'signed-in' && next.me.timeZone) sayTimesIn(next.me.timeZone);
  void setOutboxOwner(next.standing === 'signed-in' && !next.stale ? next.me : null);
  listeners.forEach((listener) => listener());
}

/** Finds out who is here: from the server, or from the device's memory where it cannot be asked. */
export async function findSession(): Promise<void> {
  try {
    const me = await ask<Me>('GET', '/api/me');
    await keepMe(me);
    set({ standing: 'signed-in', me, stale: false });
  } catch (error) {
    const problem = asProblem(error);
    if (problem.code === 'not-signed-in') {
      const { needsFirstLead } = await ask<{ needsFirstLead: boolean }>('GET', '/api/set-up').catch(
        () => ({ needsFirstLead: false }),
      );
      set({ standing: needsFirstLead ? 'set-up' : 'signed-out' });
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
  await keepMe(me);
  if (before !== me.personId) {
    window.location.assign('/');
    return;
  }
  set({ standing: 'signed-in', me, stale: false });
}

/** Told by any request that the session is over; what is on the screen stays. */
export function sessionEnded(): void {
  if (state.standing === 'signed-in' && !state.stale) set({ ...state, stale: true });
}

/** Takes in what the shop now says of itself. */
export async function shopChanged(me: Me): Promise<void> {
  await keepMe(me);
  set({ standing: 'signed-in', me, stale: false });
}

/** Leaves, on this device or on all. Marks not sent stay on the device for the same person. */
export async function leave(everywhere: boolean): Promise<void> {
  await ask('POST', everywhere ? '/api/sign-out-everywhere' : '/api/sign-out');
  await keepMe(null);
  await dropKeptCache();
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
