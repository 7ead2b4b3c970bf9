import { createSession } from 'better-sse';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { madeUpRig } from '../test/madeUpRig';
import { LocalBus } from '../bus/bus';
import { GaugeHub } from './gaugeHub';
import { GaugeSet } from './gaugeSet';

/** Resolves once something holds, looked at after each thing that may change it. */
const once = (holds: () => boolean): Promise<void> =>
  new Promise((resolve) => {
    const look = () => (holds() ? resolve() : setImmediate(look));
    look();
  });

describe('a gauge set that is listened to', () => {
  const troubles: unknown[] = [];
  let hub: GaugeHub;
  let server: Server;
  let url: string;
  beforeEach(async () => {
    troubles.length = 0;
    hub = new GaugeHub((error) => troubles.push(error), new LocalBus());
    server = createServer((request, response) => {
      void createSession(request, response).then((session) =>
        hub.of('shop', madeUpRig).register(session),
      );
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  });
  afterEach(async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    await once(() => hub.size === 0);
    jest.restoreAllMocks();
  });

  /** Listens until the first samples have come; gives back how to stop. */
  async function listen(): Promise<() => void> {
    const stop = new AbortController();
    const answer = await fetch(url, { signal: stop.signal });
    const reader = answer.body?.getReader();
    let text = '';
    while (!text.includes('event: samples') && !text.includes('event:samples')) {
      const part = await reader?.read();
      if (!part || part.done) break;
      text += Buffer.from(part.value as Uint8Array).toString('utf8');
    }
    expect(text).toContain('"channel":"primary"');
    return () => stop.abort();
  }

  it('is one set for all its listeners, and is put away after the last of them', async () => {
    const made = jest.spyOn(GaugeSet.prototype, 'samplesTo');
    const [first, second] = await Promise.all([listen(), listen()]);
    expect(hub.size).toBe(1);
    expect(new Set(made.mock.contexts).size).toBe(1);
    first();
    await once(() => hub.of('shop', madeUpRig).sessionCount === 1);
    expect(hub.size).toBe(1);
    second();
    await once(() => hub.size === 0);
    // Who comes later finds a new one.
    (await listen())();
    expect(new Set(made.mock.contexts).size).toBe(2);
  });

  it('falls silent when it breaks, says so, and takes nothing with it', async () => {
    jest.spyOn(GaugeSet.prototype, 'samplesTo').mockImplementation(() => {
      throw new Error('cannot be followed');
    });
    const stop = new AbortController();
    const answer = await fetch(url, { signal: stop.signal });
    expect(answer.status).toBe(200);
    await once(() => troubles.length > 0);
    expect(hub.size).toBe(0);
    expect(troubles).toHaveLength(1);
    stop.abort();
  });
});

describe('a gauge set on several servers', () => {
  const STARTED_MS = 1_760_000_000_000;
  let bus: LocalBus;
  let told: number[];
  let troubles: unknown[];
  beforeEach(() => {
    jest.useFakeTimers({ now: STARTED_MS });
    bus = new LocalBus();
    told = [];
    troubles = [];
    bus.on('gauges', ({ startedMs }) => told.push(startedMs));
  });
  afterEach(() => {
    jest.useRealTimers();
    jest.restoreAllMocks();
  });
  const elsewhere = (startedMs: number) =>
    bus.tell('gauges', { shopId: 'shop', unitId: madeUpRig.unit.id, startedMs });

  /** Listens to the set of a hub, and keeps the moments of what it sends. */
  function listened(hub: GaugeHub, shopId = 'shop') {
    const moments: number[] = [];
    const channel = hub.of(shopId, madeUpRig);
    jest.spyOn(channel, 'broadcast').mockImplementation((data) => {
      moments.push(...(data as { atMs: number }[]).map(({ atMs }) => atMs));
      return channel;
    });
    return moments;
  }

  it('is told of at once and every five seconds, as long as it is listened to', () => {
    listened(new GaugeHub((error) => troubles.push(error), bus));
    jest.advanceTimersByTime(200);
    expect(told).toEqual([STARTED_MS]);
    jest.advanceTimersByTime(4_800);
    expect(told).toHaveLength(1);
    jest.advanceTimersByTime(15_600);
    expect(told).toEqual(Array.from({ length: 4 }, () => STARTED_MS));
    expect(troubles).toEqual([]);
  });

  it('shows here what it shows there: from when it was switched on there, caught up in steps that nobody hears', () => {
    const hub = new GaugeHub((error) => troubles.push(error), bus);
    elsewhere(STARTED_MS - 23_000);
    const made = jest.spyOn(GaugeSet.prototype, 'samplesTo');
    const moments = listened(hub);
    jest.advanceTimersByTime(200);
    // Five seconds of twenty-three have been gone through, and are kept to itself.
    expect(made.mock.calls).toEqual([[STARTED_MS - 18_000]]);
    expect(moments).toEqual([]);
    jest.advanceTimersByTime(2_000);
    expect(Math.min(...moments)).toBeGreaterThan(STARTED_MS - 5_100);
    expect(Math.max(...moments)).toBeGreaterThan(STARTED_MS + 1_900);
    expect(new Set(told.slice(1))).toEqual(new Set([STARTED_MS - 23_000]));
    expect(troubles).toEqual([]);
  });

  it.each<[string, number, string]>([
    ['was not heard of for twelve seconds', 12_000, 'shop'],
    ['is another shop’s', 0, 'another'],
  ])('begins anew where the other one %s', (_, sinceMs, shopId) => {
    const hub = new GaugeHub((error) => troubles.push(error), bus);
    elsewhere(STARTED_MS - 23_000);
    jest.advanceTimersByTime(sinceMs);
    const made = jest.spyOn(GaugeSet.prototype, 'samplesTo');
    listened(hub, shopId);
    jest.advanceTimersByTime(200);
    expect(made.mock.calls).toEqual([[STARTED_MS + sinceMs + 200]]);
    expect(told.at(-1)).toBe(STARTED_MS + sinceMs);
  });

  it('joins one that was heard of just before that', () => {
    const hub = new GaugeHub((error) => troubles.push(error), bus);
    elsewhere(STARTED_MS - 1_000);
    jest.advanceTimersByTime(11_999);
    listened(hub);
    jest.advanceTimersByTime(201);
    expect(told.at(-1)).toBe(STARTED_MS - 1_000);
  });
});
