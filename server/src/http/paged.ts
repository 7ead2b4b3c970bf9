import type { Response } from 'express';

/** Rows of a list that go out at once; whoever asks follows the link to the next. */
export const PAGE_ROWS = 1_000;

/**
 * A page of a list out of one row more than it holds, with the link to the next page (RFC 8288) where there is one.
 *
 * @param path of the list, below its version
 * @param idOf what the next page begins after
 */
export function pageOf<T>(
  rows: readonly T[],
  response: Response,
  path: string,
  idOf: (row: T) => string,
): T[] {
  const page = rows.slice(0, PAGE_ROWS);
  const last = page.at(-1);
  if (rows.length > PAGE_ROWS && last !== undefined) {
    const [version = '/api'] = /^\/api(\/v\d+)?(?=\/)/.exec(response.req.originalUrl) ?? [];
    response.setHeader('Link', `<${version}${path}?after=${idOf(last)}>; rel="next"`);
  }
  return page;
}
