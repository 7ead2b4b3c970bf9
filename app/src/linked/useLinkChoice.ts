import { useState } from 'react';

/** Whether a run is read by a gauge set; a reload in the middle of it finds the link again. */
export function useLinkChoice(runId: string): [boolean, (linked: boolean) => void] {
  const key = `keen-bleed linked ${runId}`;
  const [linked, setLinked] = useState(() => {
    try {
      return sessionStorage.getItem(key) === '1';
    } catch {
      return false;
    }
  });
  return [
    linked,
    (next) => {
      setLinked(next);
      try {
        if (next) sessionStorage.setItem(key, '1');
        else sessionStorage.removeItem(key);
      } catch {
        // Without a place to keep it, it holds until the page is left.
      }
    },
  ];
}
