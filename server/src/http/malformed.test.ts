import { gzipSync } from 'node:zlib';
import { v7 as uuidv7 } from 'uuid';
import request from 'supertest';
import { seededRandom } from '../random/seededRandom';
import {
  addTruck,
  makeStaff,
  openTestShop,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';

/** Requests that are sent: a night's run may ask for more. */
const COUNT = Number(process.env.MALFORMED ?? 1_500);

let shop: TestShop;
let staff: Staff;
let unitId: string;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'm');
  unitId = (await addTruck(staff.lead, '900')).id;
});
afterAll(() => shop.close());

const from = () => request(shop.app).post('/api/sign-in').set('content-type', 'application/json');

describe('what cannot be read is refused in words', () => {
  it.each<[what: string, status: number, send: () => request.Test]>([
    [
      'a body that is not packed as it says',
      400,
      () => from().set('content-encoding', 'gzip').send('not gzip'),
    ],
    ['a packing nobody knows', 415, () => from().set('content-encoding', 'squash').send('{}')],
    [
      'letters nobody knows',
      415,
      () =>
        request(shop.app)
          .post('/api/sign-in')
          .set('content-type', 'application/json; charset=klingon')
          .send('{}'),
    ],
    ['half a JSON', 422, () => from().send('{"signInName":')],
    ...['kind', 'id', 'v', 'made', 'subject'].map(
      (field) =>
        [
          `a ${field} that is an object without words`,
          422,
          () => staff.technician.post('/api/logs').send({ [field]: { toString: 1 } }),
        ] as [string, number, () => request.Test],
    ),
    [
      'twenty thousand levels of a list',
      422,
      () =>
        staff.technician
          .post('/api/logs')
          .set('content-type', 'application/json')
          .send(`{"made":${'['.repeat(20_000)}${']'.repeat(20_000)}}`),
    ],
    [
      'twenty thousand levels that do not end',
      422,
      () =>
        staff.technician
          .post('/api/logs')
          .set('content-type', 'application/json')
          .send('['.repeat(20_000)),
    ],
    [
      'an id with a prefix',
      422,
      () => staff.technician.post('/api/logs').send({ id: `urn:uuid:${uuidv7()}` }),
    ],
  ])('%s: %d', async (_, status, send) => {
    const answer = await send();
    expect(answer.status).toBe(status);
    expect((answer.body as { message: string }).message).toMatch(/\w+ \w+/);
    expect(JSON.stringify(answer.body)).not.toMatch(/at .*\.(ts|js):|SELECT|insert into/i);
  });
});

describe('text that no database keeps', () => {
  const name = (text: string) => `{"signInName":"${text}","password":"x"}`;
  const utf16 = (text: string) =>
    from()
      .set('content-type', 'application/json; charset=utf-16le')
      .serialize((body: unknown) => body as string)
      .send(Buffer.from(text, 'utf16le') as unknown as string);
  it.each([
    ['half a character, as an escape', () => from().send(name('\\ud83d'))],
    ['the zero byte, as an escape', () => from().send(name('a\\u0000b'))],
    ['half a character, as it is in UTF-16', () => utf16(name('\ud83d'))],
    [
      'half a character, packed',
      () =>
        from()
          .set('content-encoding', 'gzip')
          .serialize((body: unknown) => body as string)
          .send(gzipSync(name('\\udca8')) as unknown as string),
    ],
  ])('%s: the field is named', async (_, send) => {
    const answer = await send();
    expect(answer.status).toBe(422);
    expect((answer.body as Refusal).fields).toEqual([
      { field: 'signInName', message: 'This text holds half a character: write it again.' },
    ]);
  });

  it.each([
    ['a whole character as two escapes', () => from().send(name('\\ud83d\\udca8'))],
    ['a whole character as it is in UTF-16', () => utf16(name('\ud83d\udca8'))],
    ['a whole character in UTF-8', () => from().send(name('\ud83d\udca8'))],
  ])('%s is text like any other', async (_, send) => {
    expect(((await send()).body as Refusal).code).toBe('wrong-sign-in');
  });
});

describe('malformed requests', () => {
  it(`are never an error of the server, ${COUNT} of them, and nothing of them is logged`, async () => {
    const random = seededRandom(5);
    const before = shop.logged.length;
    const one = <T>(of: readonly T[]): T => of[Math.floor(random.next() * of.length)]!;
    const values = [
      null,
      true,
      -1,
      2 ** 53,
      1e308,
      9_999_999_999,
      '',
      'x'.repeat(300),
      '\u0000',
      '\ud800',
      'urn:uuid:01936aea-e800-7dbb-8355-db091201eb07',
      unitId,
      uuidv7(),
      [],
      [[[]]],
      {},
      { a: { b: { c: 1 } } },
      '2026-99-99',
    ];
    const keys = [
      'id',
      'kind',
      'unitId',
      'unitIds',
      'draft',
      'facts',
      'revision',
      'header',
      'reason',
      'v',
      'lane',
      'seq',
      '__proto__',
      'title',
    ];
    const body = (deep: number): unknown =>
      deep === 0 || random.next() < 0.3
        ? one(values)
        : Object.fromEntries(
            Array.from({ length: 1 + Math.floor(random.next() * 4) }, () => [
              one(keys),
              body(deep - 1),
            ]),
          );
    const ids = [
      unitId,
      uuidv7(),
      'urn:uuid:01936aea-e800-7dbb-8355-db091201eb07',
      '%00',
      '%E0%A4%A',
      '../..',
      '99999999999999999999',
      'null',
      '%F0%9F%92%A8',
    ];
    const paths = () =>
      one([
        '/api/units',
        `/api/units/${one(ids)}`,
        `/api/units/${one(ids)}/found`,
        `/api/units/${one(ids)}/retire`,
        `/api/units/${one(ids)}/runs`,
        '/api/rigs',
        `/api/rigs/${one(ids)}/uncouple`,
        '/api/rule-sets',
        `/api/rule-sets/${one(ids)}`,
        '/api/logs',
        `/api/logs/${one(ids)}`,
        `/api/logs/${one(ids)}/facts`,
        `/api/runs/${one(ids)}/export.json`,
        `/api/visits/${one(ids)}/report.pdf`,
        `/api/jobs/${one(ids)}/blocks`,
        `/api/photos/${one(ids)}`,
        '/api/failures/close',
        '/api/people',
        '/api/suspects/table',
        '/api/sign-in',
        '/api/set-up',
        `/api/yard?${one(['a=1', 'a[]=2', '%00=1', '__proto__=x'])}`,
      ]);
    const heads: readonly (readonly [string, string])[] = [
      ['content-encoding', 'gzip'],
      ['content-type', 'application/json; charset=utf-99'],
      ['content-type', 'text/plain'],
      ['range', 'bytes=9999999999-'],
      ['if-none-match', '"x"'],
      ['accept-encoding', 'x'],
    ];
    for (let n = 0; n < COUNT; n += 1) {
      const agent = one([staff.lead, staff.technician, staff.viewer]);
      const method = one(['get', 'post', 'put', 'patch', 'delete'] as const);
      let sent = agent[method](paths()).set('content-type', 'application/json');
      if (random.next() < 0.2) sent = sent.set(...one(heads));
      const answer =
        method === 'get'
          ? await sent
          : await sent.send(random.next() < 0.1 ? '{"a":' : JSON.stringify(body(3)));
      if (answer.status >= 500) {
        throw new Error(
          `${method} ${answer.request.url}: ${answer.status}, ${shop.logged.at(-1) ?? ''}`,
        );
      }
    }
    expect(shop.logged.slice(before).filter((line) => line.includes('request failed'))).toEqual([]);
  });
});
