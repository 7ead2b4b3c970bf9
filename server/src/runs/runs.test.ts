import { check } from '@keen-bleed/contract';
import Ajv from 'ajv';
import Papa from 'papaparse';
import request from 'supertest';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'x');
});
afterAll(() => shop.close());

let number = 100;
async function keptRun(options?: Parameters<typeof wholeRun>[1]) {
  const header = runHeader(await addTruck(staff.lead, String((number += 1))));
  await staff.technician.post('/api/logs').send(header).expect(201);
  await staff.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: wholeRun(1, options) })
    .expect(200);
  return header;
}

describe('taking a run out', () => {
  it('gives JSON that fits the schema served beside it', async () => {
    const header = await keptRun({ offsetMs: 90_000 });
    const schema = (await request(shop.app).get('/schema/run-export.json').expect(200))
      .body as object;
    const answer = await staff.viewer.get(`/api/runs/${header.id}/export.json`).expect(200);
    expect(answer.headers['content-disposition']).toMatch(/run-\d+-2025-10-09\.json/);
    const ajv = new Ajv({ discriminator: true, strict: false, validateFormats: false });
    expect(ajv.validate(schema, answer.body)).toBe(true);
    expect(check('runExport', answer.body).ok).toBe(true);
    expect((answer.body as { caution: string }).caution).toContain('does not replace');
  });

  it('gives CSV that a general-purpose reader takes apart again', async () => {
    const header = await keptRun({ offsetMs: 90_000 });
    const answer = await staff.viewer.get(`/api/runs/${header.id}/export.csv`).expect(200);
    const { data, errors } = Papa.parse<Record<string, string>>(answer.text.trim(), {
      header: true,
    });
    expect(errors).toEqual([]);
    expect(data.map((row) => [row.mark, row.readingPsi])).toEqual([
      ['from', '85'],
      ['to', '100'],
      ['cut-out', '126'],
      ['cut-in', '106'],
      ['settle', '120'],
      ['start', '120'],
      ['end', '116.25'],
    ]);
    // Both clocks stand in it, and how far they were apart.
    expect(data[0]).toMatchObject({
      timeUtc: '2025-10-09T08:52:00.000Z',
      deviceTimeUtc: '2025-10-09T08:53:30.000Z',
      clockAheadS: '90',
    });
  });
});
