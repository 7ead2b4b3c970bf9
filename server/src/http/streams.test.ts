import { ALIVE_WITHIN_MS } from '@keen-bleed/contract';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import { LocalBus } from '../bus/bus';
import { makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';
import { Streams } from './streams';

let shop: TestShop;
let staff: Staff;
let owner: pg.Client;
let server: Server;
let streams: Streams;
let url: string;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'streams');
  owner = new pg.Client({ connectionString: shop.ownerUrl });
  await owner.connect();
  streams = new Streams(new LocalBus(), shop.database.pool);
  server = createServer((request, response) => {
    const sid = decodeURIComponent(request.url?.slice(1) ?? '');
    Object.assign(request, { sessionID: sid });
    const me = { shopId: staff.shopId, personId: staff.ids.viewer };
    void streams.start(me as never, request as never, response as never);
  });
  await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
  await owner.end();
  await shop.close();
});

/** Opens a stream on a session; tells when the server ends it. */
async function open(sid: string) {
  const answer = await fetch(url + encodeURIComponent(sid));
  const [one, other] = answer.body!.tee();
  const reader = one.getReader();
  const ended = (async () => {
    for (;;) if ((await reader.read()).done) return 'ended';
  })();
  // At the end of the tests all connections are cut.
  ended.catch(() => undefined);
  /** Reads until some words have come. */
  const until = async (words: string) => {
    const text = other.pipeThrough(new TextDecoderStream()).getReader();
    let said = '';
    while (!said.includes(words)) {
      const { done, value } = await text.read();
      if (done) throw new Error(`ended before “${words}”: ${said}`);
      said += value;
    }
    return said;
  };
  return { ended, until };
}

const sidOf = async (personId: string): Promise<string> =>
  (await owner.query<{ sid: string }>('select sid from sessions where person_id = $1', [personId]))
    .rows[0]?.sid ?? '';

it('ends streams whose session lay idle too long or is gone, and leaves the others', async () => {
  const [idle, alive] = [await sidOf(staff.ids.viewer), await sidOf(staff.ids.technician)];
  const [one, two, three] = [await open(idle), await open(alive), await open('nobody’s')];
  expect(streams.size).toBe(3);
  await owner.query(`update sessions set last_at = now() - interval '4 days' where sid = $1`, [
    idle,
  ]);
  await streams.endIdle();
  expect(await one.ended).toBe('ended');
  expect(await three.ended).toBe('ended');
  expect(await Promise.race([two.ended, Promise.resolve('open')])).toBe('open');
});

it('tells each stream that it is still there', async () => {
  const stream = await open(await sidOf(staff.ids.technician));
  streams.tellAlive();
  expect(await stream.until('event:')).toMatch(/event: ?alive/);
});

it('does both by itself, and tells often enough for a page that waits for three words', async () => {
  jest.useFakeTimers({ doNotFake: ['nextTick', 'setImmediate', 'setTimeout', 'performance'] });
  try {
    const own = new Streams(new LocalBus(), shop.database.pool);
    const tells = jest.spyOn(own, 'tellAlive');
    const looks = jest.spyOn(own, 'endIdle').mockRejectedValue(new Error('no database'));
    await jest.advanceTimersByTimeAsync(ALIVE_WITHIN_MS);
    expect(tells).toHaveBeenCalledTimes(3);
    await jest.advanceTimersByTimeAsync(120_000 - ALIVE_WITHIN_MS);
    // A database that is away ends nobody's stream, and not the looking either.
    expect(looks).toHaveBeenCalledTimes(2);
  } finally {
    jest.useRealTimers();
  }
});

it('asks nothing of the database while none is open', async () => {
  const query = jest.fn();
  await new Streams(new LocalBus(), { query } as never).endIdle();
  expect(query).not.toHaveBeenCalled();
});
