import { once } from 'node:events';
import { Agent, get, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { httpServer } from './httpServer';

/** What proxies in common use keep an idle connection to a server behind them for, s; value from memory. */
const PROXY_KEEPS_S = 60;

describe('a connection nobody asks on', () => {
  it('is kept open for longer than a proxy would ask on it, and asked on again', async () => {
    const ports: (number | undefined)[] = [];
    const server = httpServer((request, response) => {
      ports.push(request.socket.remotePort);
      response.end('here');
    });
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const ask = async () => {
      const asked = get({ port: (server.address() as AddressInfo).port, host: '127.0.0.1', agent });
      const [answer] = (await once(asked, 'response')) as [IncomingMessage];
      answer.resume();
      await once(answer, 'end');
      return Number(/timeout=(\d+)/.exec(String(answer.headers['keep-alive']))?.[1]);
    };
    expect(await ask()).toBeGreaterThan(PROXY_KEEPS_S);
    await ask();
    expect(ports[0]).toBe(ports[1]);
    agent.destroy();
    server.close();
    await once(server, 'close');
  });
});
