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
        headers: { 'content-type': 'application/json', ...headers },
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
