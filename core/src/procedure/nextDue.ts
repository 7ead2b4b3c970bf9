const DAY_MS = 86_400_000;

/** When a unit's next test falls due, seen from one moment. */
export interface Due {
  dueAtMs: number | null;
  /** Whole days until it is due; negative when overdue; null when it was never tested. */
  inDays: number | null;
  standing: 'never' | 'overdue' | 'soon' | 'later';
}

/** Days before the date from which a test counts as due soon. */
export const SOON_DAYS = 7;

/**
 * Next test from the last complete one and the interval kept for the unit.
 *
 * @param lastCompleteAtMs end of the last complete run, or null
 */
export function nextDue(lastCompleteAtMs: number | null, everyDays: number, nowMs: number): Due {
  if (lastCompleteAtMs === null) return { dueAtMs: null, inDays: null, standing: 'never' };
  const dueAtMs = lastCompleteAtMs + everyDays * DAY_MS;
  const inDays = Math.floor((dueAtMs - nowMs) / DAY_MS);
  return {
    dueAtMs,
    inDays,
    standing: dueAtMs < nowMs ? 'overdue' : inDays < SOON_DAYS ? 'soon' : 'later',
  };
}
