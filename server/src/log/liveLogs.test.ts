import { createSession } from 'better-sse';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { LocalBus } from '../bus/bus';
import { LiveLogs } from './liveLogs';

let server: Server;
let url: string;
let live: LiveLogs;
beforeEach(async () => {
  live = new LiveLogs(new LocalBus());
  server = createServer((request, response) => {
    const [, shopId, logId] = request.url!.split('/');
    void createSession(request, response).then((session) =>
      live.of(shopId!, logId!).register(session),
    );
  });
  await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
});

/** Watches a log: what it is told, and a way to stop. */
async function watch(shopId: string, logId: string) {
  const registered = new Promise((done) => live.of(shopId, logId).once('session-registered', done));
  const leave = new AbortController();
  const answer = await fetch(`${url}/${shopId}/${logId}`, { signal: leave.signal });
  await registered;
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  let heard = '';
  /** What was heard up to some words. */
  const until = async (words: string) => {
    while (!heard.includes(words)) {
      const { done, value } = await reader.read();
      if (done) throw new Error(`ended before “${words}”: ${heard}`);
      heard += value;
    }
    return heard;
  };
  return { until, leave: () => leave.abort() };
}
const held = (count: number) => ({ logId: 'a', held: count, lanes: {}, closedAtMs: null }) as never;

it('tells those who watch a log of a shop that it has grown, and nobody else', async () => {
  const [here, other, elsewhere] = [
    await watch('s', 'a'),
    await watch('s', 'b'),
    await watch('t', 'a'),
  ];
  live.grew('s', 'a', held(41));
  live.grew('s', 'b', held(42));
  live.grew('t', 'a', null);
  expect(await here.until('"held":41')).not.toContain('"held":42');
  expect(await other.until('"held":42')).not.toContain('"held":41');
  expect(await elsewhere.until('null')).not.toContain('held');
});

it('keeps one channel for all who watch, and lets it go with the last of them', async () => {
  const [one, two] = [await watch('s', 'a'), await watch('s', 'a')];
  const channel = live.of('s', 'a');
  expect(channel.sessionCount).toBe(2);
  const gone = () => new Promise((done) => channel.once('session-deregistered', done));
  let left = gone();
  one.leave();
  await left;
  expect(live.of('s', 'a')).toBe(channel);
  left = gone();
  two.leave();
  await left;
  expect(live.of('s', 'a')).not.toBe(channel);
});
