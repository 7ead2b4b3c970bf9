/** One reading a linked gauge has sent. */
export interface GaugeSample {
  /** Counts up in the gauge: the same number twice is the same reading. */
  seq: number;
  atMs: number;
  psi: number;
}

/** What is kept of the past, ms: longer than any hold. */
const KEPT_MS = 15 * 60_000;

/**
 * Puts a reading where it belongs in time. One that was sent again changes nothing, one that comes late is put in
 * before those that overtook it.
 *
 * @param log oldest first
 * @returns the log with the reading; the same log where nothing changed
 */
export function withSample(
  log: readonly GaugeSample[],
  sample: GaugeSample,
): readonly GaugeSample[] {
  const last = log.at(-1);
  if (!last || (sample.seq > last.seq && sample.atMs >= last.atMs)) {
    const from = log.findIndex((each) => each.atMs >= sample.atMs - KEPT_MS);
    return [...(from < 0 ? [] : log.slice(from)), sample];
  }
  if (log.some((each) => each.seq === sample.seq)) return log;
  const at = log.findIndex((each) => each.atMs > sample.atMs);
  return at < 0 ? [...log, sample] : [...log.slice(0, at), sample, ...log.slice(at)];
}
