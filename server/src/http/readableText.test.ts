import express, { type ErrorRequestHandler } from 'express';
import request from 'supertest';
import type { ApiError } from './apiError';
import { noteEscapes, readableText } from './readableText';

const app = express();
app.use(express.json({ verify: noteEscapes }));
app.use(readableText);
app.post('/', (asked, response) => void response.json(asked.body));
const refused: ErrorRequestHandler = (error, _request, response, _next) =>
  void response.status((error as ApiError).status).json((error as ApiError).body);
app.use(refused);

const said = (json: string, type = 'application/json') =>
  request(app).post('/').set('Content-Type', type).send(json);

/* Half a pair of UTF-16 and U+0000, as RFC 8259 (7, 8.2) lets JSON write them and PostgreSQL's text cannot hold them. */
it.each<[string, string]>([
  ['{"note":"half \\ud83d"}', 'note'],
  ['{"note":"\\ude00 half"}', 'note'],
  ['{"note":"zero \\u0000"}', 'note'],
  ['{"facts":[{"text":"fine"},{"text":"half \\ud83d"}]}', 'facts.1.text'],
  ['{"at":{"half \\ud83d":1}}', 'at'],
])('%s is refused by its field', async (json, field) => {
  const answer = await said(json).expect(422);
  expect(answer.body).toMatchObject({ code: 'wrong-shape', fields: [{ field }] });
});

it.each<[string, unknown]>([
  ['{"note":"whole \\ud83d\\ude00"}', { note: 'whole 😀' }],
  ['{"note":"tab \\u0009","n":[1,null,true]}', { note: 'tab \t', n: [1, null, true] }],
  ['{"note":"plain 😀"}', { note: 'plain 😀' }],
])('%s is taken', async (json, taken) => {
  expect((await said(json).expect(200)).body).toEqual(taken);
});

it('is looked for wherever a body is not in UTF-8, which cannot write it', async () => {
  const half = Buffer.from('{"note":"half \ud83d"}', 'utf16le');
  const answer = await request(app)
    .post('/')
    .set('Content-Type', 'application/json; charset=utf-16le')
    .serialize((body: unknown) => body as string)
    .send(half);
  expect(answer.status).toBe(422);
});
