import { isReadable } from '@keen-bleed/core';
import type { RequestHandler } from 'express';
import { ApiError } from './apiError';

/**
 * Refuses text that no database can keep: half a pair of UTF-16 (half an emoji, as some keyboards cut them) and the
 * zero byte. The field is named, so that a phone can offer to mend it.
 */
export const readableText: RequestHandler = (request, _response, next) => {
  const field = unreadable(request.body);
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
