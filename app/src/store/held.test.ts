/** @jest-environment node */
import { askHeldOf, isHeld } from './held';

const held = { logId: 'a', held: 3, lanes: { x: 3 }, closedAtMs: null };

it('is the server’s word on that very log', () => {
  expect(isHeld(held, 'a')).toBe(true);
  expect(isHeld({ ...held, held: 0, lanes: {} }, 'a')).toBe(true);
  expect(isHeld(held, 'b')).toBe(false);
});

it.each([
  null,
  undefined,
  'ok',
  7,
  {},
  [],
  { ok: true },
  { ...held, logId: undefined },
  { ...held, held: '3' },
  { ...held, held: undefined },
  { ...held, lanes: null },
  { ...held, lanes: undefined },
  { ...held, lanes: 'x' },
])('is not what something in between answers: %j', (answer) => {
  expect(isHeld(answer, 'a')).toBe(false);
});

describe('what the server holds of several logs', () => {
  const realFetch = globalThis.fetch;
  afterEach(() => {
    globalThis.fetch = realFetch;
  });
  const answers = (text: string) => {
    globalThis.fetch = () =>
      Promise.resolve(new Response(text, { headers: { 'content-type': 'application/json' } }));
  };

  it('is told of each by its id', async () => {
    answers(JSON.stringify({ logs: [held] }));
    expect(await askHeldOf(['a', 'b'])).toEqual(new Map([['a', held]]));
  });

  it.each(['null', '{}', '[]', '{"logs":7}', '"ok"'])(
    'is not what something in between answers: %s',
    async (text) => {
      answers(text);
      await expect(askHeldOf(['a'])).rejects.toMatchObject({ code: 'offline' });
    },
  );
});
