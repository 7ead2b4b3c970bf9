import type pg from 'pg';

/** Rows that are read at once. */
const ROWS_AT_ONCE = 500;
/** Pictures are large. */
const PHOTOS_AT_ONCE = 10;

interface Part {
  /** What a line is called. */
  line: string;
  /** Its rows from a place on, `$1` the shop and `$2` how many were read. */
  text: string;
  most?: number;
}

const PARTS: readonly Part[] = [
  {
    line: 'person',
    text: `select id, name, sign_in_name as "signInName", role, active, created_at as "createdAt" from people
      where shop_id = $1 order by id`,
  },
  {
    line: 'unit',
    text: `select id, revision, draft, retired_at as "retiredAt", failures from units where shop_id = $1 order by id`,
  },
  {
    line: 'unit-revision',
    text: `select unit_id as "unitId", revision, draft, person_id as "personId", kept_at as "keptAt" from unit_revisions
      where shop_id = $1 order by unit_id, revision`,
  },
  {
    line: 'rig',
    text: `select r.id, r.revision, r.coupled_at as "coupledAt", r.uncoupled_at as "uncoupledAt",
        (select array_agg(u.unit_id order by u.place) from rig_units u where u.shop_id = r.shop_id and u.rig_id = r.id) as "unitIds"
      from rigs r where r.shop_id = $1 order by r.id`,
  },
  {
    line: 'rule-set-revision',
    text: `select rule_set_id as "ruleSetId", revision, draft, person_id as "personId", kept_at as "keptAt"
      from rule_set_revisions where shop_id = $1 order by rule_set_id, revision`,
  },
  {
    line: 'log',
    text: `select id, kind, header, title, person_id as "personId", started_at_ms::float8 as "startedAtMs",
        closed_at_ms::float8 as "closedAtMs", fact_count as "factCount", verdict, headline, received_at as "receivedAt"
      from logs where shop_id = $1 order by id`,
  },
  {
    line: 'fact',
    text: `select log_id as "logId", place, lane, seq, person_id as "personId", received_at_ms::float8 as "receivedAtMs",
        fact, link as sha256 from facts where shop_id = $1 order by log_id, place`,
  },
  {
    line: 'failure-closing',
    text: `select log_id as "logId", key, reason, person_id as "personId", closed_at as "closedAt" from failure_closings
      where shop_id = $1 order by log_id, key`,
  },
  {
    line: 'photo',
    text: `select id, log_id as "logId", person_id as "personId", media_type as "mediaType",
        translate(encode(bytes, 'base64'), E'\n', '') as base64 from blobs where shop_id = $1 order by id`,
    most: PHOTOS_AT_ONCE,
  },
  {
    line: 'audit',
    text: `select id, at, person_id as "personId", by, what, about, address from audit where shop_id = $1 order by id`,
  },
];

/**
 * Everything a shop has recorded, as lines of JSON, of one moment: first what it is, then row by row what it holds, and
 * at the end how many lines there were, so that a file that was cut short is known. No password is among it.
 *
 * @param client of a pool, used until the last line
 */
export async function* shopLines(
  client: pg.PoolClient,
  shop: { shopId: string; shopName: string; timeZone: string },
  nowMs: number,
): AsyncGenerator<string> {
  await client.query('begin isolation level repeatable read read only');
  // A whole shop may take longer than a request's own statements may.
  await client.query('set local statement_timeout = 0');
  let lines = 1;
  try {
    yield line({ format: 'keen-bleed/shop/1', ...shop, exportedAtMs: nowMs });
    for (const { line: called, text, most = ROWS_AT_ONCE } of PARTS) {
      await client.query(`declare part no scroll cursor for ${text}`, [shop.shopId]);
      for (;;) {
        const { rows } = await client.query<Record<string, unknown>>(`fetch ${most} from part`);
        for (const row of rows) {
          lines += 1;
          yield line({ line: called, ...row });
        }
        if (rows.length < most) break;
      }
      await client.query('close part');
    }
    yield line({ line: 'end', lines: lines + 1 });
  } finally {
    await client.query('rollback');
  }
}

const line = (value: object): string => `${JSON.stringify(value)}\n`;
