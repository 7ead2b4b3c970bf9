import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type pg from 'pg';
import { ApiError } from '../http/apiError';
import { LEADS, route, type Route } from '../http/route';
import { shopLines } from './shopLines';

/** Exports of one shop at once, being written or being sent; each is a file on the server's disk meanwhile. */
const MOST_OF_SHOP = 3;
/** Whoever takes nothing for this long has gone, ms. */
const SLOWEST_MS = 60_000;

interface Shop {
  shopId: string;
  shopName: string;
  timeZone: string;
}

/** Everything of a shop, as one file, for its leads. */
export function shopExportRoutes(pool: pg.Pool): Route[] {
  const under = new Map<string, number>();
  let last: Promise<unknown> = Promise.resolve();

  /** One after the other: however many are asked for, they take one connection of the pool. */
  const written = (shop: Shop, file: string): Promise<void> => {
    const mine = last.then(() => writeShop(pool, shop, file));
    last = mine.catch(() => undefined);
    return mine;
  };

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
        const already = under.get(shopId) ?? 0;
        if (already >= MOST_OF_SHOP)
          throw new ApiError(
            'too-many-tries',
            `This shop is being exported ${already} times already: wait until one has come, then try again.`,
          );
        under.set(shopId, already + 1);
        const folder = await mkdtemp(join(tmpdir(), 'keen-bleed-export-'));
        const file = join(folder, 'shop.jsonl');
        try {
          await written({ shopId, shopName, timeZone }, file);
          const day = new Date().toISOString().slice(0, 10);
          response.attachment(`shop-${day}.jsonl`).type('application/x-ndjson');
          if (response.destroyed) return;
          response.setTimeout(SLOWEST_MS, () => response.destroy());
          await pipeline(createReadStream(file), response);
        } catch (error) {
          // Whoever asked has gone; what is cut short lacks its last line.
          if ((error as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
        } finally {
          under.set(shopId, (under.get(shopId) ?? 1) - 1);
          await rm(folder, { recursive: true, force: true });
        }
      },
    }),
  ];
}

/** Writes a shop to a file; its connection is given back before anybody reads it. */
async function writeShop(pool: pg.Pool, shop: Shop, file: string): Promise<void> {
  const client = await pool.connect();
  try {
    await pipeline(
      Readable.from(shopLines(client, shop, Date.now())),
      createWriteStream(file, { mode: 0o600 }),
    );
  } finally {
    client.release();
  }
}
