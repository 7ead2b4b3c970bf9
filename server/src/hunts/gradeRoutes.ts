import { GradesTaughtSchema, type GradesTaught } from '@keen-bleed/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { READERS, route, type Route } from '../http/route';

/** The newest mends that teach: a shop's eyes change. */
const MOST = 400;

/** What leaks that were mended alone between two holds lost, by what soap had called them. */
export function gradeRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/grades',
      who: READERS,
      body: null,
      query: null,
      answers: GradesTaughtSchema,
      does: async ({ me }) => ({ body: await gradesTaught(db, me.shopId) }),
    }),
  ];
}

async function gradesTaught(db: Db, shopId: string): Promise<GradesTaught> {
  const { rows } = await db.execute<{ taught: GradesTaught }>(sql`
    select f.fact->'taught' as taught
    from facts f
    where f.shop_id = ${shopId} and f.fact->>'kind' = 'held' and f.fact ? 'taught'
      and not exists (
        select 1 from facts r
        where r.shop_id = f.shop_id and r.log_id = f.log_id
          and (r.fact->>'target' = f.id::text or r.fact->>'supersedes' = f.id::text)
      )
    order by f.received_at_ms desc
    limit ${MOST}`);
  return rows.flatMap(({ taught }) => taught).slice(0, MOST);
}
