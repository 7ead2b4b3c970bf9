import { useEffect, useSyncExternalStore } from 'react';

/*
 * A session that ends while a needle is being timed does not stand in the way: the watch runs, and what is marked is
 * kept here for whoever is recording. It is said beside the run, and asked for as soon as nothing is timed any more.
 */

let timing = 0;
let isWanted = false;
const listeners = new Set<() => void>();

const tell = () => listeners.forEach((listener) => listener());

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
}

/** Holds the sheet back for as long as something is timed on this screen. */
export function usePutsSignInOff(isTiming: boolean): void {
  useEffect(() => {
    if (!isTiming) return undefined;
    timing += 1;
    tell();
    return () => {
      timing -= 1;
      // Asked for at once now; a run begun later is not covered because somebody once pressed the button.
      isWanted = false;
      tell();
    };
  }, [isTiming]);
}

/** Opens the sheet though something is timed, or puts it aside again. */
export function wantSignIn(wanted: boolean): void {
  isWanted = wanted;
  tell();
}

const isTimed = () => timing > 0;
const isPutOff = () => timing > 0 && !isWanted;
const covers = () => isWanted;

/** Whether signing in waits until nothing is timed any more. */
export const useSignInPutOff = () => useSyncExternalStore(subscribe, isPutOff, isPutOff);

/** Whether the sheet may be put aside. */
export const useMayPutOff = () => useSyncExternalStore(subscribe, isTimed, isTimed);

/** Whether the sheet stands over what is timed: its keys are not the run's then. */
export const useSignInCovers = () => useSyncExternalStore(subscribe, covers, covers);
