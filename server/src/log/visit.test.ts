import type { LogRecord, LogRow, VisitExport } from '@keen-bleed/contract';
import Ajv from 'ajv';
import Papa from 'papaparse';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { anOpenVisit } from '../test/anOpenVisit';
import { aPhoto } from '../test/aPhoto';
import {
  makeStaff,
  openTestShop,
  type Agent,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'r');
  others = await makeStaff(shop, 's');
});
afterAll(() => shop.close());

let number = 100;

describe('a visit', () => {
  const openedVisit = () => anOpenVisit(staff, String((number += 1)));

  it('goes out as JSON that fits the schema served beside it, and as CSV that a general-purpose reader takes apart', async () => {
    const { unit, header, said, send } = await openedVisit();
    const at = { unitId: unit.id, partId: 'rear-relay' };
    const check = (title: string, answer: object, more: object = {}) => {
      const { text: _, ...fact } = said('', {
        kind: 'check',
        at,
        checkId: '0/compare/rear relay control/rear delivery/released',
        title,
        answer,
        said: '=SUM(A1)',
        ...more,
      });
      return fact;
    };
    const points = {
      kind: 'points',
      points: [
        [4, 0],
        [20, 16.5],
      ],
    };
    await send([check('Read in against out', points)], staff.technician).expect(200);
    const lead = said('', {
      kind: 'held',
      unitId: unit.id,
      state: 'released',
      needle: 'primary',
      fromPsi: 118,
      toPsi: 116,
      seconds: 120,
      text: 'Held',
    });
    const { at: _at, ...held } = lead as { at: unknown };
    await send([held], staff.lead).expect(200);
    const schema = (await request(shop.app).get('/schema/visit-export.json').expect(200))
      .body as object;
    const answer = await staff.viewer.get(`/api/visits/${header.id}/export.json`).expect(200);
    const ajv = new Ajv({ discriminator: true, strict: false, validateFormats: false });
    expect([ajv.validate(schema, answer.body), ajv.errors]).toEqual([true, null]);
    expect(answer.headers['content-disposition']).toMatch(/visit-.*\.json/);
    expect(Object.values((answer.body as VisitExport).writers)).toHaveLength(2);
    const csv = await staff.viewer.get(`/api/visits/${header.id}/export.csv`).expect(200);
    const { data, errors } = Papa.parse<Record<string, string>>(csv.text.trim(), { header: true });
    expect(errors).toEqual([]);
    expect(
      data.map(({ kind, part, pointsPsi, fromPsi, seconds }) => ({
        kind,
        part,
        pointsPsi,
        fromPsi,
        seconds,
      })),
    ).toEqual([
      { kind: 'check', part: 'Rear relay', pointsPsi: '4:0 20:16.5', fromPsi: '', seconds: '' },
      { kind: 'held', part: '', pointsPsi: '', fromPsi: '118', seconds: '120' },
    ]);
    // A cell that a spreadsheet would run is quoted.
    expect(csv.text).toContain(`"'=SUM(A1)"`);
    expect(Number.isNaN(Date.parse(data[0]!.timeUtc!))).toBe(false);
    for (const kind of ['json', 'csv']) {
      await others.lead.get(`/api/visits/${header.id}/export.${kind}`).expect(404);
      await request(shop.app).get(`/api/visits/${header.id}/export.${kind}`).expect(401);
    }
  });

  it('is written in by several people, and lists what is not right', async () => {
    const { unit, header, said, send } = await openedVisit();
    await send([said('Parked on the slope')], staff.technician).expect(200);
    const at = { unitId: unit.id, partId: 'rear-relay' };
    const seen = said('Hiss at the exhaust', { kind: 'seen', at, standing: 'bad' });
    await send([seen], staff.lead).expect(200);
    await send([said('x')], staff.viewer).expect(403);
    await send([said('x')], others.lead).expect(404);
    const kept = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'visit'>;
    expect(kept.facts).toHaveLength(2);
    expect(Object.values(kept.writers).sort()).toEqual(['lead', 'technician']);
    const rows = (await staff.viewer.get(`/api/units/${unit.id}/visits`)).body as LogRow[];
    expect(rows).toMatchObject([
      { id: header.id, kind: 'visit', headline: '1 thing is not right: Hiss at the exhaust' },
    ]);
    // A visit is no run: neither the yard nor the list of runs counts it as one.
    expect((await staff.viewer.get(`/api/units/${unit.id}/runs`)).body).toEqual([]);
  });

  it('lets nobody write in the lane of another', async () => {
    const { said, send, header } = await openedVisit();
    const first = said('Parked on the slope');
    await send([first], staff.technician).expect(200);
    const forged = said('All is well', { lane: first.lane, seq: 2 });
    const answer = await send([forged], staff.lead).expect(409);
    expect(answer.body as Refusal).toMatchObject({
      code: 'place-taken',
      fields: [{ field: 'facts.0.lane' }],
    });
    const kept = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'visit'>;
    expect(kept.facts).toMatchObject([{ text: 'Parked on the slope' }]);
    expect(Object.values(kept.writers)).toEqual(['technician']);
  });

  it('lets nobody correct or take back what another wrote', async () => {
    const { said, send, header } = await openedVisit();
    const first = said('Hiss at the exhaust');
    await send([first], staff.technician).expect(200);
    const correction = said('No hiss', { supersedes: first.id });
    await send([correction], staff.lead).expect(403);
    const { at: _at, text: _text, ...stamp } = said('');
    await send([{ ...stamp, kind: 'retract', target: first.id }], staff.lead).expect(403);
    const kept = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'visit'>;
    expect(kept.facts).toHaveLength(1);
    // Their own they may, once.
    const own = { lane: first.lane, seq: 2 };
    await send([said('No hiss', { ...own, supersedes: first.id })], staff.technician).expect(200);
  });

  it('refuses a part its unit does not have, in words', async () => {
    const { unit, said, send } = await openedVisit();
    const at = { unitId: unit.id, partId: 'wings' };
    const answer = await send([said('x', { at })], staff.technician).expect(422);
    expect((answer.body as Refusal).fields).toEqual([
      { field: 'facts.0.at.partId', message: 'This unit has no part "wings".' },
    ]);
  });

  it('takes a fact that names a photo once the photo has come, and serves it to its shop alone', async () => {
    const { header, said, send } = await openedVisit();
    const photo = uuidv7();
    const named = said('See the photo', { photos: [photo] });
    expect((await send([named], staff.technician).expect(409)).body).toMatchObject({
      code: 'photo-missing',
    });
    const jpeg = await aPhoto();
    const put = (agent: Agent, body: Buffer, type = 'image/jpeg') =>
      agent.put(`/api/photos/${photo}?logId=${header.id}`).set('Content-Type', type).send(body);
    await put(staff.viewer, jpeg).expect(403);
    await put(others.technician, jpeg).expect(404);
    await put(staff.technician, Buffer.from('<svg/>')).expect(422);
    await put(staff.technician, jpeg, 'text/html').expect(422);
    await put(staff.technician, Buffer.concat([jpeg, Buffer.alloc(4_000_000)])).expect(413);
    await put(staff.technician, jpeg).expect(201);
    await put(staff.technician, jpeg).expect(200);
    await send([named], staff.technician).expect(200);
    const served = await staff.viewer.get(`/api/photos/${photo}`).expect(200);
    expect(served.headers['content-type']).toBe('image/jpeg');
    expect(Buffer.compare(served.body as Buffer, jpeg)).toBe(0);
    await others.lead.get(`/api/photos/${photo}`).expect(404);
  });
});
