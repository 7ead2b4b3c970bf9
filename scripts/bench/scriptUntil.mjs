/** What a trace of the browser is taken of, so that {@link scriptUntil} finds it. */
export const TRACED = ['devtools.timeline', 'blink.user_timing', 'v8.execute'];

/** Work of scripts, as the browser's own trace calls it. */
const SCRIPT = new Set([
  'EventDispatch',
  'FunctionCall',
  'TimerFire',
  'FireAnimationFrame',
  'RunMicrotasks',
  'HandlePostMessage',
]);

/** The touch of a pointer on the page, as the trace has it; undefined where it holds none. */
const touchIn = (events) =>
  events.find(
    (event) => event.name === 'EventDispatch' && event.args?.data?.type === 'pointerdown',
  );

/** What the touch's own handlers took, ms: read off the trace, since an observer in the page would be script of its own. */
export const pressMs = (trace) => touchIn(JSON.parse(trace.toString()).traceEvents).dur / 1000;

/**
 * Script on the page's own thread from the touch of a pointer to a mark the page made, ms: what lies within another is
 * counted once, and of what was under way at the mark the part before it.
 *
 * @param trace as Chromium writes it
 * @param mark name of the page's `performance.mark`
 */
export function scriptUntil(trace, mark) {
  const events = JSON.parse(trace.toString()).traceEvents;
  const end = events.find((event) => event.name === mark);
  const touch = touchIn(events);
  if (!end || !touch) throw new Error('the trace holds no touch, or the pad did not change');
  const spans = events
    .filter(
      (event) =>
        event.ph === 'X' &&
        event.pid === end.pid &&
        event.tid === end.tid &&
        SCRIPT.has(event.name) &&
        event.ts >= touch.ts &&
        event.ts < end.ts,
    )
    .map(({ ts, dur }) => [ts, Math.min(ts + dur, end.ts)])
    .sort(([a], [b]) => a - b);
  let until = 0;
  let sum = 0;
  for (const [from, to] of spans) {
    sum += Math.max(0, to - Math.max(from, until));
    until = Math.max(until, to);
  }
  return sum / 1000;
}
