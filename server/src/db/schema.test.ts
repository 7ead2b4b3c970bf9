import { generateDrizzleJson, generateMigration } from 'drizzle-kit/api';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as schema from './schema';

const META = join(__dirname, '../../drizzle/meta');

/* The tables as queries know them, against the tables as the migrations make them: by the library's own comparison. */
it('says of the tables what the migrations make of them, and nothing that waits for a migration', async () => {
  const newest = readdirSync(META)
    .filter((name) => name.endsWith('_snapshot.json'))
    .sort()
    .at(-1);
  const made = JSON.parse(readFileSync(join(META, newest ?? ''), 'utf8')) as ReturnType<
    typeof generateDrizzleJson
  >;
  const said = generateDrizzleJson(schema, made.id);
  expect(Object.keys(said.tables).length).toBeGreaterThan(15);
  expect(await generateMigration(made, said)).toEqual([]);
});
