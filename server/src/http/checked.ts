import type { SchemaName } from '@keen-bleed/contract';
import type { Request } from 'express';
import { checkedShape } from './route';

export { pathId } from './route';

/** The request's body, checked against its schema; throws a `wrong-shape` answer that names each field. */
export const checkedBody = <N extends SchemaName>(name: N, request: Request) =>
  checkedShape(name, request.body);
