import type { RequestHandler } from 'express';
import type pg from 'pg';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { timingSafeEqual } from 'node:crypto';
import { ApiError } from '../http/apiError';
import type { Streams } from '../http/streams';

/** Bounds of answers' times, s: what a person notices lies between a twentieth and one. */
const BUCKETS_S = [0.005, 0.01, 0.025, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10];

/** What is measured of a server, in the text format that monitors of servers read. */
export class Metrics {
  private readonly registry = new Registry();
  private readonly answers: Histogram;

  constructor(pool: pg.Pool, streams: Streams) {
    collectDefaultMetrics({ register: this.registry });
    this.answers = new Histogram({
      name: 'keen_bleed_answer_seconds',
      help: 'Time to answer a request, by route, method and status; streams of events left out.',
      labelNames: ['route', 'method', 'status'],
      buckets: BUCKETS_S,
      registers: [this.registry],
    });
    const gauge = (name: string, help: string, value: () => number) =>
      new Gauge({
        name,
        help,
        registers: [this.registry],
        collect() {
          this.set(value());
        },
      });
    gauge('keen_bleed_streams', 'Streams of events that are open.', () => streams.size);
    gauge('keen_bleed_database_connections', 'Connections in the pool.', () => pool.totalCount);
    gauge('keen_bleed_database_idle', 'Connections nobody uses now.', () => pool.idleCount);
    gauge('keen_bleed_database_waiting', 'Requests that wait for one.', () => pool.waitingCount);
  }

  /** Measures every answer; a route counts by its pattern, never by the ids in its address. */
  readonly measured: RequestHandler = (request, response, next) => {
    const startedMs = performance.now();
    response.once('finish', () => {
      if (String(response.getHeader('content-type')).startsWith('text/event-stream')) return;
      const { route } = response.locals as { route?: string };
      this.answers.observe(
        {
          route: route ?? 'none',
          method: request.method,
          status: String(response.statusCode),
        },
        (performance.now() - startedMs) / 1000,
      );
    });
    next();
  };

  /**
   * Serves what was measured to whoever has the token.
   *
   * @param token null where nobody may read it
   */
  served(token: string | null): RequestHandler {
    return async (request, response) => {
      if (token === null || !isToken(request.get('authorization') ?? '', token)) {
        throw new ApiError('not-found', 'There is nothing at this address.');
      }
      response.type(this.registry.contentType).send(await this.registry.metrics());
    };
  }
}

function isToken(header: string, token: string): boolean {
  const [given, right] = [Buffer.from(header), Buffer.from(`Bearer ${token}`)];
  return given.length === right.length && timingSafeEqual(given, right);
}
