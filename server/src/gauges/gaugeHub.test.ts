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
