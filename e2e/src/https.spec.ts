import { test as base, expect } from '@playwright/test';
import { createProxyMiddleware } from 'http-proxy-middleware';
import { createServer, type Server } from 'node:https';
import type { AddressInfo } from 'node:net';
import { generate } from 'selfsigned';
import { emptyDatabase, startServer } from './ownServer';

/** A server in HTTPS mode, and before it what an operator puts there: TLS, and nothing else. */
const test = base.extend<object, { https: string }>({
  https: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the names of what is asked for
    async ({}, use, info) => {
      const { port, stop } = await startServer({
        DATABASE_URL: emptyDatabase(`e2e_https_${process.pid}_${info.workerIndex}`),
        SESSION_SECRET: 'browser tests only',
        COOKIE_SECURE: '1',
        TRUSTED_PROXIES: 'loopback',
        DEMO: 'forced',
        SIGN_IN_TRIES: '2',
      });
      const { private: key, cert } = await generate([{ name: 'commonName', value: 'localhost' }]);
      const forward = createProxyMiddleware({
        target: `http://127.0.0.1:${port}`,
        xfwd: true,
        changeOrigin: false,
      });
      const proxy: Server = createServer({ key, cert }, (request, response) => {
        void forward(request, response);
      });
      await new Promise<void>((up) => proxy.listen(0, '127.0.0.1', up));
      await use(`https://localhost:${(proxy.address() as AddressInfo).port}`);
      proxy.closeAllConnections();
      await new Promise((done) => proxy.close(done));
      await stop();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ https }, use) => {
    await use(https);
  },
});

test.use({ ignoreHTTPSErrors: true });

test('behind a proxy that ends TLS somebody signs in by the form, stays in, and follows a stream', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await page.getByLabel('Sign-in name').fill('idris');
  await page.getByLabel('Password').fill('grit-before-snow');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
  const cookies = await context.cookies();
  expect(cookies.map(({ name, secure, httpOnly }) => [name, secure, httpOnly]).sort()).toEqual([
    ['kb.device', true, true],
    ['kb.sid', true, true],
  ]);
  const answer = await page.request.get('/api/me');
  expect(answer.headers()['strict-transport-security']).toContain('max-age');
  const units = (await (await page.request.get('/api/units')).json()) as {
    id: string;
    governor: unknown;
  }[];
  const unit = units.find(({ governor }) => governor);
  const first = await page.evaluate(
    (id) =>
      new Promise<string>((heard) => {
        const source = new EventSource(`/api/units/${id}/pedal/live`);
        source.addEventListener('call', ({ data }: MessageEvent<string>) => {
          source.close();
          heard(data);
        });
      }),
    unit?.id ?? '',
  );
  expect(JSON.parse(first)).toMatchObject({ call: null });
  await page.goto('/shop');
  await expect(page.getByText('This address is not HTTPS')).toBeHidden();
});

test('behind it every address has a limit of its own', async ({ request, https }) => {
  const tryFrom = (address: string) =>
    request.post(`${https}/api/sign-in`, {
      data: { signInName: 'joss', password: 'wrong' },
      headers: { 'X-Forwarded-For': address },
      ignoreHTTPSErrors: true,
    });
  for (const status of [401, 401, 429]) {
    expect((await tryFrom('203.0.113.7')).status()).toBe(status);
  }
  expect((await tryFrom('203.0.113.8')).status()).toBe(401);
});
