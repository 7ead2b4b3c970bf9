import type { CloseFailure, Me, OpenFailure, Outcome, RuleSet } from '@keen-bleed/contract';
import { openFailures, provesItsSteps, type JudgedRun } from '@keen-bleed/core';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { failureClosings, logs, logUnits, units } from '../db/schema';

interface RunRow extends Record<string, unknown> {
  id: string;
  rank_ms: string;
  front: string;
  towed: string[] | null;
  verdict: string;
  cut_short: boolean | null;
  retest_of: string[] | null;
  core_version: string | null;
  figures: Outcome['figures'] | null;
  findings: Outcome['findings'] | null;
  steps: RuleSet['steps'] | null;
  rule_set_id: string | null;
}

/**
 * Works out anew what stands open on some units, from every run of theirs and of what was ever coupled to them: a
 * failure of a rig is traced by what its other units show alone.
 */
export async function refreshFailures(
  tx: Db,
  shopId: string,
  unitIds: readonly string[],
): Promise<void> {
  if (unitIds.length === 0) return;
  // A failure found on one of them may be traced to what it was coupled to: that is worked out anew as well, from all
  // that was ever coupled to either.
  const concerned = await withCoupled(tx, shopId, unitIds);
  const around = await withCoupled(tx, shopId, concerned);
  // Held before the runs are read, and in one order: of two runs that close at once the second sees the first.
  await tx
    .select({ id: units.id })
    .from(units)
    .where(and(eq(units.shopId, shopId), inArray(units.id, around)))
    .orderBy(asc(units.id))
    .for('no key update');
  const listed = uuids(around);
  const found = await tx.execute<RunRow>(sql`
    with runs as (
      select distinct u.log_id, u.rank_ms from log_units u
      where u.shop_id = ${shopId} and u.unit_id in (${listed})
        and u.kind = 'run' and u.closed_at_ms is not null
    )
    select l.id, r.rank_ms, l.verdict,
           l.header->'made'->'unit'->>'id' as front,
           (select array_agg(t->>'id' order by n)
            from jsonb_array_elements(l.header->'made'->'towed') with ordinality as e(t, n)) as towed,
           (l.result->>'cutShort')::boolean as cut_short,
           l.header->'made'->'retestOf' as retest_of, l.header->>'coreVersion' as core_version,
           l.result->'figures' as figures, l.result->'findings' as findings,
           coalesce(l.header->'made'->'ruleSet'->'steps', l.header->'ruleSet'->'steps') as steps,
           coalesce(l.header->'made'->'ruleSet'->>'id', l.header->'ruleSet'->>'id') as rule_set_id
    from runs r join logs l on l.shop_id = ${shopId} and l.id = r.log_id`);
  const runs = found.rows.map((row): JudgedRun => ({
    runId: row.id,
    atMs: Number(row.rank_ms),
    unitIds: [row.front, ...(row.towed ?? [])],
    isWhole: takesAway(row),
    figures: row.figures ?? [],
    findings: row.findings ?? [],
    rules: { steps: row.steps ?? [], id: row.rule_set_id ?? undefined },
  }));
  const closings =
    runs.length === 0
      ? []
      : await tx
          .select({ runId: failureClosings.logId, key: failureClosings.key })
          .from(failureClosings)
          .where(
            and(
              eq(failureClosings.shopId, shopId),
              inArray(
                failureClosings.logId,
                runs.map(({ runId }) => runId),
              ),
            ),
          );
  const open = openFailures(runs, closings);
  for (const id of concerned) {
    const failures: OpenFailure[] = open.filter((failure) => failure.unitIds.includes(id));
    await tx
      .update(units)
      .set({ failures })
      .where(and(eq(units.shopId, shopId), eq(units.id, id)));
  }
}

/** Cores whose runs took nothing away once a step of theirs was left out: what they judged stays as it was. */
const ONLY_WHOLE: ReadonlySet<string> = new Set(['0.2.0', '0.3.0', '0.4.0']);

/** Whether what passed in a run takes a failure away: the rule that retests go by. */
function takesAway({ verdict, cut_short, retest_of, core_version }: RunRow): boolean {
  if (core_version === null || ONLY_WHOLE.has(core_version))
    return verdict !== 'incomplete' && cut_short !== true;
  return provesItsSteps(
    { retestOf: retest_of ?? undefined },
    cut_short === true ? { cutShort: true } : {},
  );
}

const uuids = (ids: readonly string[]) =>
  sql.join(
    ids.map((id) => sql`${id}::uuid`),
    sql`, `,
  );

/** Some units, and every unit that ever ran with one of them. */
async function withCoupled(tx: Db, shopId: string, ids: readonly string[]): Promise<string[]> {
  const found = await tx.execute<{ unit_id: string }>(sql`
    select distinct b.unit_id from log_units a
    join log_units b on b.shop_id = a.shop_id and b.log_id = a.log_id
    where a.shop_id = ${shopId} and a.unit_id in (${uuids(ids)}) and a.kind = 'run'`);
  return [...new Set([...ids, ...found.rows.map((row) => row.unit_id)])];
}

/** What stands open on some units, each as its run and what failed. */
export async function openFailureKeys(
  tx: Db,
  shopId: string,
  unitIds: readonly string[],
): Promise<Set<string>> {
  return new Set(
    (await failuresOn(tx, shopId, unitIds)).map(({ runId, key }) => `${runId} ${key}`),
  );
}

/** What stands open on some units; what stands on several of them is there once. */
export async function failuresOn(
  db: Db,
  shopId: string,
  unitIds: readonly string[],
): Promise<OpenFailure[]> {
  const rows = await db
    .select({ failures: units.failures })
    .from(units)
    .where(and(eq(units.shopId, shopId), inArray(units.id, [...unitIds])));
  const all = rows.flatMap(({ failures }) => failures ?? []);
  return [...new Map(all.map((each) => [`${each.runId} ${each.key}`, each])).values()];
}

/** The units a log is on. */
export async function unitsOfLog(tx: Db, shopId: string, logId: string): Promise<string[]> {
  const rows = await tx
    .select({ unitId: logUnits.unitId })
    .from(logUnits)
    .where(and(eq(logUnits.shopId, shopId), eq(logUnits.logId, logId)));
  return rows.map(({ unitId }) => unitId);
}

/** Works out what was never worked out: units of before there were open failures. */
export async function fillFailures(db: Db): Promise<void> {
  const rows = await db
    .select({ shopId: units.shopId, id: units.id })
    .from(units)
    .where(isNull(units.failures));
  const shops = new Map<string, string[]>();
  for (const { shopId, id } of rows) shops.set(shopId, [...(shops.get(shopId) ?? []), id]);
  for (const [shopId, ids] of shops) {
    await db.transaction((tx) => refreshFailures(tx, shopId, ids));
  }
}

/** Whether a run is this shop's, and closed. */
export async function isClosedRun(db: Db, shopId: string, logId: string): Promise<boolean> {
  const [row] = await db
    .select({ closedAtMs: logs.closedAtMs, kind: logs.kind })
    .from(logs)
    .where(and(eq(logs.shopId, shopId), eq(logs.id, logId)));
  return row?.kind === 'run' && row.closedAtMs !== null;
}

/** Whether this person has closed this failure with these very words. */
export async function isClosedAlready(
  tx: Db,
  { shopId, personId }: Pick<Me, 'shopId' | 'personId'>,
  { runId, key, reason }: CloseFailure,
): Promise<boolean> {
  const [row] = await tx
    .select()
    .from(failureClosings)
    .where(
      and(
        eq(failureClosings.shopId, shopId),
        eq(failureClosings.logId, runId),
        eq(failureClosings.key, key),
      ),
    );
  return row?.personId === personId && row.reason === reason;
}
