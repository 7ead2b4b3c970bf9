import { toPsi } from '@keen-bleed/core';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { inflateSync } from 'node:zlib';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  testPassword,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { ladderSvg } from './ladderSvg';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'g');
  others = await makeStaff(shop, 'h');
});
afterAll(() => shop.close());

let number = 0;
async function keptRun(lossPsi = 1) {
  const unit = await addTruck(staff.lead, String((number += 1)));
  const header = runHeader(unit);
  await staff.technician.post('/api/logs').send(header).expect(201);
  await staff.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: wholeRun(lossPsi) })
    .expect(200);
  return header;
}

describe('a report', () => {
  it('is a PDF of at least one page, under the run’s own name', async () => {
    const header = await keptRun(6);
    const answer = await staff.viewer
      .get(`/api/runs/${header.id}/report.pdf`)
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      })
      .expect(200);
    expect(answer.headers['content-type']).toBe('application/pdf');
    expect(answer.headers['content-disposition']).toMatch(/run-\d+-2025-10-09\.pdf/);
    const pdf = answer.body as Buffer;
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.subarray(-6).toString()).toContain('%%EOF');
    const text = pdf.toString('latin1');
    expect(text).toMatch(/\/Type \/Page\b/);
    // Both faces go with it, so that it looks alike everywhere.
    expect(text).toMatch(/AtkinsonHyperlegible/);
    expect(text).toMatch(/B612/);
    // The ladder is drawn, not pasted: lines and curves in the page's own stream.
    const streams = [...text.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)].flatMap((found) => {
      try {
        return [inflateSync(Buffer.from(found[1] ?? '', 'latin1')).toString('latin1')];
      } catch {
        return [];
      }
    });
    expect(streams.some((stream) => (stream.match(/ l\n/g) ?? []).length > 40)).toBe(true);
  });

  it('of another shop is as if it were not there', async () => {
    const header = await keptRun();
    await others.lead.get(`/api/runs/${header.id}/report.pdf`).expect(404);
    await others.lead.get(`/api/logs/${header.id}/live`).expect(404);
  });
});

describe('the ladder on paper', () => {
  const gauge = { unit: 'bar', division: 0.2, top: 12 } as const;

  it('has a flag for each mark, apart from each other, in the gauge’s own unit', () => {
    const svg = ladderSvg({
      gauge,
      windows: [{ stepId: 'w', fromPsi: 55, toPsi: 75, label: 'warning' }],
      marksPsi: [toPsi(8.6, 'bar'), toPsi(8.6, 'bar'), toPsi(4.2, 'bar')],
      height: 400,
    });
    expect(svg.match(/>8\.6</g)).toHaveLength(2);
    expect(svg).toContain('>4.2<');
    const heights = [...svg.matchAll(/l4 -5\.5h34/g)].length;
    expect(heights).toBe(3);
    const places = [...svg.matchAll(/M93 ([\d.]+)l4/g)].map((found) => Number(found[1]));
    places.sort((a, b) => a - b);
    expect((places[1] ?? 0) - (places[0] ?? 0)).toBeGreaterThanOrEqual(12.9);
  });
});

describe('what is due', () => {
  it('goes into a calendar, one day for each unit in service', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const gone = await addTruck(staff.lead, String((number += 1)));
    await staff.lead.post(`/api/units/${gone.id}/retire`).send({ retired: true }).expect(200);
    const answer = await staff.viewer.get('/api/due.ics').expect(200);
    expect(answer.headers['content-type']).toContain('text/calendar');
    const text = answer.text;
    expect(text).toContain('BEGIN:VCALENDAR');
    expect(text).toContain(`UID:due-${unit.id}@keen-bleed`);
    expect(text).toContain(`SUMMARY:Brake test: Tipper ${unit.number}`);
    expect(text).not.toContain(gone.id);
    expect(text.match(/BEGIN:VEVENT/g)?.length).toBe(text.match(/DTSTART;VALUE=DATE/g)?.length);
  });
});

describe('following a run on another device', () => {
  let server: Server;
  afterEach(() => {
    server.closeAllConnections();
    server.close();
  });

  it('hears at once how far it is, and again whenever it grows', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const header = runHeader(unit);
    await staff.technician.post('/api/logs').send(header).expect(201);
    server = createServer(shop.app);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const signIn = await fetch(`${url}/api/sign-in`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ signInName: staff.names.viewer, password: testPassword }),
    });
    const cookie =
      signIn.headers
        .getSetCookie()
        .find((each) => each.startsWith('kb.sid='))
        ?.split(';')[0] ?? '';
    const heard: number[] = [];
    const stop = new AbortController();
    const stream = await fetch(`${url}/api/logs/${header.id}/live`, {
      headers: { Cookie: cookie, Accept: 'text/event-stream' },
      signal: stop.signal,
    });
    expect(stream.headers.get('content-type')).toContain('text/event-stream');
    const reader = stream.body?.getReader();
    if (!reader) throw new Error('no stream');
    const decoder = new TextDecoder();
    const until = async (count: number) => {
      let text = '';
      while (heard.length < count) {
        const { value, done } = await reader.read();
        if (done) throw new Error('the stream ended');
        text += decoder.decode(value, { stream: true });
        for (const found of text.matchAll(/data:\s*{.*"held":(\d+).*}\n\n/g)) {
          heard.push(Number(found[1]));
        }
        text = text.slice(text.lastIndexOf('\n\n') + 2);
      }
    };
    await until(1);
    const [ready] = wholeRun();
    // The stream's own application holds the channel: what is posted through it is what is heard.
    await staff.technician
      .post(`/api/logs/${header.id}/facts`)
      .send({ facts: [{ ...ready, id: uuidv7() }] })
      .expect(200);
    await until(2);
    expect(heard).toEqual([0, 1]);
    stop.abort();
  });
});
