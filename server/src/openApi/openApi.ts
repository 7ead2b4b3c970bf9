import { errorStatus, schemas } from '@keen-bleed/contract';
import type { TSchema } from '@sinclair/typebox';
import type { Answers, Route } from '../http/route';

/** Under what name this version of the interface stands for good; `/api` is the newest, which today is the same. */
export const API_VERSION = 'v1';

const json = (schema: object) => ({ 'application/json': { schema } });

/** A schema as plain JSON, in the words of JSON Schema 2020-12 that OpenAPI 3.1 speaks. */
const plain = (schema: TSchema): object => {
  const { $id: _id, ...rest } = JSON.parse(JSON.stringify(schema), asOf2020) as Record<
    string,
    unknown
  >;
  return rest;
};

/** Tuples were `items` and `additionalItems` in draft 7, as our schemas have them. */
function asOf2020(_key: string, value: unknown): unknown {
  if (value === null || typeof value !== 'object' || Array.isArray(value)) return value;
  const { items, additionalItems, ...rest } = value as Record<string, unknown>;
  if (!Array.isArray(items)) return value;
  return { ...rest, prefixItems: items as unknown[], items: additionalItems ?? true };
}

const IMAGE = { 'image/jpeg': {}, 'image/png': {}, 'image/webp': {} };

function bodyOf({ body }: Route): object {
  if (body === null) return {};
  const content = body === 'image' ? IMAGE : json(plain(schemas[body]));
  return { requestBody: { required: true, content } };
}

function successOf(answers: Answers): object {
  if (answers === 'nothing') return { 204: { description: 'Done.' } };
  if (answers === 'stream') {
    return { 200: { description: 'A stream of events.', content: { 'text/event-stream': {} } } };
  }
  if (answers === 'file') {
    return { 200: { description: 'A file.', content: { 'application/octet-stream': {} } } };
  }
  const content = json(plain(answers));
  return {
    200: { description: titleOf(answers), content },
    201: { description: 'Made.', content },
  };
}

const titleOf = (schema: TSchema): string => schema.title ?? 'A list.';

function parametersOf({ path, query }: Route): object[] {
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string', format: 'uuid' },
  }));
  if (query === null) return inPath;
  const { properties = {}, required = [] } = plain(schemas[query]) as {
    properties?: Record<string, object>;
    required?: string[];
  };
  const inQuery = Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
  return [...inPath, ...inQuery];
}

/** A name for what a route does, such as `getUnitsId`. */
const operationId = ({ method, path }: Route): string =>
  method +
  path
    .split(/[/:.-]+/)
    .filter(Boolean)
    .map((part) => part[0]?.toUpperCase() + part.slice(1))
    .join('');

/**
 * What the server’s routes say of themselves, as an OpenAPI 3.1 description: written from the very objects that are
 * served, so that it cannot tell anything else.
 */
export function openApiOf(routes: readonly Route[]): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const each of routes) {
    const path = each.path.replaceAll(/:(\w+)/g, '{$1}');
    const may =
      each.who === 'anybody' ? 'Anybody, signed in or not.' : `Roles: ${each.who.join(', ')}.`;
    paths[path] = {
      ...paths[path],
      [each.method]: {
        operationId: operationId(each),
        description: may,
        security: each.who === 'anybody' ? [] : [{ session: [] }],
        parameters: parametersOf(each),
        ...bodyOf(each),
        responses: {
          ...successOf(each.answers),
          default: { $ref: '#/components/responses/Refused' },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Keen Bleed',
      version: API_VERSION,
      description: 'Air-brake tests of a shop: units, rigs, records, jobs, people.',
    },
    servers: [{ url: `/api/${API_VERSION}` }],
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'kb.sid' } },
      responses: {
        Refused: {
          description: 'Why it was not done, in words, with a code and the fields that are wrong.',
          content: json({
            type: 'object',
            required: ['code', 'message'],
            properties: {
              code: { type: 'string', enum: Object.keys(errorStatus) },
              message: { type: 'string' },
              fields: {
                type: 'array',
                items: {
                  type: 'object',
                  required: ['field', 'message'],
                  properties: { field: { type: 'string' }, message: { type: 'string' } },
                },
              },
            },
          }),
        },
      },
    },
  };
}
