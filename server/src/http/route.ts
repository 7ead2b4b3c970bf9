import {
  check,
  type Checked,
  type FieldProblem,
  type Me,
  type Role,
  type SchemaName,
} from '@keen-bleed/contract';
import type { Static, TSchema } from '@sinclair/typebox';
import express, { raw, type Request, type Response, type Router } from 'express';
import { ApiError, notFound } from './apiError';

type Shape<N extends SchemaName> = Extract<ReturnType<typeof check<N>>, { ok: true }>['value'];
type MaybeShape<N extends SchemaName | null> = N extends SchemaName ? Shape<N> : null;

/** One request to a route, checked. */
export interface Call<
  B extends SchemaName | null,
  Q extends SchemaName | null,
  W extends Who = readonly Role[],
> {
  /** Who asks; null where anybody may. */
  me: W extends 'anybody' ? null : Me;
  body: MaybeShape<B>;
  query: MaybeShape<Q>;
  /** An id from the path; one that is no UUID is answered like one that is not there. */
  id: (name: string, what: string) => string;
  request: Request;
  response: Response;
}

/** How a route answers: with a record of a shape, a file it sends itself, a stream of events, or just that it is done. */
export type Answers = TSchema | 'file' | 'stream' | 'nothing';

/** Who may ask: people of these roles, or anybody, signed in or not. */
export type Who = readonly Role[] | 'anybody';

/**
 * A route, whole: what it is called, who may, what it takes, what it gives, and what it does. None of these can be
 * left out.
 */
export interface Route<
  B extends SchemaName | null = SchemaName | null,
  Q extends SchemaName | null = SchemaName | null,
  A extends Answers = Answers,
  W extends Who = Who,
> {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Below `/api`. */
  path: string;
  who: W;
  /** Shape of the body; `'image'` is taken as bytes; null takes none. */
  body: B | 'image';
  query: Q;
  answers: A;
  /** Whether records leave the product by it: then the audit trail says so. */
  exports?: boolean;
  does: (
    call: Call<B, Q, W>,
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
  const W extends Who,
>(
  given: Route<B, Q, A, W>,
): Route => given as unknown as Route;

/** Told of every answer that is a record, so that tests can hold it to its shape. */
export type AnswerCheck = (route: Route, body: unknown) => void;

const LARGEST_IMAGE = '3mb';
const IMAGES = ['image/jpeg', 'image/png', 'image/webp'];

/** Finds out who is behind a request, and refuses whoever is none of those who may. */
export type Identify = (request: Request, who: readonly Role[]) => Me;

/** What is told of what routes do. */
export interface Watch {
  onAnswer?: AnswerCheck | undefined;
  /** Told of a file that went out. */
  onExport?: (me: Me, request: Request, fileName: string) => Promise<void>;
}

/** Puts routes on a router, in their order. */
export function mount(
  router: Router,
  identify: Identify,
  routes: readonly Route[],
  { onAnswer, onExport }: Watch = {},
): void {
  // By the first part of their path: a request is held against a few patterns instead of all.
  const byPlace = new Map<string, Router>();
  const placeOf = (path: string): { place: Router; rest: string } => {
    const [, first = '', rest = ''] = /^\/([^/]+)(.*)$/.exec(path) ?? [];
    const place = byPlace.get(first) ?? express.Router();
    if (!byPlace.has(first)) router.use(`/${first}`, place);
    byPlace.set(first, place);
    return { place, rest: rest === '' ? '/' : rest };
  };
  for (const each of routes) {
    const before = each.body === 'image' ? [raw({ type: IMAGES, limit: LARGEST_IMAGE })] : [];
    const { place, rest } = placeOf(each.path);
    place[each.method](rest, ...before, async (request, response) => {
      response.locals.route = `/api${each.path}`;
      const me = each.who === 'anybody' ? null : identify(request, each.who);
      const answer = await each.does({
        me: me!,
        body:
          each.body === null || each.body === 'image'
            ? null
            : checkedShape(each.body, request.body),
        query: each.query === null ? null : checkedShape(each.query, request.query),
        id: (name, what) => pathId(request, name, what),
        request,
        response,
      });
      if (me && each.exports) await onExport?.(me, request, fileNameOf(response));
      if (each.answers === 'nothing') response.status(204).end();
      if (!answer) return;
      onAnswer?.(each, answer.body);
      response.status(answer.status ?? 200).json(answer.body);
    });
  }
}

/** What a file that was sent is called. */
const fileNameOf = (response: Response): string =>
  /filename="?([^";]+)/.exec(String(response.getHeader('content-disposition')))?.[1] ?? 'a file';

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
