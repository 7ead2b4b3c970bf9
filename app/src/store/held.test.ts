import { isHeld } from './held';

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
