import { PhotoKeptSchema } from '@keen-bleed/contract';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { blobs } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { oneAtATime, requireRoom, type Quotas } from '../http/quotas';
import { READERS, RECORDERS, route, type Route } from '../http/route';
import { findLog } from '../log/logRow';

/** How each kind of picture begins. */
const BEGINS: Readonly<Record<string, readonly number[]>> = {
  'image/jpeg': [0xff, 0xd8, 0xff],
  'image/png': [0x89, 0x50, 0x4e, 0x47],
  'image/webp': [0x52, 0x49, 0x46, 0x46],
};

/** Photos that facts name: each comes before the fact that names it, and is served to its own shop alone. */
export function photoRoutes(db: Db, quotas: Quotas): Route[] {
  return [
    route({
      method: 'put',
      path: '/photos/:id',
      who: RECORDERS,
      body: 'image',
      query: 'photoQuery',
      answers: PhotoKeptSchema,
      does: async ({ me, id, query, request }) => {
        const photoId = id('id', 'photo');
        const mediaType = request.get('content-type')?.split(';')[0] ?? '';
        const bytes: unknown = request.body;
        const begins = BEGINS[mediaType];
        if (!Buffer.isBuffer(bytes) || !begins?.every((byte, i) => bytes[i] === byte)) {
          throw new ApiError('wrong-shape', 'A photo must be a JPEG, PNG or WebP picture.', [
            { field: 'photo', message: 'This is no JPEG, PNG or WebP picture.' },
          ]);
        }
        const { log } = await findLog(db, me.shopId, query.logId.toLowerCase());
        const ofShop = eq(blobs.shopId, me.shopId);
        const made = await db.transaction(async (tx) => {
          await oneAtATime(tx, me.shopId);
          // One that is here already is sent again because its answer was lost: it takes no room.
          if ((await tx.$count(blobs, and(ofShop, eq(blobs.id, photoId)))) > 0) return [];
          const ofLog = await tx.$count(blobs, and(ofShop, eq(blobs.logId, log.id)));
          requireRoom(quotas, 'photosOfRecord', ofLog);
          requireRoom(quotas, 'photos', await tx.$count(blobs, ofShop));
          return tx
            .insert(blobs)
            .values({
              shopId: me.shopId,
              id: photoId,
              logId: log.id,
              personId: me.personId,
              mediaType,
              bytes,
            })
            .onConflictDoNothing()
            .returning({ id: blobs.id });
        });
        if (made.length === 0) {
          const [kept] = await db
            .select({ bytes: blobs.bytes, logId: blobs.logId })
            .from(blobs)
            .where(and(eq(blobs.shopId, me.shopId), eq(blobs.id, photoId)));
          if (kept?.logId !== log.id || !bytes.equals(kept.bytes)) {
            throw new ApiError('id-taken', 'Another photo has this id.');
          }
        }
        return {
          status: made.length > 0 ? 201 : 200,
          body: { id: photoId, bytes: bytes.length },
        };
      },
    }),
    route({
      method: 'get',
      path: '/photos/:id',
      who: READERS,
      body: null,
      query: null,
      answers: 'file',
      does: async ({ me, id, response }) => {
        const [photo] = await db
          .select()
          .from(blobs)
          .where(and(eq(blobs.shopId, me.shopId), eq(blobs.id, id('id', 'photo'))));
        if (!photo) throw notFound('photo');
        response.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
        response.type(photo.mediaType).send(photo.bytes);
      },
    }),
  ];
}
