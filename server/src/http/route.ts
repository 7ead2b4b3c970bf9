import {
  check,
  type Checked,
  type FieldProblem,
  type Me,
  type Role,
  type SchemaName,
} from '@keen-bleed/contract';
import type { Static, TSchema } from '@sinclair/typebox';
import { raw, type Request, type Response, type Router } from 'express';
import { ApiError, notFound } from './apiError';

type Shape<N extends SchemaName> = Extract<ReturnType<typeof check<N>>, { ok: true }>['value'];
type MaybeShape<N extends SchemaName | null> = N extends SchemaName ? Shape<N> : null;

/** One request to a route, checked. */
export interface Call<B extends SchemaName | null, Q extends SchemaName | null> {
  me: Me;
  body: MaybeShape<B>;
  query: MaybeShape<Q>;
  /** An id from the path; one that is no UUID is answered like one that is not there. */
  id: (name: string, what: string) => string;
  request: Request;
  response: Response;
}

/** How a route answers: with a record of a shape, a file it sends itself, or a stream of events. */
export type Answers = TSchema | 'file' | 'stream';

/**
 * A route, whole: what it is called, who may, what it takes, what it gives, and what it does. None of these can be
 * left out.
 */
export interface Route<
  B extends SchemaName | null = SchemaName | null,
  Q extends SchemaName | null = SchemaName | null,
  A extends Answers = Answers,
> {
  method: 'get' | 'post' | 'put';
  /** Below `/api`. */
  path: string;
  who: readonly Role[];
  /** Shape of the body; `'image'` is taken as bytes; null takes none. */
  body: B | 'image';
  query: Q;
  answers: A;
  does: (
    call: Call<B, Q>,
  ) => Promise<A extends TSchema ? { status?: 200 | 201; body: Static<A> } : void>;
}

/** Those who read, those who record, and those who decide for the shop. */
export const READERS: readonly Role[] = ['viewer', 'technician', 'lead'];
export const RECORDERS: readonly Role[] = ['technician', 'lead'];
export const LEADS: readonly Role[] = ['lead'];

/** Holds a route's own types to each other. */
export const route = <
  B extends SchemaName | null,
  Q extends SchemaName | null,
  const A extends Answers,
>(
  given: Route<B, Q, A>,
): Route => given as unknown as Route;

/** Told of every answer that is a record, so that tests can hold it to its shape. */
export type AnswerCheck = (route: Route, body: unknown) => void;

const LARGEST_IMAGE = '3mb';
const IMAGES = ['image/jpeg', 'image/png', 'image/webp'];

/** Finds out who is behind a request, and refuses whoever is none of those who may. */
export type Identify = (request: Request, who: readonly Role[]) => Promise<Me>;

/** Puts routes on a router, in their order. */
export function mount(
  router: Router,
  identify: Identify,
  routes: readonly Route[],
  onAnswer?: AnswerCheck,
): void {
  for (const each of routes) {
    const before = each.body === 'image' ? [raw({ type: IMAGES, limit: LARGEST_IMAGE })] : [];
    router[each.method](each.path, ...before, async (request, response) => {
      const me = await identify(request, each.who);
      const answer = await each.does({
        me,
        body:
          each.body === null || each.body === 'image'
            ? null
            : checkedShape(each.body, request.body),
        query: each.query === null ? null : checkedShape(each.query, request.query),
        id: (name, what) => pathId(request, name, what),
        request,
        response,
      });
      if (!answer) return;
      onAnswer?.(each, answer.body);
      response.status(answer.status ?? 200).json(answer.body);
    });
  }
}

/** A value of a named shape; throws a `wrong-shape` answer that names each field. */
export function checkedShape<N extends SchemaName>(name: N, value: unknown): Shape<N> {
  const checked: Checked<Shape<N>> = check(name, value);
  if (checked.ok) return checked.value;
  throw wrongShape(checked.fields);
}

/** The answer to what has the wrong shape. */
export function wrongShape(fields: FieldProblem[]): ApiError {
  return new ApiError(
    'wrong-shape',
    fields[0]?.message ?? 'The request has the wrong shape.',
    fields,
  );
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** Whether a text is an id of ours. */
export const isUuid = (text: string): boolean => UUID.test(text);

/** An id from the path; one that is no UUID is answered like one that is not there. */
export function pathId(request: Request, name: string, what: string): string {
  const id = request.params[name];
  if (typeof id !== 'string' || !UUID.test(id)) throw notFound(what);
  return id.toLowerCase();
}
