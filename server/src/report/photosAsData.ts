import { and, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { blobs } from '../db/schema';

/** What the printer can put on paper. */
const PRINTED: ReadonlySet<string> = new Set(['image/jpeg', 'image/png']);

/** The photos that a log's facts name, by id, as data of a page. */
export async function photosAsData(
  db: Db,
  shopId: string,
  logId: string,
  facts: readonly object[],
): Promise<ReadonlyMap<string, string>> {
  const ids = facts.flatMap((fact) => (fact as { photos?: readonly string[] }).photos ?? []);
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: blobs.id, mediaType: blobs.mediaType, bytes: blobs.bytes })
    .from(blobs)
    .where(and(eq(blobs.shopId, shopId), eq(blobs.logId, logId), inArray(blobs.id, ids)));
  return new Map(
    rows.flatMap(({ id, mediaType, bytes }) =>
      PRINTED.has(mediaType)
        ? [[id, `data:${mediaType};base64,${bytes.toString('base64')}`] as const]
        : [],
    ),
  );
}
