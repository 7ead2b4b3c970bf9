import express from 'express';
import pino from 'pino';
import request from 'supertest';
import { ApiError } from './apiError';
import { errorHandler, isDatabaseAway, takenIndex } from './errorHandler';
import { requestId } from './requestId';

/** An error as PostgreSQL's driver, Node or a body parser throws it. */
const thrownWith = (more: Record<string, unknown>, message = 'as thrown') =>
  Object.assign(new Error(message), more);
const within = (cause: unknown) => new Error('Failed query', { cause });

/* Codes as Appendix A of PostgreSQL's manual has them (class 08, 53, 57: connection, resources, intervention) and as
   Node's own list of system errors names them. Values from memory. */
describe('a database that is away', () => {
  it.each([
    ...['ECONNREFUSED', 'ECONNRESET', 'ENOTFOUND', 'EPIPE', 'ETIMEDOUT', 'ENOENT'],
    ...['08006', '53300', '57P01'],
  ])('is known by %s, and within a query’s error', (code) => {
    expect(isDatabaseAway(thrownWith({ code }))).toBe(true);
    expect(isDatabaseAway(within(thrownWith({ code })))).toBe(true);
  });

  it.each(['FATAL', 'PANIC'])('is known by %s, whatever the code', (severity) => {
    expect(isDatabaseAway(thrownWith({ severity, code: '28P01' }))).toBe(true);
  });

  it.each([
    'timeout exceeded when trying to connect',
    'Connection terminated unexpectedly',
    'server closed the connection unexpectedly',
    'Client has encountered a connection error and is not queryable',
  ])('is known by what the driver says: %s', (message) => {
    expect(isDatabaseAway(thrownWith({}, message))).toBe(true);
  });

  it.each([
    thrownWith({ code: '23505' }),
    thrownWith({ code: '22P02', severity: 'ERROR' }),
    // Not a code of PostgreSQL's, however it begins.
    thrownWith({ code: '0800' }),
    thrownWith({ code: '570000' }),
    thrownWith({ code: 57 }),
    thrownWith({}),
    { code: 'ECONNREFUSED' },
    null,
    'ECONNREFUSED',
  ])('is not what was thrown here: %j', (thrown) => {
    expect(isDatabaseAway(thrown)).toBe(false);
  });
});

it('names the index an insert ran into, and no other refusal', () => {
  const taken = { code: '23505', constraint: 'units_number' };
  expect(takenIndex(thrownWith(taken))).toBe('units_number');
  expect(takenIndex(within(thrownWith(taken)))).toBe('units_number');
  expect(takenIndex(thrownWith({ ...taken, code: '23503' }))).toBeNull();
  expect(takenIndex(thrownWith({ code: '23505' }))).toBeNull();
  expect(takenIndex(taken)).toBeNull();
});

describe('what is thrown becomes an answer', () => {
  const logged: { url: string; requestId: string }[] = [];
  const answerTo = (thrown: unknown) => {
    logged.length = 0;
    const app = express();
    app.use(requestId);
    app.get('/it', () => {
      throw thrown;
    });
    app.use(
      errorHandler(
        pino(
          {},
          { write: (line: string) => logged.push(JSON.parse(line) as (typeof logged)[number]) },
        ),
      ),
    );
    return request(app).get('/it').set('X-Request-Id', 'asked-by-a-test');
  };

  it.each<[number, string, unknown]>([
    [409, 'quota-full', new ApiError('quota-full', 'full')],
    [503, 'database-unavailable', within(thrownWith({ code: '57P01' }))],
    [413, 'too-large', thrownWith({ type: 'entity.too.large', status: 413 })],
    [422, 'wrong-shape', thrownWith({ type: 'entity.parse.failed', status: 400 })],
    [422, 'wrong-shape', within(thrownWith({ code: '22003' }))],
    [422, 'wrong-shape', thrownWith({ code: '22P05' })],
    [400, 'not-readable', thrownWith({ status: 400 })],
    [404, 'not-found', thrownWith({ status: 404 })],
    [413, 'too-large', thrownWith({ status: 413 })],
    [415, 'not-supported', thrownWith({ status: 415 })],
    [416, 'no-such-range', thrownWith({ status: 416 })],
    // Whatever else a parser refuses could not be read.
    [400, 'not-readable', thrownWith({ status: 499 })],
    [404, 'not-found', new URIError('URI malformed')],
  ])('%s %s, and nothing is logged', async (status, code, thrown) => {
    const answer = await answerTo(thrown);
    expect(answer.status).toBe(status);
    expect(answer.body).toMatchObject({ code });
    expect(logged).toEqual([]);
  });

  it.each([
    thrownWith({}),
    thrownWith({ status: 399 }),
    thrownWith({ status: 500 }),
    thrownWith({ status: '404' }),
    // Neither class 22 nor a code at all.
    thrownWith({ code: '2200' }),
    thrownWith({ code: '220031' }),
    thrownWith({ code: 'x22003' }),
    thrownWith({ code: 22003 }),
    thrownWith({ code: '23505' }),
  ])('an unforeseen one is logged under the request’s name, and not told: %j', async (thrown) => {
    const answer = await answerTo(thrown);
    expect(answer.status).toBe(500);
    expect(answer.body).toEqual({
      code: 'went-wrong',
      message: 'Something went wrong here. Nothing you recorded is lost.',
    });
    expect(logged).toHaveLength(1);
    expect(logged[0]).toMatchObject({ url: '/it', requestId: 'asked-by-a-test' });
  });
});
