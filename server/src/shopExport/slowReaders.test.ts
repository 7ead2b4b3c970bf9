import { readdirSync } from 'node:fs';
import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { v7 as uuidv7 } from 'uuid';
import { blobs } from '../db/schema';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  testPassword,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let server: Server;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'slow');
  const header = runHeader(await addTruck(staff.lead, 'S-1'));
  await staff.technician.post('/api/logs').send(header).expect(201);
  // More than any buffer between here and there holds.
  const bytes = Buffer.alloc(2_500_000, 7);
  for (let n = 0; n < 6; n += 1)
    await shop.database.db.insert(blobs).values({
      shopId: staff.shopId,
      ...{ id: uuidv7(), logId: header.id, personId: staff.ids.technician },
      ...{ mediaType: 'image/jpeg', bytes },
    });
  server = createServer(shop.app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await shop.close();
});

const url = () => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const filesNow = () =>
  readdirSync(tmpdir()).filter((name) => name.startsWith('keen-bleed-export-'));

/** Asks for the whole shop and reads nothing of what comes. */
const asks = (cookie: string) =>
  new Promise<IncomingMessage>((resolve, reject) => {
    get(`${url()}/api/shop/export.jsonl`, { headers: { cookie }, agent: false }, resolve).on(
      'error',
      reject,
    );
  });

it('readers who take nothing keep no connection, are few of one shop, and leave no file', async () => {
  const before = filesNow();
  const signedIn = await fetch(`${url()}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ signInName: staff.names.lead, password: testPassword }),
  });
  const cookie = /kb\.sid=[^;]*/.exec(signedIn.headers.get('set-cookie') ?? '')?.[0] ?? '';
  const answers = await Promise.all(Array.from({ length: 14 }, () => asks(cookie)));
  expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([
    ...Array.from({ length: 3 }, () => 200),
    ...Array.from({ length: 11 }, () => 429),
  ]);
  const { pool } = shop.database;
  expect([pool.waitingCount, pool.totalCount - pool.idleCount]).toEqual([0, 0]);
  await staff.technician.get('/api/units').expect(200);
  // Once they have gone, another may ask, and nothing of theirs is left on the disk.
  const gone = answers.map(
    (answer) => new Promise((resolve) => answer.once('close', resolve).destroy()),
  );
  await Promise.all(gone);
  let again = await asks(cookie);
  while (again.statusCode === 429) {
    again.resume();
    again = await asks(cookie);
  }
  expect(again.statusCode).toBe(200);
  again.resume();
  await new Promise((resolve) => again.once('end', resolve));
  const left = () => filesNow().filter((name) => !before.includes(name));
  while (left().length > 0) await staff.technician.get('/api/units').expect(200);
  expect(left()).toEqual([]);
});
