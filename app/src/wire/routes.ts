import type { RouteTypes } from '@keen-bleed/contract';

/** Under what version the server is asked; it holds this one for pages that are older than itself. */
export const API = '/api/v1';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Where a path stands below its version, without what is asked of it. */
type Below<P extends string> = P extends `${typeof API}${infer Rest}` ? Bare<Rest> : never;
type Bare<P extends string> = P extends `${infer Path}?${string}` ? Path : P;

/** The route a request goes to; none for one that the server does not have. */
type Match<R, K extends string> = R extends readonly [infer N extends string, unknown, unknown]
  ? [K] extends [N]
    ? [N] extends [K]
      ? R
      : never
    : never
  : never;
type RouteOf<M extends Method, P extends string> = Match<RouteTypes[number], `${M} ${Below<P>}`>;

/** What a route answers, as its schema on the server says. */
export type AnswerOf<M extends Method, P extends string> = RouteOf<M, P>[2];

/** What a request needs beside its path: nothing, or a body of the shape its route takes. */
export type BodyOf<M extends Method, P extends string> = [RouteOf<M, P>] extends [never]
  ? ['the server has no such route']
  : RouteOf<M, P>[1] extends undefined
    ? []
    : [body: RouteOf<M, P>[1]];

/** Where a stream of events may be followed: a route of the server that has one. */
export type StreamPath = Extract<
  RouteTypes[number],
  readonly [`GET ${string}/live`, undefined, unknown]
>[0] extends infer N
  ? N extends `GET ${infer Path}`
    ? `${typeof API}${Path}`
    : never
  : never;
