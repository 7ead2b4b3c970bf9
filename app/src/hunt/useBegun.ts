import { useState } from 'react';
import type { Begun } from './HoldSheet';

/** A hold that goes on while the page is closed or loaded anew: kept on the device until it ends. */
export function useBegun(unitId: string): [Begun | null, (begun: Begun | null) => void] {
  const key = `keen-bleed.hold.${unitId}`;
  const [begun, setBegun] = useState<Begun | null>(() => {
    try {
      return JSON.parse(sessionStorage.getItem(key) ?? 'null') as Begun | null;
    } catch {
      return null;
    }
  });
  return [
    begun,
    (next) => {
      setBegun(next);
      try {
        if (next) sessionStorage.setItem(key, JSON.stringify(next));
        else sessionStorage.removeItem(key);
      } catch {
        // Without room on the device the watch lasts as long as the page.
      }
    },
  ];
}
