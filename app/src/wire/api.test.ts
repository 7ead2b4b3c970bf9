/** @jest-environment node */
import { ask, read } from './api';

const realFetch = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = realFetch;
});

const asked: string[] = [];
/** Answers each path as it is told. */
function serve(
  answers: Readonly<Record<string, { status?: number; body: unknown; headers?: object }>>,
) {
  asked.length = 0;
  globalThis.fetch = ((path: string) => {
    asked.push(path);
    const { status = 200, body, headers = {} } = answers[path] ?? { status: 404, body: {} };
    return Promise.resolve(
      new Response(JSON.stringify(body), {
        status,
        headers: {
          'content-type': 'application/json',
          'server-time': String(Date.now()),
          ...headers,
        },
      }),
    );
  }) as typeof fetch;
}

describe('reading', () => {
  it('follows a long list to its end, and hands it over whole', async () => {
    serve({
      '/api/v1/units': { body: [1, 2], headers: { link: '</api/v1/units?after=b>; rel="next"' } },
      '/api/v1/units?after=b': {
        body: [3],
        headers: { link: '</api/v1/units?after=c>; rel="next"' },
      },
      '/api/v1/units?after=c': { body: [4] },
    });
    expect(await read('/api/v1/units')).toEqual([1, 2, 3, 4]);
    expect(asked).toEqual(['/api/v1/units', '/api/v1/units?after=b', '/api/v1/units?after=c']);
  });

  it('hands nothing over where a later page does not come', async () => {
    serve({
      '/api/v1/units': { body: [1], headers: { link: '</api/v1/units?after=b>; rel="next"' } },
      '/api/v1/units?after=b': {
        status: 503,
        body: { code: 'database-unavailable', message: 'away' },
      },
    });
    await expect(read('/api/v1/units')).rejects.toMatchObject({ code: 'database-unavailable' });
  });

  it('names a bug of the server’s as its log has it', async () => {
    serve({
      '/api/v1/yard': {
        status: 500,
        body: { code: 'went-wrong', message: 'Something went wrong here.' },
        headers: { 'x-request-id': '12345678-aaaa' },
      },
    });
    await expect(ask('GET', '/api/v1/yard')).rejects.toThrow(/finds it as 12345678/);
  });
});

describe('an answer that is not the shop’s server’s own', () => {
  const toYard = () => ask('GET', '/api/v1/yard').catch((error: unknown) => error);
  const answer = (status: number, text: string, headers = {}) => {
    globalThis.fetch = () =>
      Promise.resolve(
        new Response(text, { status, headers: { 'content-type': 'application/json', ...headers } }),
      );
  };
  const inTheWay = { code: 'offline', message: expect.stringMatching(/in the way/) as string };

  it.each([
    ['a proxy’s own words', 503, '{"code":503,"message":"no healthy upstream"}'],
    ['one of the server’s codes', 404, '{"code":"not-found","message":"no such route"}'],
    ['a code of its own', 502, '{"code":"BAD_GATEWAY","message":"upstream"}'],
    ['no message', 500, '{"code":"went-wrong"}'],
    ['nothing at all', 500, 'null'],
    ['a page that says it is JSON', 502, '<html></html>'],
    ['an answer that breaks off', 200, '{"units":[{"id":'],
  ])('is in the way: %s', async (_, status, text) => {
    answer(status, text);
    expect(await toYard()).toMatchObject(inTheWay);
  });

  it('is told from a newer server’s, whose codes this page does not know', async () => {
    const text = '{"code":"not-yet-known","message":"Charge it first."}';
    answer(409, text, { 'server-time': '1795000000000' });
    expect(await toYard()).toMatchObject({ code: 'not-yet-known', message: 'Charge it first.' });
  });
});
