import SwaggerParser from '@apidevtools/swagger-parser';
import Ajv2020 from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import request from 'supertest';
import type { Route } from '../http/route';
import { routeTypesOf } from './routeTypes';
import { addTruck, makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';

interface Described {
  openapi: string;
  servers: { url: string }[];
  paths: Record<
    string,
    Record<
      string,
      {
        operationId: string;
        security: unknown[];
        parameters: { name: string; in: string }[];
        responses: Record<string, { content?: Record<string, { schema?: object }> }>;
      }
    >
  >;
}

let shop: TestShop;
let staff: Staff;
let described: Described;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'openapi');
  described = (await request(shop.app).get('/api/v1/openapi.json').expect(200)).body as Described;
});
afterAll(() => shop.close());

describe('what the server says of its routes', () => {
  it('is OpenAPI 3.1 to a validator that knows nothing of us', async () => {
    const copy = structuredClone(described) as unknown as Parameters<
      typeof SwaggerParser.validate
    >[0];
    await expect(SwaggerParser.validate(copy)).resolves.toBeDefined();
    const broken = { ...structuredClone(described), paths: { '/x': { get: { responses: 1 } } } };
    await expect(SwaggerParser.validate(broken as unknown as typeof copy)).rejects.toThrow();
    expect(described.openapi).toBe('3.1.0');
  });

  it('is what the app’s requests are held to', () => {
    const kept = readFileSync(join(__dirname, '../../../contract/src/routeTypes.ts'), 'utf8');
    const listed = [...kept.matchAll(/`(GET|POST|PUT|PATCH|DELETE) ([^`]+)`/g)].map(
      ([, method, path]) => `${method} ${path!.replace(/\$\{string\}/g, '{}')}`,
    );
    const said = Object.entries(described.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((each) => `${each.toUpperCase()} ${path.replace(/\{\w+\}/g, '{}')}`),
    );
    expect(listed.sort()).toEqual(said.sort());
    const { routes } = shop.app.locals as { routes: Route[] };
    // How the file is laid out is the formatter's.
    const bare = (text: string) => text.replace(/\s+/g, '').replaceAll(',]', ']');
    expect(bare(kept)).toBe(bare(routeTypesOf(routes)));
  });

  it('names each route once, with its path’s parameters and who may', () => {
    const all = Object.entries(described.paths).flatMap(([path, methods]) =>
      Object.values(methods).map((each) => ({ path, ...each })),
    );
    expect(all.length).toBeGreaterThan(60);
    expect(new Set(all.map(({ operationId }) => operationId)).size).toBe(all.length);
    for (const { path, parameters } of all) {
      const inPath = parameters.filter((each) => each.in === 'path').map(({ name }) => `{${name}}`);
      expect([path, inPath]).toEqual([path, path.match(/\{\w+\}/g) ?? []]);
    }
    const open = all.filter(({ security }) => security.length === 0).map(({ path }) => path);
    expect([...new Set(open)].sort()).toEqual(['/set-up', '/sign-in', '/sign-out']);
  });

  it('has every answer fit what it says, under the versioned name as under the plain one', async () => {
    const unit = await addTruck(staff.lead, '1');
    const ajv = new Ajv2020({ strict: false });
    addFormats(ajv);
    const lists = Object.entries(described.paths).filter(
      ([path, { get }]) =>
        get?.responses['200']?.content?.['application/json'] && !/\{(?!id)/.test(path),
    );
    let held = 0;
    for (const [path, { get }] of lists) {
      const at = path.replace('{id}', unit.id);
      const answer = await staff.lead.get(`/api/v1${at}`);
      if (answer.status === 404) continue;
      expect([path, answer.status]).toEqual([path, 200]);
      const schema = get?.responses['200']?.content?.['application/json']?.schema ?? {};
      const fits = ajv.validate(schema, answer.body);
      expect([path, ajv.errorsText()]).toEqual([path, 'No errors']);
      expect(fits).toBe(true);
      const plain = await staff.lead.get(`/api${at}`).expect(200);
      expect(Object.keys(plain.body as object)).toEqual(Object.keys(answer.body as object));
      held += 1;
    }
    expect(held).toBeGreaterThan(14);
  });
});
