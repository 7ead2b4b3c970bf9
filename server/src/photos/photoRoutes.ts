import { PhotoKeptSchema } from '@keen-bleed/contract';
import { photoIdOf, saysWhatItShows } from '@keen-bleed/contract/photo-name';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { blobs } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { oneAtATime, requireRoom, type Quotas } from '../http/quotas';
import { READERS, RECORDERS, route, type Route } from '../http/route';
import { findLog } from '../log/logRow';
import { wrongWithPhoto } from '../pictures/picture';

const wrongPhoto = (message: string, field = 'photo') =>
  new ApiError('wrong-shape', message, [{ field, message }]);

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
        if (!Buffer.isBuffer(bytes)) throw wrongPhoto('A photo is sent as its bytes.');
        const wrong = await wrongWithPhoto(bytes, mediaType);
        if (wrong !== null) throw wrongPhoto(wrong);
        const { log } = await findLog(db, me.shopId, query.logId.toLowerCase());
        if (saysWhatItShows(photoId) && photoIdOf(log.id, bytes) !== photoId) {
          throw wrongPhoto(
            'The id is of another picture than the one that came: send it again.',
            'id',
          );
        }
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
