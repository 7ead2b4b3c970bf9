import express from 'express';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { webRoutes } from './web';

const folder = mkdtempSync(join(tmpdir(), 'web-'));
const app = express();
beforeAll(() => {
  for (const each of ['_expo/static', 'assets/fonts'])
    mkdirSync(join(folder, each), { recursive: true });
  writeFileSync(join(folder, 'index.html'), '<p>the page</p>');
  writeFileSync(join(folder, 'sw.js'), 'worker');
  writeFileSync(join(folder, '_expo/static/a-hash.js'), 'code');
  writeFileSync(join(folder, 'assets/fonts/b-hash.woff2'), 'font');
  app.use(webRoutes(folder));
});
afterAll(() => rmSync(folder, { recursive: true }));

const asked = (path: string, accept = 'text/html') => request(app).get(path).set('Accept', accept);

it('keeps files with a hash in their name for a year, and asks for all others anew', async () => {
  for (const path of ['/_expo/static/a-hash.js', '/assets/fonts/b-hash.woff2'])
    expect((await asked(path, '*/*')).get('cache-control')).toBe(
      'public, max-age=31536000, immutable',
    );
  expect((await asked('/sw.js', '*/*')).get('cache-control')).toBe('no-cache');
});

it.each(['/', '/units/7', '/a.longer-word', '/a.b', '/v1.x/y'])(
  'answers %s with the page',
  async (path) => {
    const answer = await asked(path).expect(200);
    expect(answer.text).toBe('<p>the page</p>');
    expect(answer.get('cache-control')).toBe('no-cache');
  },
);

it.each(['/gone.js', '/units/old-hash.woff2', '/x.json'])(
  'has no page in place of the file %s',
  async (path) => {
    await asked(path).expect(404);
  },
);

it('has no page for whoever wants something else, or where nothing was built', async () => {
  await asked('/units/7', 'application/json').expect(404);
  const empty = express();
  empty.use(webRoutes(join(folder, 'nothing-here')));
  await request(empty).get('/').set('Accept', 'text/html').expect(404);
});
