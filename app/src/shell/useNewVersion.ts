import { useEffect, useState } from 'react';
import { isLogOpen } from '../store/openHere';

/** A page that is open for days asks this often whether there is a newer version, ms. */
const ASKED_EVERY_MS = 30 * 60_000;

/**
 * Whether a newer version of the application lies ready on the device. It waits until somebody takes it: a page that
 * goes on with a run must not lose its parts to another version.
 */
export function useNewVersion(): boolean {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return undefined;
    let stale = false;
    let timer: ReturnType<typeof setInterval> | undefined;
    const look = (registration: ServiceWorkerRegistration) => {
      // The first worker of all waits for nobody.
      const isNewer = registration.waiting !== null && navigator.serviceWorker.controller !== null;
      if (!stale) setReady(isNewer);
    };
    void navigator.serviceWorker.ready.then((registration) => {
      if (stale) return;
      look(registration);
      registration.addEventListener('updatefound', () => {
        const coming = registration.installing;
        coming?.addEventListener('statechange', () => look(registration));
      });
      timer = setInterval(() => {
        registration.update().catch(() => undefined);
      }, ASKED_EVERY_MS);
    });
    return () => {
      stale = true;
      clearInterval(timer);
    };
  }, []);
  return isReady;
}

/** Whether a newer version may take over now: not while something is being recorded, in whatever tab. */
export const mayTakeOver = async (): Promise<boolean> => !(await isLogOpen());
