import { check, type Checked, type SchemaName } from '@keen-bleed/contract';
import type { Request } from 'express';
import { ApiError, notFound } from './apiError';

type Shape<N extends SchemaName> = Extract<ReturnType<typeof check<N>>, { ok: true }>['value'];

/** The request's body, checked against its schema; throws a `wrong-shape` answer that names each field. */
export function checkedBody<N extends SchemaName>(name: N, request: Request): Shape<N> {
  const checked: Checked<Shape<N>> = check(name, request.body);
  if (checked.ok) return checked.value;
  const first = checked.fields[0]?.message ?? 'The request has the wrong shape.';
  throw new ApiError('wrong-shape', first, checked.fields);
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** An id from the path; one that is no UUID is answered like one that is not there. */
export function pathId(request: Request, name: string, what: string): string {
  const id = request.params[name];
  if (typeof id !== 'string' || !UUID.test(id)) throw notFound(what);
  return id.toLowerCase();
}
