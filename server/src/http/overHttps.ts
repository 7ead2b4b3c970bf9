import type { RequestHandler } from 'express';
import { ApiError } from './apiError';

/** Where a session begins. */
const DOORS: ReadonlySet<string> = new Set(['/sign-in', '/set-up']);

/**
 * In HTTPS mode nobody is taken in over plain HTTP, and is told so: the browser would be given no cookie, and whoever had
 * signed in would be asked to again without a word.
 */
export const overHttps: RequestHandler = (request, _response, next) => {
  if (request.method === 'POST' && DOORS.has(request.path) && !request.secure) {
    const host = request.hostname;
    throw new ApiError(
      'https-wanted',
      `This server takes people in over HTTPS alone: open https://${host}. Where that is open already, its proxy must pass X-Forwarded-Proto on and be named in TRUSTED_PROXIES.`,
    );
  }
  next();
};
