import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type pg from 'pg';
import { LEADS, route, type Route } from '../http/route';
import { shopLines } from './shopLines';

/** Everything of a shop, as one file, for its leads. */
export function shopExportRoutes(pool: pg.Pool): Route[] {
  return [
    route({
      method: 'get',
      path: '/shop/export.jsonl',
      who: LEADS,
      body: null,
      query: null,
      answers: 'file',
      exports: true,
      does: async ({ me: { shopId, shopName, timeZone }, response }) => {
        const client = await pool.connect();
        const nowMs = Date.now();
        const day = new Date(nowMs).toISOString().slice(0, 10);
        response.attachment(`shop-${day}.jsonl`).type('application/x-ndjson');
        try {
          const lines = shopLines(client, { shopId, shopName, timeZone }, nowMs);
          await pipeline(Readable.from(lines), response);
        } catch (error) {
          // Whoever asked has gone; what is cut short lacks its last line.
          if ((error as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
        } finally {
          client.release();
        }
      },
    }),
  ];
}
