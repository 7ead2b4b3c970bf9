/** How far this device's clock is ahead of the server's, ms; null until an answer of the server has told. */
export interface MeasuredClock {
  aheadMs: number | null;
  /** Counts the times this page has seen its own clock being set; two facts of one count share one clock. */
  epoch: string;
  /** When it was measured, by this device's clock; null where it is only remembered, or the clock was set since. */
  measuredAtMs: number | null;
}

/** A clock that moved by this against the page's own steady one was set, ms; less is the steady one's coarseness. */
const SET_BY_MS = 2_000;

const page = Math.random().toString(36).slice(2);
let sets = 0;
let steadyMs = Date.now() - performance.now();
let now: MeasuredClock = { aheadMs: null, epoch: `${page}-0`, measuredAtMs: null };
const listeners = new Set<(clock: MeasuredClock) => void>();

/** Looks whether the clock was set since it was looked at last. Sleep looks like it too, and does no harm. */
function lookWhetherSet(): void {
  const steady = Date.now() - performance.now();
  if (Math.abs(steady - steadyMs) < SET_BY_MS) return;
  steadyMs = steady;
  sets += 1;
  now = { ...now, epoch: `${page}-${sets}`, measuredAtMs: null };
}

/** Takes in what an answer of the server said of its time, between the asking and the answer. */
export function heardServerTime(serverMs: number, askedMs: number, answeredMs: number): void {
  if (!Number.isFinite(serverMs)) return;
  lookWhetherSet();
  now = {
    ...now,
    aheadMs: Math.round((askedMs + answeredMs) / 2 - serverMs),
    measuredAtMs: answeredMs,
  };
  listeners.forEach((listener) => listener(now));
}

/** The clock as last measured; for a page that has not yet heard, what the device remembers is put in by the store. */
export function measuredClock(): MeasuredClock {
  lookWhetherSet();
  return now;
}

/** Puts in what was measured before this page was loaded. */
export function rememberClock(aheadMs: number): void {
  now = now.aheadMs === null ? { ...now, aheadMs } : now;
}

/** Tells of every measurement. */
export function onClock(listener: (clock: MeasuredClock) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
