import type { RequestHandler } from 'express';
import { randomUUID } from 'node:crypto';

const HEADER = 'X-Request-Id';
/** What a proxy in front may have called a request. */
const GIVEN = /^[\w.-]{8,64}$/;

declare module 'express-serve-static-core' {
  interface Request {
    /** What this request is called, in the answer and in the log. */
    requestId: string;
  }
}

/** Gives every request a name that its answer carries and the log has, or keeps the one a proxy gave it. */
export const requestId: RequestHandler = (request, response, next) => {
  const given = request.get(HEADER);
  request.requestId = given !== undefined && GIVEN.test(given) ? given : randomUUID();
  response.setHeader(HEADER, request.requestId);
  next();
};
