import type { RequestHandler } from 'express';
import { ApiError } from './apiError';

const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Refuses requests that change something and come from a page of another origin. */
export const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.get('origin');
  if (!READING.has(request.method) && origin !== undefined && !fits(origin, request.get('host'))) {
    throw new ApiError('wrong-origin', 'This request came from another site.');
  }
  next();
};

function fits(origin: string, host: string | undefined): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
