import type { ErrorCode } from '@keen-bleed/contract';
import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { ApiError } from './apiError';

const CONNECTION_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOTFOUND',
  'EPIPE',
  'ETIMEDOUT',
  'ENOENT',
]);

/** Codes of PostgreSQL's classes 08 (connection), 53 (resources) and 57 (operator intervention). */
const AWAY_CLASSES = new Set(['08', '53', '57']);

const AWAY_MESSAGES =
  /timeout exceeded when trying to connect|Connection terminated|server closed the connection|Client has encountered a connection error|Client was closed and is not queryable/;

/** Whether an error says that the database cannot be reached, as against having refused a query. */
export function isDatabaseAway(error: unknown): boolean {
  for (let each: unknown = error; each instanceof Error; each = each.cause) {
    const { code, severity } = each as { code?: unknown; severity?: unknown };
    // What PostgreSQL calls fatal ends the connection, whatever the reason.
    if (severity === 'FATAL' || severity === 'PANIC') return true;
    if (typeof code === 'string') {
      if (CONNECTION_CODES.has(code)) return true;
      if (code.length === 5 && AWAY_CLASSES.has(code.slice(0, 2))) return true;
    }
    if (AWAY_MESSAGES.test(each.message)) return true;
  }
  return false;
}

/** Name of the unique index an insert ran into, or null. */
export function takenIndex(error: unknown): string | null {
  for (let each: unknown = error; each instanceof Error; each = each.cause) {
    const { code, constraint } = each as {
      code?: unknown;
      constraint?: unknown;
    };
    if (code === '23505' && typeof constraint === 'string') return constraint;
  }
  return null;
}

/** The one place where a thrown thing becomes an answer. A database's own words never leave the server. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (thrown, request, response, next) => {
    if (response.headersSent) {
      next(thrown);
      return;
    }
    const answer = asApiError(thrown);
    if (answer.code === 'went-wrong')
      log.error(
        { err: thrown as unknown, url: request.path, requestId: request.requestId },
        'request failed',
      );
    response.status(answer.status).json(answer.body);
  };
}

/** What a body parser or a file's sender refuses, by its status, in words. */
const REFUSALS: Readonly<Record<number, readonly [ErrorCode, string]>> = {
  400: ['not-readable', 'The request cannot be read: it broke off, or is not packed as it says.'],
  404: ['not-found', 'There is nothing at this address.'],
  413: ['too-large', 'The request is too large: 512 kB at most.'],
  415: ['not-supported', 'Send JSON in UTF-8, plain or packed with gzip, deflate or br.'],
  416: ['no-such-range', 'This file has no such part: ask for it whole.'],
};

/** Whether the database refused a value that no column can hold: PostgreSQL's class 22. */
function isUnfitValue(error: unknown): boolean {
  for (let each: unknown = error; each instanceof Error; each = each.cause) {
    const { code } = each as { code?: unknown };
    if (typeof code === 'string' && /^22[0-9A-Z]{3}$/.test(code)) return true;
  }
  return false;
}

function asApiError(thrown: unknown): ApiError {
  if (thrown instanceof ApiError) return thrown;
  if (isDatabaseAway(thrown)) {
    return new ApiError(
      'database-unavailable',
      'The database cannot be reached. Marks stay on this device and are sent when it is back.',
    );
  }
  const { type } = thrown as { type?: unknown };
  if (type === 'entity.too.large') {
    return new ApiError('too-large', 'The request is too large: 512 kB at most.');
  }
  if (type === 'entity.parse.failed') {
    return new ApiError('wrong-shape', 'The request is not readable JSON.');
  }
  if (isUnfitValue(thrown)) {
    return new ApiError('wrong-shape', 'A value in the request is not one that can be kept.');
  }
  const { status } = thrown as { status?: unknown };
  if (typeof status === 'number' && status >= 400 && status < 500) {
    const [code, message] = REFUSALS[status] ?? REFUSALS[400]!;
    return new ApiError(code, message);
  }
  if (thrown instanceof URIError)
    return new ApiError('not-found', 'There is nothing at this address.');
  return new ApiError('went-wrong', 'Something went wrong here. Nothing you recorded is lost.');
}
