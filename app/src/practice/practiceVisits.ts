import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { useMemo, useSyncExternalStore } from 'react';

/** A visit on a rig in the Bay: like a real one, kept on this device only, and sent nowhere. */
export interface PracticeVisit {
  header: VisitHeader;
  /** Who practised: nobody else on the device reads it. */
  personId: string;
  title: string;
  facts: readonly VisitFact[];
  /** How it ended, in a line; null while it goes on, or where it was left. */
  ending: string | null;
}

const KEY = 'keen-bleed.practice';
/** The oldest make room for the newest. */
const MOST = 30;

let current: readonly PracticeVisit[] = read();
const listeners = new Set<() => void>();

function read(): readonly PracticeVisit[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(kept) ? (kept as PracticeVisit[]) : [];
  } catch {
    return [];
  }
}

function keep(next: readonly PracticeVisit[]): void {
  current = next.slice(0, MOST);
  try {
    localStorage.setItem(KEY, JSON.stringify(current));
  } catch {
    // A full device keeps practice for as long as the page is open.
  }
  for (const heard of listeners) heard();
}

/** Keeps a practice visit, in place of what was kept of it before. */
export const keepPractice = (visit: PracticeVisit): void =>
  keep([visit, ...current.filter(({ header }) => header.id !== visit.header.id)]);

export const deletePractice = (id: string): void =>
  keep(current.filter(({ header }) => header.id !== id));

/** A person's practice visits on this device, the newest first. */
export function usePracticeVisits(personId: string | undefined): readonly PracticeVisit[] {
  const all = useSyncExternalStore(
    (heard) => {
      listeners.add(heard);
      return () => listeners.delete(heard);
    },
    () => current,
  );
  return useMemo(() => all.filter((visit) => visit.personId === personId), [all, personId]);
}
