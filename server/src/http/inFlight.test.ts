import express from 'express';
import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { InFlight } from './inFlight';

describe('a server that is told to stop', () => {
  let server: Server;
  let url: string;
  let inFlight: InFlight;
  let answer: () => void;
  let taken: Promise<void>;

  beforeEach(async () => {
    inFlight = new InFlight();
    const app = express();
    app.use(inFlight.counted);
    let took: () => void;
    taken = new Promise((resolve) => {
      took = resolve;
    });
    app.post('/slow', (_request, response) => {
      answer = () => void response.json({ kept: true });
      took();
    });
    app.get('/some/live', (_request, response) => {
      response.writeHead(200, { 'Content-Type': 'text/event-stream' });
      response.write('event: hello\n\n');
    });
    server = createServer(app);
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
    url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });

  it('answers what it has taken, takes no more, and ends its streams', async () => {
    const stream = await fetch(`${url}/some/live`);
    const slow = fetch(`${url}/slow`, { method: 'POST' });
    await taken;
    expect(inFlight.size).toBe(1);
    const drained = inFlight.drain(server, 10_000);
    await expect(fetch(`${url}/slow`, { method: 'POST' })).rejects.toThrow();
    answer();
    expect(await (await slow).json()).toEqual({ kept: true });
    await drained;
    await expect(stream.text()).rejects.toThrow();
    expect(inFlight.size).toBe(0);
  });

  it('cuts off one that nobody answers, after a while', async () => {
    const slow = fetch(`${url}/slow`, { method: 'POST' });
    const cut = expect(slow).rejects.toThrow();
    await taken;
    await inFlight.drain(server, 50);
    await cut;
  });
});
