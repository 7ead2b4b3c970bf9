import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { useSyncExternalStore } from 'react';

/** A visit on a rig in the Bay: like a real one, kept on this device only, and sent nowhere. */
export interface PracticeVisit {
  header: VisitHeader;
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

/** Practice visits of this device, the newest first. */
export const usePracticeVisits = (): readonly PracticeVisit[] =>
  useSyncExternalStore(
    (heard) => {
      listeners.add(heard);
      return () => listeners.delete(heard);
    },
    () => current,
  );
