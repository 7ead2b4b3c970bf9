import type { DrainRows } from '@keen-bleed/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';

interface Row extends Record<string, unknown> {
  unit_id: string;
  at: string | null;
  headline: string | null;
}

/** When each unit of a shop that is in service was drained last: in a visit, or before a run. */
export async function drainRows(db: Db, shopId: string): Promise<DrainRows> {
  const { rows } = await db.execute<Row>(sql`
    select u.id as unit_id, d.at, d.headline
    from units u
    left join lateral (
      select l.last_at_ms as at, case when l.kind = 'visit' then l.headline end as headline
      from log_units e join logs l on l.shop_id = e.shop_id and l.id = e.log_id
      where e.shop_id = u.shop_id and e.unit_id = u.id and e.kind in ('visit', 'run') and l.drained
      order by l.last_at_ms desc
      limit 1
    ) d on true
    where u.shop_id = ${shopId} and u.retired_at is null
    order by u.number`);
  return rows.map(({ unit_id, at, headline }) => ({
    unitId: unit_id,
    drainedAtMs: at === null ? null : Number(at),
    said: headline,
  }));
}
