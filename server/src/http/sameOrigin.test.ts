import express from 'express';
import request from 'supertest';
import type { ErrorRequestHandler } from 'express';
import type { ApiError } from './apiError';
import { sameOrigin } from './sameOrigin';

const app = express();
app.use(sameOrigin);
app.use((_request, response) => void response.status(204).end());
const refused: ErrorRequestHandler = (error, _request, response, _next) =>
  void response.status((error as ApiError).status).end();
app.use(refused);

const asked = async (
  method: 'get' | 'head' | 'options' | 'post' | 'put' | 'delete',
  origin?: string,
) => {
  const asking = request(app)[method]('/').set('Host', 'shop.example:4700');
  return (await (origin === undefined ? asking : asking.set('Origin', origin))).status;
};

it.each(['post', 'put', 'delete'] as const)(
  '%s is taken from its own page or from none',
  async (method) => {
    expect(await asked(method, 'http://shop.example:4700')).toBe(204);
    expect(await asked(method)).toBe(204);
    for (const origin of ['http://evil.example', 'http://shop.example', 'null', 'nonsense']) {
      expect(await asked(method, origin)).toBe(403);
    }
  },
);

it.each(['get', 'head', 'options'] as const)(
  '%s changes nothing and is answered',
  async (method) => {
    expect(await asked(method, 'http://evil.example')).toBe(204);
  },
);
