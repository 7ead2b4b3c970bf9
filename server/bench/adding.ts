import type { RunFact, Unit } from '@keen-bleed/contract';
import { monitorEventLoopDelay, performance } from 'node:perf_hooks';
import type { Database } from '../src/db/database';
import { laneOf, runHeader, type Said } from '../src/test/testShop';

interface Server {
  url: string;
  headers: Record<string, string>;
}

const mark: Said = {
  kind: 'mark',
  stepId: 'build-up',
  key: 'from',
  readingPsi: 85,
  resolutionPsi: 1,
  method: 'crossing',
};

/** Facts of a run in one lane: marks made and taken back in turn, so that no reading is ever one too many. */
function facts(count: number): RunFact[] {
  const all: RunFact[] = laneOf(
    Array.from({ length: count }, (_, n): [number, Said] =>
      n === 0
        ? [1, { kind: 'ready', stepId: 'prepare', gauge: 'primary' }]
        : [1, n % 2 === 1 ? mark : { kind: 'retract', target: '' }],
    ),
  );
  return all.map((fact, n) =>
    fact.kind === 'retract' ? { ...fact, target: all[n - 1]!.id } : fact,
  );
}

const chunks = (all: readonly RunFact[], of: number) =>
  Array.from({ length: Math.ceil(all.length / of) }, (_, n) => all.slice(n * of, (n + 1) * of));

const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/**
 * Prints how long the server takes over facts added to a run, ms, beside the same rows put bare into the same table
 * in as many transactions, and for how long at most the server's process did nothing else.
 */
export async function addingBench(
  { pool }: Database,
  { url, headers }: Server,
  { shopId, personId, unit }: { shopId: string; personId: string; unit: Unit },
): Promise<void> {
  const post = async (path: string, body: object) => {
    const answer = await fetch(`${url}${path}`, {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    await answer.arrayBuffer();
  };
  const opened = async () => {
    const header = runHeader(unit);
    await post('/api/logs', header);
    return header.id;
  };
  const bare = async (logId: string, some: readonly RunFact[]) => {
    const client = await pool.connect();
    try {
      await client.query('begin');
      await client.query('select id from logs where shop_id = $1 and id = $2 for update', [
        shopId,
        logId,
      ]);
      await client.query(
        `insert into facts (shop_id, log_id, lane, seq, id, person_id, fact, received_at_ms)
         select $1, $2, (f->>'lane')::uuid, (f->>'seq')::int, (f->>'id')::uuid, $3, f, 1
         from jsonb_array_elements($4::jsonb) f`,
        [shopId, logId, personId, JSON.stringify(some)],
      );
      await client.query('commit');
    } finally {
      client.release();
    }
  };
  const timed = async (does: () => Promise<void>) => {
    const startMs = performance.now();
    await does();
    return performance.now() - startMs;
  };

  console.log('Facts added to a run, ms (median of 5 runs), beside the bare rows');
  console.log(
    '  what                              ours     bare   ours/bare   longest the loop waited',
  );
  for (const [name, before, added, each] of [
    ['24 facts in one request', 0, 24, 24],
    ['24 facts one by one', 0, 24, 1],
    ['200 onto 4,700 in one request', 4_700, 200, 200],
    ['20 onto 4,700 one by one', 4_700, 20, 1],
  ] as const) {
    const oursMs: number[] = [];
    const bareMs: number[] = [];
    let waitedMs = 0;
    for (let round = 0; round < 5; round += 1) {
      for (const [times, send] of [
        [
          oursMs,
          (logId: string, some: readonly RunFact[]) =>
            post(`/api/logs/${logId}/facts`, { facts: some }),
        ],
        [bareMs, bare],
      ] as const) {
        const all = facts(before + added);
        const logId = await opened();
        for (const some of chunks(all.slice(0, before), 200)) await send(logId, some);
        const delay = monitorEventLoopDelay({ resolution: 1 });
        delay.enable();
        times.push(
          await timed(async () => {
            for (const some of chunks(all.slice(before), each)) await send(logId, some);
          }),
        );
        delay.disable();
        if (times === oursMs) waitedMs = Math.max(waitedMs, delay.max / 1e6);
      }
    }
    const [a, b] = [median(oursMs), median(bareMs)];
    console.log(
      `  ${name.padEnd(30)} ${a.toFixed(1).padStart(7)} ${b.toFixed(1).padStart(8)} ${(a / b).toFixed(2).padStart(11)} ${waitedMs.toFixed(0).padStart(14)} ms`,
    );
  }
}
