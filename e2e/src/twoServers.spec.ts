import { test as base, type Browser, type Page } from '@playwright/test';
import { createProxyMiddleware } from 'http-proxy-middleware';
import { execFileSync } from 'node:child_process';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import {
  allSent,
  emptyDatabase,
  expect,
  pad,
  press,
  signIn,
  startRun,
  startServer,
} from './ownServer';

/** Two servers, each a process of its own, on one database and behind one proxy that sends them requests in turn. */
interface Pair {
  url: string;
  /** Ends one of them as a power cut would. */
  cut: () => Promise<void>;
  query: (sql: string) => string;
}

const test = base.extend<object, { pair: Pair }>({
  pair: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the names of what is asked for
    async ({}, use, info) => {
      const database = emptyDatabase(`e2e_pair_${process.pid}_${info.workerIndex}`);
      const start = () =>
        startServer({
          DATABASE_URL: database,
          SESSION_SECRET: 'browser tests only',
          TRUSTED_PROXIES: 'loopback',
          DEMO: 'forced',
        });
      // At once, on an empty database: one brings up the tables and the demo world, the other waits for it.
      const servers = await Promise.all([start(), start()]);
      const up = servers.map(({ port }) => `http://127.0.0.1:${port}`);
      let turn = 0;
      const forward = createProxyMiddleware({
        target: up[0],
        xfwd: true,
        // In turn, but what is followed is followed at the one that will be cut off.
        router: ({ url = '' }) => (url.endsWith('/live') ? up.at(-1) : up[(turn += 1) % up.length]),
        on: {
          // An answer that broke off on its way breaks off here, too.
          proxyRes: (answer, _request, response) => {
            answer.once('close', () => {
              if (!answer.complete) response.destroy();
            });
          },
        },
      });
      const proxy: Server = createServer((request, response) => {
        void forward(request, response);
      });
      await new Promise<void>((done) => proxy.listen(0, '127.0.0.1', done));
      await use({
        url: `http://127.0.0.1:${(proxy.address() as AddressInfo).port}`,
        cut: async () => {
          await servers[1].kill();
          // It takes a moment until the proxy has noticed: what goes there meanwhile gets no answer of a server's.
          setTimeout(() => up.splice(1, 1), 1_500);
        },
        query: (sql) =>
          execFileSync('psql', [database, '-v', 'ON_ERROR_STOP=1', '-Atqc', sql], {
            encoding: 'utf8',
          }).trim(),
      });
      proxy.closeAllConnections();
      await new Promise((done) => proxy.close(done));
      await Promise.all(servers.map(({ stop }) => stop()));
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ pair }, use) => {
    await use(pair.url);
  },
});

const onAnotherPhone = async (browser: Browser, baseURL: string): Promise<Page> =>
  (await browser.newContext({ baseURL })).newPage();

test('two servers serve one shop: a run is followed across them, and outlives one of them', async ({
  page,
  browser,
  pair,
}) => {
  expect(pair.query(`select count(*) from shops`)).toBe('1');
  await page.clock.install();
  await signIn(page, 'idris');
  await startRun(page, 'Gritter 18');
  const id = page.url().split('/').at(-1) ?? '';
  await press(page, 'All done, ready');
  await press(page, 'Needle at 85 psi');
  await expect(pad(page)).toContainText('Needle at 100 psi');
  await allSent(page);
  const lead = await onAnotherPhone(browser, pair.url);
  await signIn(lead, 'maren');
  await lead.goto(`/run/${id}`);
  await expect(lead.getByText('Idris Fenn is at “Build up”')).toBeVisible();

  await pair.cut();
  await press(page, 'Needle at 100 psi');
  await expect(page.getByRole('heading', { name: 'Cut-out' })).toBeVisible();
  await allSent(page);
  await expect(lead.getByText('Idris Fenn is at “Cut-out”')).toBeVisible();
  await expect(lead.getByRole('list', { name: 'Figures' })).toContainText('Build-up');
  expect(
    pair.query(
      `select count(*) = count(distinct id) and count(*) = max(seq) from facts where log_id = '${id}'`,
    ),
  ).toBe('t');
  // Who was signed in by the one that is gone is signed in at the other.
  await page.reload();
  await expect(pad(page)).toBeVisible();
  await lead.context().close();
});
