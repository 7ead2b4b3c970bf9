import request from 'supertest';
import pino from 'pino';
import { makeApp } from './app';
import { SuspectTables } from './suspects/suspectTables';
import { workOutApart } from './suspects/workOut';
import { makeStaff, openTestShop, testPassword, type TestShop } from './test/testShop';

let shop: TestShop;
beforeAll(async () => {
  shop = await openTestShop();
});
afterAll(() => shop.close());

describe('every answer', () => {
  it('carries a strict content policy and no word of what serves it', async () => {
    const { headers } = await request(shop.app).get('/api/set-up');
    const policy = String(headers['content-security-policy']);
    const said = Object.fromEntries(
      policy.split(';').map((each) => {
        const [name = '', ...from] = each.trim().split(' ');
        return [name, from.join(' ')];
      }),
    );
    // CSP level 3: what is not named goes by default-src; base-uri, form-action and frame-ancestors do not.
    expect(said).toEqual({
      'default-src': "'self'",
      'base-uri': "'none'",
      'connect-src': "'self'",
      'font-src': "'self'",
      'form-action': "'self'",
      'frame-ancestors': "'none'",
      'img-src': "'self' data: blob:",
      'manifest-src': "'self'",
      'media-src': "'self' blob:",
      'object-src': "'none'",
      'script-src': "'self'",
      'script-src-attr': "'none'",
      'style-src': "'self' 'unsafe-inline'",
      'worker-src': "'self'",
    });
    expect(headers['x-powered-by']).toBeUndefined();
  });

  it('to a request from another site’s page is no', async () => {
    await request(shop.app)
      .post('/api/sign-in')
      .set('Origin', 'http://elsewhere.example')
      .send({ signInName: 'a', password: 'b' })
      .expect(403);
  });

  it('to a body too large, or not JSON, says so', async () => {
    const huge = await request(shop.app)
      .post('/api/sign-in')
      .send({ signInName: 'x'.repeat(600_000), password: 'y' });
    expect([huge.status, (huge.body as { code: string }).code]).toEqual([413, 'too-large']);
    const broken = await request(shop.app)
      .post('/api/sign-in')
      .set('Content-Type', 'application/json')
      .send('{"signInName":');
    expect([broken.status, (broken.body as { code: string }).code]).toEqual([422, 'wrong-shape']);
    const noBody = await request(shop.app).post('/api/sign-in');
    expect(noBody.status).toBe(422);
  });

  it('at an unknown address is a plain 404 with a code', async () => {
    await request(shop.app)
      .get('/api/nothing')
      .expect(404, { code: 'not-found', message: 'There is nothing at this address.' });
  });
});

describe('a server behind HTTPS', () => {
  const behind = async (trustedProxies: string | null, signInTries = 1_000) => {
    const made = await openTestShop();
    const app = makeApp({
      database: made.database,
      log: pino({ level: 'silent' }),
      sessionSecret: 'tests only',
      secureCookie: true,
      trustedProxies,
      signInTries,
      webFolder: null,
      tables: new SuspectTables(workOutApart),
    });
    const someone = await makeStaff(made, `https-${trustedProxies ?? 'none'}`);
    const signIn = (name: string, password: string, from = '203.0.113.7') =>
      request(app)
        .post('/api/sign-in')
        .set('X-Forwarded-Proto', 'https')
        .set('X-Forwarded-For', from)
        .send({ signInName: name, password });
    return { close: made.close, someone, signIn };
  };

  it('admits whoever signs in through its proxy, and takes nobody else’s word for HTTPS', async () => {
    const trusting = await behind('loopback');
    const answer = await trusting.signIn(trusting.someone.names.lead, testPassword).expect(200);
    expect(
      (answer.headers['set-cookie'] as unknown as string[]).find((each) =>
        each.startsWith('kb.sid'),
      ),
    ).toMatch(/^kb\.sid=.*; HttpOnly; Secure/);
    await trusting.close();
    const alone = await behind(null);
    const plain = await alone.signIn(alone.someone.names.lead, testPassword).expect(403);
    expect(plain.headers['set-cookie']).toBeUndefined();
    // It says what is missing, instead of asking to sign in again and again.
    expect(plain.body).toEqual({
      code: 'https-wanted',
      message:
        'This server takes people in over HTTPS alone: open https://127.0.0.1. Where that is open already, its proxy must pass X-Forwarded-Proto on and be named in TRUSTED_PROXIES.',
    });
    await alone.close();
  });

  it('slows down one address behind its proxy, not all of them', async () => {
    const { signIn, someone, close } = await behind('loopback', 1);
    for (let n = 0; n < 5; n += 1) await signIn(`nobody-${n}`, 'wrong').expect(401);
    await signIn(someone.names.lead, testPassword).expect(429);
    await signIn(someone.names.lead, testPassword, '203.0.113.8').expect(200);
    await close();
  });
});
