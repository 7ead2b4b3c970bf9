import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import type { Unit, YardRow } from '@keen-bleed/contract';
import { unitRevisions, units } from '../db/schema';
import { DEFAULT_QUOTAS } from '../http/quotas';
import { aPhoto } from '../test/aPhoto';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  truckDraft,
  wholeRun,
  type Agent,
  type Staff,
  type TestShop,
} from '../test/testShop';

const VERIFY = join(__dirname, '../../../scripts/verify.mjs');

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'export');
});
afterAll(() => shop.close());

const exported = async (agent: Agent): Promise<string> =>
  (
    (await agent
      .get('/api/shop/export.jsonl')
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      })
      .expect(200)) as { body: Buffer }
  ).body.toString('utf8');

describe('a shop as one file', () => {
  it('holds everything of it and nothing of another, no password, and can be verified', async () => {
    const others = await makeStaff(shop, 'stranger');
    await addTruck(others.lead, 'S-1');
    const unit = await addTruck(staff.lead, 'X-1');
    const header = runHeader(unit);
    await staff.technician.post('/api/logs').send(header).expect(201);
    const facts = wholeRun();
    await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
    const photoId = uuidv7();
    const bytes = await aPhoto();
    await staff.technician
      .put(`/api/photos/${photoId}?logId=${header.id}`)
      .set('content-type', 'image/jpeg')
      .send(bytes)
      .expect(201);
    const text = await exported(staff.lead);
    const lines = text
      .trim()
      .split('\n')
      .map((each) => JSON.parse(each) as Record<string, unknown>);
    const of = (name: string) => lines.filter(({ line }) => line === name);
    expect(lines[0]).toMatchObject({ format: 'keen-bleed/shop/1', shopId: staff.shopId });
    expect(lines.at(-1)).toEqual({ line: 'end', lines: lines.length });
    expect(of('person')).toHaveLength(3);
    expect(of('unit').map(({ draft }) => (draft as { number: string }).number)).toEqual(['X-1']);
    expect(of('fact')).toHaveLength(facts.length);
    expect(of('photo')).toMatchObject([{ id: photoId, base64: bytes.toString('base64') }]);
    expect(text).not.toMatch(/argon2|password_hash|S-1/);
    await staff.technician.get('/api/shop/export.jsonl').expect(403);
    await staff.viewer.get('/api/shop/export.jsonl').expect(403);
    const folder = mkdtempSync(join(tmpdir(), 'keen-bleed-shop-'));
    const verify = (content: string) => {
      writeFileSync(join(folder, 'shop.jsonl'), content);
      return spawnSync(process.execPath, [VERIFY, join(folder, 'shop.jsonl')]).status;
    };
    expect(verify(text)).toBe(0);
    expect(verify(text.replace('"readingPsi":126', '"readingPsi":125'))).toBe(2);
    expect(verify(text.slice(0, text.lastIndexOf('{"line":"end"')))).toBe(2);
    rmSync(folder, { recursive: true });
  });
});

describe('a shop of 5,000 units', () => {
  it('is read page by page, every unit once, in the yard and whole; and takes no more', async () => {
    const made = await makeStaff(shop, 'large');
    const rows = Array.from({ length: DEFAULT_QUOTAS.units }, (_, n) => {
      const draft = truckDraft(String(n % 2_500));
      // Half of them retired, so that numbers come twice.
      return {
        shopId: made.shopId,
        id: uuidv7(),
        number: draft.number,
        draft,
        retiredAt: n < 2_500 ? new Date() : null,
      };
    });
    const { db } = shop.database;
    for (let from = 0; from < rows.length; from += 500) {
      const some = rows.slice(from, from + 500);
      await db.insert(units).values(some);
      await db
        .insert(unitRevisions)
        .values(
          some.map(({ shopId, id: unitId, draft }) => ({ shopId, unitId, revision: 1, draft })),
        );
    }
    const readAll = async <T>(path: string): Promise<{ pages: number; all: T[] }> => {
      const all: T[] = [];
      let pages = 0;
      for (let next: string | null = path; next !== null; pages += 1) {
        const answer: { body: unknown; headers: { link?: string } } = await made.viewer
          .get(next)
          .expect(200);
        all.push(...(answer.body as T[]));
        const version = path.replace(/\w+$/, '');
        next = /<([^>]+)>; rel="next"/.exec(answer.headers.link ?? '')?.[1] ?? null;
        // The next page is asked for under the version the first was.
        expect((next ?? version).startsWith(version)).toBe(true);
      }
      return { pages, all };
    };
    const yard = await readAll<YardRow>('/api/yard');
    expect(yard.pages).toBe(5);
    expect(new Set(yard.all.map(({ unit }) => unit.id)).size).toBe(DEFAULT_QUOTAS.units);
    expect(yard.all).toHaveLength(DEFAULT_QUOTAS.units);
    const whole = await readAll<Unit>('/api/v1/units');
    expect(whole.all.map(({ id }) => id)).toEqual(yard.all.map(({ unit }) => unit.id));
    const refused = await made.lead
      .post('/api/units')
      .send({ id: uuidv7(), draft: truckDraft('9999') })
      .expect(409);
    expect(refused.body).toMatchObject({ code: 'quota-full' });
    // A retry of one that is there is answered all the same.
    const { id, draft } = rows.at(-1) ?? { id: '', draft: truckDraft('1') };
    await made.lead.post('/api/units').send({ id, draft }).expect(200);
    await made.viewer.get('/api/yard?after=nothing').expect(422);
    // A page after a unit of another shop begins nowhere.
    const [foreign] = (await staff.viewer.get('/api/units')).body as Unit[];
    expect((await made.viewer.get(`/api/yard?after=${foreign?.id}`)).body).toEqual([]);
  });
});
