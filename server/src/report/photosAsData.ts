import { and, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { blobs } from '../db/schema';
import { forPaper } from '../pictures/picture';

/** The photos that a log's facts name, by id, as data of a page; one that cannot be drawn is left out. */
export async function photosAsData(
  db: Db,
  shopId: string,
  logId: string,
  facts: readonly object[],
): Promise<ReadonlyMap<string, string>> {
  const ids = facts.flatMap((fact) => (fact as { photos?: readonly string[] }).photos ?? []);
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: blobs.id, bytes: blobs.bytes })
    .from(blobs)
    .where(and(eq(blobs.shopId, shopId), eq(blobs.logId, logId), inArray(blobs.id, ids)));
  const drawn = new Map<string, string>();
  // One after the other: each takes its memory while it is drawn.
  for (const { id, bytes } of rows) {
    const jpeg = await forPaper(bytes);
    if (jpeg) drawn.set(id, `data:image/jpeg;base64,${jpeg.toString('base64')}`);
  }
  return drawn;
}
