import type { PressureUnit } from '@keen-bleed/contract';
import { pressureUnits } from '@keen-bleed/contract/forms';
import { useSyncExternalStore } from 'react';

/** What a device remembers of its holder's wishes. */
export interface Prefs {
  theme: 'system' | 'shop' | 'yard';
  /** Unit of pressure everywhere but on the run screen, which speaks the gauge's own. */
  unit: PressureUnit;
  hand: 'right' | 'left';
  /** Steps and counts of a run are spoken. */
  voice: 'off' | 'on';
}

const KEY = 'keen-bleed.prefs';
const defaults: Prefs = { theme: 'system', unit: 'psi', hand: 'right', voice: 'off' };

let current = read();
const listeners = new Set<() => void>();

function read(): Prefs {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Prefs>;
    return {
      theme: kept.theme === 'shop' || kept.theme === 'yard' ? kept.theme : defaults.theme,
      unit: pressureUnits.find((unit) => unit === kept.unit) ?? defaults.unit,
      hand: kept.hand === 'left' ? 'left' : 'right',
      voice: kept.voice === 'on' ? 'on' : 'off',
    };
  } catch {
    return defaults;
  }
}

/** Changes some wishes, for now and for later visits. */
export function setPrefs(change: Partial<Prefs>): void {
  current = { ...current, ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(current));
  } catch {
    // A device that keeps nothing still follows the wish until the page is closed.
  }
  listeners.forEach((listener) => listener());
}

/** The wishes in force. */
export function usePrefs(): Prefs {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => current,
    () => defaults,
  );
}
