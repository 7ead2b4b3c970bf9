/** How far this device's clock is ahead of the server's, ms; null until an answer of the server has told. */
export interface MeasuredClock {
  /** Of the clock that records go by here, {@link deviceMs}. */
  aheadMs: number | null;
  /** Of the clock that the device shows. */
  shownAheadMs: number | null;
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
/** By how much {@link deviceMs} is in front of the clock that the device shows, ms: what that was set back by. */
let setBackMs = 0;
let now: Omit<MeasuredClock, 'shownAheadMs'> = {
  aheadMs: null,
  epoch: `${page}-0`,
  measuredAtMs: null,
};
const listeners = new Set<(clock: MeasuredClock) => void>();

/** Looks whether the clock was set since it was looked at last. Sleep looks like it too, and does no harm. */
function lookWhetherSet(): void {
  const steady = Date.now() - performance.now();
  const byMs = steady - steadyMs;
  if (Math.abs(byMs) < SET_BY_MS) return;
  steadyMs = steady;
  // Whole ones: what records are stamped with has no parts of a millisecond.
  if (byMs < 0) setBackMs += Math.round(-byMs);
  sets += 1;
  now = { ...now, epoch: `${page}-${sets}`, measuredAtMs: null };
}

/** Takes in what an answer of the server said of its time, between the asking and the answer. */
export function heardServerTime(serverMs: number, askedMs: number, answeredMs: number): void {
  if (!Number.isFinite(serverMs)) return;
  lookWhetherSet();
  now = {
    ...now,
    aheadMs: Math.round((askedMs + answeredMs) / 2 + setBackMs - serverMs),
    measuredAtMs: answeredMs,
  };
  listeners.forEach((listener) => listener(measured()));
}

/** The clock as last measured; for a page that has not yet heard, what the device remembers is put in by the store. */
export function measuredClock(): MeasuredClock {
  lookWhetherSet();
  return measured();
}

const measured = (): MeasuredClock => ({
  ...now,
  shownAheadMs: now.aheadMs === null ? null : now.aheadMs - setBackMs,
});

/**
 * The clock that records go by, ms since 1970: the device's, and where that is set back, on as it was. A hold that is
 * being timed stays timed right, and the next mark does not come before the last.
 */
export function deviceMs(): number {
  lookWhetherSet();
  return Date.now() + setBackMs;
}

/** The latest moment of a lane, and how far its clock was ahead then, ms; null where nobody knew. */
export interface LatestOfLane {
  atMs: number;
  offsetMs: number | null;
}

/**
 * Goes on from the latest entry of a lane where the clock was set back while no page saw it: by as much as the two
 * measurements are apart, or from that entry on, unsure by how much.
 *
 * @returns by how much {@link deviceMs} moved, ms
 */
export function goOnFrom({ atMs, offsetMs }: LatestOfLane): number {
  const nowMs = deviceMs();
  if (nowMs >= atMs) return 0;
  const { aheadMs, measuredAtMs } = now;
  const bothMs = aheadMs === null || offsetMs === null ? -Infinity : nowMs - aheadMs + offsetMs;
  const isKnown = measuredAtMs !== null || bothMs >= atMs - SET_BY_MS;
  const byMs = Math.ceil(Math.max(bothMs, atMs) - nowMs);
  setBackMs += byMs;
  sets += 1;
  const epoch = `${page}-${sets}`;
  now = { ...now, epoch, aheadMs: isKnown && aheadMs !== null ? aheadMs + byMs : null };
  return byMs;
}

/** Puts in what was measured before this page was loaded. */
export function rememberClock(aheadMs: number): void {
  now = now.aheadMs === null ? { ...now, aheadMs: aheadMs + setBackMs } : now;
}

/** Tells of every measurement. */
export function onClock(listener: (clock: MeasuredClock) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
