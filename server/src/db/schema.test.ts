import * as kit from 'drizzle-kit/api';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as schema from './schema';

interface Snapshot {
  id: string;
  tables: object;
}
/** As much of the library's own comparison as is used here; its types name databases that are not installed. */
const { generateDrizzleJson, generateMigration } = kit as unknown as {
  generateDrizzleJson: (of: object, id: string) => Snapshot;
  generateMigration: (from: Snapshot, to: Snapshot) => Promise<string[]>;
};
const META = join(__dirname, '../../drizzle/meta');

/* The tables as queries know them, against the tables as the migrations make them: by the library's own comparison. */
it('says of the tables what the migrations make of them, and nothing that waits for a migration', async () => {
  const newest = readdirSync(META)
    .filter((name) => name.endsWith('_snapshot.json'))
    .sort()
    .at(-1);
  const made = JSON.parse(readFileSync(join(META, newest ?? ''), 'utf8')) as Snapshot;
  const said = generateDrizzleJson(schema, made.id);
  expect(Object.keys(said.tables).length).toBeGreaterThan(15);
  expect(await generateMigration(made, said)).toEqual([]);
});
