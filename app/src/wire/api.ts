import type { ErrorBody, ErrorCode, FieldProblem } from '@keen-bleed/contract';
import type { AnswerOf, BodyOf, Method } from './routes';
import { heardServerTime } from './serverClock';

/** What went wrong with a request, in words to show. */
export class RequestProblem extends Error {
  constructor(
    /** The server's code, or `offline` where no answer came. */
    readonly code: ErrorCode | 'offline',
    message: string,
    readonly fields: readonly FieldProblem[] = [],
    /** The fact it is about, where it is about one. */
    readonly factId: string | null = null,
  ) {
    super(message);
  }

  /** The same problem, about one fact. */
  about(factId: string | null): RequestProblem {
    return new RequestProblem(this.code, this.message, this.fields, factId);
  }
}

/** Longest wait for an answer before the network counts as gone, ms. */
const PATIENCE_MS = 12_000;

/**
 * Asks the server. What goes with it and what comes back are held to the route the path names.
 *
 * @param method HTTP method
 * @param path such as `/api/v1/yard`
 * @param body where the route takes one
 * @throws RequestProblem for every answer that is no success, and where none comes
 */
export async function ask<M extends Method, P extends string>(
  method: M,
  path: P,
  ...[body]: BodyOf<M, P>
): Promise<AnswerOf<M, P>> {
  return (await answered<AnswerOf<M, P>>(method, path, body)).value;
}

/** An answer, and where the rest of a long list is asked for. */
async function answered<T>(
  method: string,
  path: string,
  body?: unknown,
): Promise<{ value: T; next: string | null }> {
  let response: Response;
  const askedMs = Date.now();
  try {
    response = await fetch(path, {
      method,
      credentials: 'same-origin',
      signal: AbortSignal.timeout(PATIENCE_MS),
      ...payload(body),
    });
  } catch {
    throw new RequestProblem('offline', 'No answer from the shop’s server. Check the network.');
  }
  heardServerTime(Number(response.headers.get('server-time') ?? NaN), askedMs, Date.now());
  if (response.status === 204) return { value: undefined as T, next: null };
  const isJson = response.headers.get('content-type')?.includes('json') === true;
  // What breaks off on its way, or only says that it is JSON, is nothing.
  const said: unknown = isJson ? await response.json().catch(() => undefined) : undefined;
  if (response.ok && said !== undefined) {
    const next = /<([^>]+)>; rel="next"/.exec(response.headers.get('link') ?? '')?.[1] ?? null;
    return { value: said as T, next };
  }
  const problem = problemIn(said, response.headers);
  if (problem) {
    const named = response.headers.get('x-request-id');
    // A bug of the server's is found in its log by this.
    const message =
      problem.code === 'went-wrong' && named
        ? `${problem.message} Whoever runs the server finds it as ${named.slice(0, 8)}.`
        : problem.message;
    throw new RequestProblem(problem.code, message, problem.fields ?? []);
  }
  throw new RequestProblem(
    'offline',
    'Something between here and the shop’s server is in the way.',
  );
}

/** What the shop's server says is wrong; null where the words are not its own: what stands before it speaks JSON, too. */
function problemIn(said: unknown, headers: Headers): ErrorBody | null {
  const body = said as Partial<ErrorBody> | null | undefined;
  if (typeof body?.code !== 'string' || typeof body.message !== 'string') return null;
  // The shop’s server tells the time with each answer; a code such as `not-found` is anybody's.
  return headers.has('server-time') ? (body as ErrorBody) : null;
}

/** A body as it goes out: a picture as it is, everything else as JSON. */
function payload(body: unknown): RequestInit {
  if (body === undefined) return {};
  if (body instanceof Blob) return { body, headers: { 'Content-Type': body.type } };
  return { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
}

/** Reads for SWR: a long list to its end, page by page. */
export async function read<T>(path: string): Promise<T> {
  const { value, next: second } = await answered<T>('GET', path);
  if (second === null || !Array.isArray(value)) return value;
  const all: unknown[] = [...(value as unknown[])];
  for (let next: string | null = second; next !== null;) {
    const page: { value: unknown[]; next: string | null } = await answered('GET', next);
    all.push(...page.value);
    next = page.next;
  }
  return all as T;
}

/** What is known to be wrong of any thrown thing. */
export function asProblem(error: unknown): RequestProblem {
  return error instanceof RequestProblem
    ? error
    : new RequestProblem('went-wrong', 'Something went wrong here. Nothing you recorded is lost.');
}
