import express from 'express';
import request from 'supertest';
import { requestId } from './requestId';

const app = express();
app.use(requestId);
app.get('/', (asked, response) => void response.json(asked.requestId));

const nameOf = async (given?: string) => {
  const asking = request(app).get('/');
  const answer = await (given === undefined ? asking : asking.set('X-Request-Id', given));
  expect(answer.get('x-request-id')).toBe(answer.body);
  return answer.body as string;
};

it.each(['abcdefgh', 'trace_01.of-a-proxy', 'x'.repeat(64)])('keeps the name %s', async (given) => {
  expect(await nameOf(given)).toBe(given);
});

it.each([
  undefined,
  'abcdefg',
  'x'.repeat(65),
  'eight chars',
  'ab/cdefgh',
  'abcdefgh!',
  '!abcdefgh',
])('gives one of its own instead of %s', async (given) => {
  const name = await nameOf(given);
  expect(name).toMatch(/^[0-9a-f]{8}-[0-9a-f-]{27}$/);
  expect(await nameOf(given)).not.toBe(name);
});
