import { createServer, type RequestListener, type Server } from 'node:http';

/**
 * How long a connection nobody asks on is kept open, ms. Longer than a proxy keeps one, which is a minute as a rule: whoever
 * asks on a connection that is just being closed gets no answer, so the closing is left to the one who asks.
 */
export const KEPT_OPEN_MS = 75_000;

/** A server for HTTP that leaves it to its askers to close what is idle. */
export function httpServer(app: RequestListener): Server {
  return createServer({ keepAliveTimeout: KEPT_OPEN_MS }, app);
}
