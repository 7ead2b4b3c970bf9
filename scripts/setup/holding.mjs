import { hashOf, wrongIn } from './chains.mjs';

/*
 * What a database holds, as a backup notes it and a restore finds it again: how many rows each table has, what stands
 * in the catalogues, and what every record's chain comes to. Names, not definitions: those are worded otherwise by
 * another version of PostgreSQL.
 */

const OURS = "('public', 'drizzle')";

/** Statements that print what there is, a JSON object a line; the last is `end`. */
export const ASK = String.raw`
select json_build_object('what', 'column', 'name', format('%s.%s.%s %s%s', n.nspname, c.relname, a.attname,
    format_type(a.atttypid, a.atttypmod), case when a.attnotnull then ' not null' else '' end))
  from pg_catalog.pg_attribute a join pg_catalog.pg_class c on c.oid = a.attrelid
  join pg_catalog.pg_namespace n on n.oid = c.relnamespace
  where n.nspname in ${OURS} and c.relkind = 'r' and a.attnum > 0 and not a.attisdropped;
select json_build_object('what', 'constraint', 'name', format('%s.%s.%s', n.nspname, c.relname, k.conname))
  from pg_catalog.pg_constraint k join pg_catalog.pg_class c on c.oid = k.conrelid
  join pg_catalog.pg_namespace n on n.oid = c.relnamespace where n.nspname in ${OURS};
select json_build_object('what', 'trigger', 'name', format('%s.%s.%s', n.nspname, c.relname, t.tgname))
  from pg_catalog.pg_trigger t join pg_catalog.pg_class c on c.oid = t.tgrelid
  join pg_catalog.pg_namespace n on n.oid = c.relnamespace where n.nspname in ${OURS} and not t.tgisinternal;
select json_build_object('what', 'index', 'name', format('%s.%s', schemaname, indexname))
  from pg_catalog.pg_indexes where schemaname in ${OURS};
select format('select json_build_object(''what'', ''table'', ''name'', %L, ''rows'', count(*)) from %I.%I',
    schemaname || '.' || tablename, schemaname, tablename)
  from pg_catalog.pg_tables where schemaname in ${OURS}
\gexec
select exists (select from pg_catalog.pg_attribute where attrelid = to_regclass('public.facts') and attname = 'link')
  as chained
\gset
\if :chained
select json_build_object('what', 'log', 'shop', shop_id, 'id', id, 'kind', kind, 'title', title, 'header', header,
    'count', fact_count) from public.logs;
select json_build_object('what', 'fact', 'shop', shop_id, 'log', log_id, 'lane', lane, 'seq', seq,
    'personId', person_id, 'receivedAtMs', received_at_ms, 'fact', fact, 'place', place, 'sha256', link)
  from public.facts order by shop_id, log_id, place nulls last;
\endif
\echo {"what":"end"}
`;

/** Reads what `ASK` prints, up to its end; null where it ends before that. */
export async function readHolding(lines) {
  const lists = { column: [], constraint: [], trigger: [], index: [] };
  const tables = {};
  const logs = new Map();
  for await (const line of lines) {
    if (!line.startsWith('{')) continue;
    const { what, ...row } = JSON.parse(line);
    if (what === 'end') return holdingOf(lists, tables, logs);
    if (what === 'table') tables[row.name] = row.rows;
    else if (what === 'log') {
      const { shop, id, kind, title, header, count } = row;
      logs.set(`${shop} ${id}`, { name: `${kind} ${id} (${title})`, header, count, links: [] });
    } else if (what === 'fact') {
      const { shop, log, fact, ...link } = row;
      logs.get(`${shop} ${log}`)?.links.push({ ...link, entrySha256: hashOf(fact) });
    } else lists[what].push(row.name);
  }
  return null;
}

function holdingOf(lists, tables, logs) {
  const names = Object.fromEntries(
    Object.entries(lists).map(([what, found]) => [what, found.sort()]),
  );
  const records = [...logs.values()].map(({ name, header, count, links }) => ({
    name,
    wrong: wrongIn(hashOf(header), links, count),
    head: links.at(-1)?.sha256 ?? hashOf(header),
  }));
  return {
    tables: Object.fromEntries(Object.entries(tables).sort(([a], [b]) => (a < b ? -1 : 1))),
    ...names,
    records: records.length,
    // One hash over the head of every chain.
    heads: hashOf(records.map(({ name, head }) => [name, head]).sort()),
    wrong: records.flatMap(({ name, wrong }) => (wrong ? [`${name}: ${wrong}`] : [])).sort(),
  };
}

/** In what a database differs from what was noted of it, in words; empty where it is the same. */
export function differences(noted, found) {
  const lists = ['column', 'constraint', 'trigger', 'index'].flatMap((what) => {
    const there = new Set(found[what]);
    return noted[what]
      .filter((name) => !there.has(name))
      .map((name) => `${what} ${name} is missing`);
  });
  const rows = Object.entries(noted.tables).flatMap(([name, count]) =>
    found.tables[name] === count
      ? []
      : [`table ${name} has ${found.tables[name] ?? 'no'} rows of ${count}`],
  );
  const chains =
    noted.heads === found.heads && noted.wrong.join() === found.wrong.join()
      ? []
      : ['the chains of its records are not those that were kept'];
  return [...rows, ...lists, ...chains];
}
