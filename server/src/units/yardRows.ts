import type { Figure, OpenFailure, UnitKind, Verdict, YardRow } from '@keen-bleed/contract';
import { sql, type SQL } from 'drizzle-orm';
import type { Db } from '../db/database';
import { byUnit, openJobs, standingOf, type OpenJob } from './openJobs';

/** Newest runs looked at for each unit: as many as the small trend line shows. */
const TREND_RUNS = 8;

interface Row extends Record<string, unknown> {
  id: string;
  number: string;
  name: string;
  kind: UnitKind;
  every_days: number;
  revision: number;
  retired_at: string | null;
  leaks: (number | null)[] | null;
  failures: OpenFailure[] | null;
  last_complete: string | null;
  last_id: string | null;
  last_at: string | null;
  time_unsure: boolean | null;
  verdict: Verdict | null;
  headline: string | null;
  decisive: Figure | null;
  retest_id: string | null;
  retest_at: string | null;
  retest_verdict: Verdict | null;
  open_id: string | null;
  open_at: string | null;
  open_by: string | null;
}

/**
 * The one statement the yard is read with: each unit takes its newest few runs from an index that stands in
 * that order and carries what is asked of them, so the cost goes with the units and not with the runs.
 */
export function yardQuery(shopId: string, page: YardPage = {}): SQL {
  return sql`
    select u.id, u.draft->>'number' as number, u.draft->>'name' as name, u.draft->>'kind' as kind,
           (u.draft->>'testEveryDays')::int as every_days, u.revision, u.retired_at, u.failures,
           r.leaks, l.id as last_id, l.closed_at_ms as last_at,
           r.retest_id, r.retest_at, r.retest_verdict, l.time_unsure, l.verdict, l.headline, l.decisive,
           -- Only a unit whose newest runs all came to nothing has to be looked through further.
           coalesce(r.last_complete, (
             select max(e.closed_at_ms) from log_units e
             where e.shop_id = u.shop_id and e.unit_id = u.id and e.kind = 'run' and e.closed_at_ms is not null
               and e.whole and e.verdict = 'pass' and r.newest is not null
           )) as last_complete,
           o.log_id as open_id, o.started_at_ms as open_at, p.name as open_by
    from units u
    left join lateral (
      select array_agg(n.trend order by n.rank_ms) as leaks,
             max(n.rank_ms) as newest,
             (array_agg(n.log_id order by n.rank_ms desc) filter (where n.whole))[1] as last_whole,
             -- What was retested since the last whole run stands beside it.
             (array_agg(n.log_id order by n.rank_ms desc) filter (where not n.whole and n.is_newer))[1] as retest_id,
             (array_agg(n.closed_at_ms order by n.rank_ms desc) filter (where not n.whole and n.is_newer))[1] as retest_at,
             (array_agg(n.verdict order by n.rank_ms desc) filter (where not n.whole and n.is_newer))[1] as retest_verdict,
             max(n.closed_at_ms) filter (where n.whole and n.verdict = 'pass') as last_complete
      from (
        select log_id, closed_at_ms, rank_ms, verdict, trend, whole,
               rank_ms > coalesce(max(rank_ms) filter (where whole) over (), 0) as is_newer
        from (select * from log_units
        where shop_id = u.shop_id and unit_id = u.id and kind = 'run' and closed_at_ms is not null
        order by rank_ms desc
        limit ${TREND_RUNS}) newest
      ) n
    ) r on true
    left join logs l on l.shop_id = u.shop_id and l.id = coalesce(r.last_whole, (
      select e.log_id from log_units e
      where e.shop_id = u.shop_id and e.unit_id = u.id and e.kind = 'run' and e.closed_at_ms is not null
        and e.whole and r.newest is not null
      order by e.rank_ms desc
      limit 1
    ))
    left join lateral (
      select q.log_id, q.started_at_ms
      from log_units q
      where q.shop_id = u.shop_id and q.unit_id = u.id and q.kind = 'run' and q.closed_at_ms is null
      order by q.started_at_ms desc
      limit 1
    ) o on true
    left join logs w on w.shop_id = u.shop_id and w.id = o.log_id
    left join people p on p.shop_id = u.shop_id and p.id = w.person_id
    where u.shop_id = ${shopId} ${
      page.after
        ? sql`and (u.number, u.id) > (select a.number, a.id from units a where a.shop_id = ${shopId} and a.id = ${page.after})`
        : sql``
    }
    order by u.number, u.id
    ${page.most ? sql`limit ${page.most}` : sql``}`;
}

/** Which units of the yard: those after one of them, and so many at most; all of them where nothing is said. */
export interface YardPage {
  after?: string | undefined;
  most?: number;
}

/** Units of a shop with their newest runs, by their numbers. */
export async function yardRows(db: Db, shopId: string, page: YardPage = {}): Promise<YardRow[]> {
  const result = await db.execute<Row>(yardQuery(shopId, page));
  const jobs = byUnit(await openJobs(db, shopId));
  return result.rows.map((row) => yardRow(row, jobs.get(row.id) ?? []));
}

function yardRow(row: Row, jobs: readonly OpenJob[]): YardRow {
  const { id, number, name, kind, revision } = row;
  return {
    unit: {
      id,
      number,
      name,
      kind,
      revision,
      testEveryDays: row.every_days,
      retiredAtMs: row.retired_at ? new Date(row.retired_at).getTime() : null,
    },
    last:
      row.last_id !== null && row.verdict !== null
        ? {
            runId: row.last_id,
            closedAtMs: Number(row.last_at),
            verdict: row.verdict,
            timeUnsure: row.time_unsure ?? false,
            headline: row.headline ?? '',
            decisive: row.decisive,
          }
        : null,
    retest:
      row.retest_id !== null && row.retest_verdict !== null
        ? {
            runId: row.retest_id,
            closedAtMs: Number(row.retest_at),
            verdict: row.retest_verdict,
          }
        : null,
    lastCompleteAtMs: row.last_complete === null ? null : Number(row.last_complete),
    open:
      row.open_id !== null && row.open_by !== null
        ? { runId: row.open_id, startedAtMs: Number(row.open_at), by: row.open_by }
        : null,
    failures: row.failures ?? [],
    ...standingOf(row.failures ?? [], jobs),
    leakTrendPsiPerMin: (row.leaks ?? []).filter((leak) => leak !== null),
  };
}
