import { isReadable } from '@keen-bleed/core';
import type { RequestHandler } from 'express';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { ApiError } from './apiError';

declare module 'http' {
  interface IncomingMessage {
    /** Whether characters are written as escapes in its body: only so can one be half or zero in JSON as UTF-8. */
    hasEscapes?: boolean;
  }
}

/** Notes of a body, before it is parsed, whether {@link readableText} has to look at it. */
export function noteEscapes(
  request: IncomingMessage,
  _response: ServerResponse,
  body: Buffer,
  encoding: string,
): void {
  request.hasEscapes = encoding !== 'utf-8' || body.includes('\\u');
}

/**
 * Refuses text that no database can keep: half a pair of UTF-16 (half an emoji, as some keyboards cut them) and the
 * zero byte. The field is named, so that a phone can offer to mend it.
 */
export const readableText: RequestHandler = (request, _response, next) => {
  const field = request.hasEscapes === false ? null : unreadable(request.body);
  if (field !== null) {
    const message = 'This text holds half a character: write it again.';
    throw new ApiError('wrong-shape', message, [{ field, message }]);
  }
  next();
};

function unreadable(value: unknown, path = ''): string | null {
  if (typeof value === 'string') {
    return isReadable(value) ? null : path;
  }
  if (typeof value !== 'object' || value === null || Buffer.isBuffer(value)) return null;
  for (const [key, inner] of Object.entries(value)) {
    const at = path === '' ? key : `${path}.${key}`;
    const found = isReadable(key) ? unreadable(inner, at) : path;
    if (found !== null) return found;
  }
  return null;
}
