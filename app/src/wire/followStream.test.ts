import { followStream } from './followStream';
import type { StreamPath } from './routes';

const PATH = '/api/v1/logs/a/live';

/** A browser's stream of events, opened and ended by hand. */
class FakeSource extends EventTarget {
  static readonly CLOSED = 2;
  static made: FakeSource[] = [];
  readyState = 1;

  constructor(readonly path: string) {
    super();
    FakeSource.made.push(this);
  }

  says(name: string, data: string): void {
    this.dispatchEvent(new MessageEvent(name, { data }));
  }

  /** The network went: the browser itself goes on trying. */
  stumbles(): void {
    this.readyState = 0;
    this.dispatchEvent(new Event('error'));
  }

  /** The server answered something else than a stream: the browser gives up. */
  isTurnedAway(): void {
    this.readyState = FakeSource.CLOSED;
    this.dispatchEvent(new Event('error'));
  }

  close(): void {
    this.readyState = FakeSource.CLOSED;
  }
}

const made = () => FakeSource.made;
const last = () => FakeSource.made.at(-1)!;
beforeEach(() => {
  jest.useFakeTimers();
  FakeSource.made = [];
  (globalThis as { EventSource?: unknown }).EventSource = FakeSource;
});
afterEach(() => jest.useRealTimers());

it('hands on what is said under each name', () => {
  const heard: string[] = [];
  followStream(PATH, { grew: (data) => heard.push(data) });
  last().says('grew', 'one');
  last().says('other', 'not asked for');
  last().says('grew', 'two');
  expect(last().path).toBe(PATH);
  expect(heard).toEqual(['one', 'two']);
});

it('asks again where it was turned away, longer each time, and hears what comes then', () => {
  const heard: string[] = [];
  followStream(PATH, { grew: (data) => heard.push(data) });
  for (const waitMs of [1_000, 2_000, 4_000, 8_000, 15_000, 15_000]) {
    const before = made().length;
    last().isTurnedAway();
    jest.advanceTimersByTime(waitMs - 1);
    expect(made()).toHaveLength(before);
    jest.advanceTimersByTime(1);
    expect(made()).toHaveLength(before + 1);
  }
  last().says('grew', 'at last');
  expect(heard).toEqual(['at last']);
});

it('begins with short waits again once it was let in', () => {
  followStream(PATH, {});
  last().isTurnedAway();
  jest.advanceTimersByTime(1_000);
  last().isTurnedAway();
  jest.advanceTimersByTime(2_000);
  last().dispatchEvent(new Event('open'));
  last().isTurnedAway();
  jest.advanceTimersByTime(1_000);
  expect(made()).toHaveLength(4);
});

it('leaves it to the browser where only the network went, and says so', () => {
  let away = 0;
  followStream(PATH, {}, () => (away += 1));
  last().stumbles();
  jest.advanceTimersByTime(60_000);
  expect(made()).toHaveLength(1);
  expect(away).toBe(1);
});

it('ends for good, also while it waits', () => {
  const stop = followStream(PATH, {});
  stop();
  expect(last().readyState).toBe(FakeSource.CLOSED);
  const another = followStream(PATH, {});
  last().isTurnedAway();
  another();
  jest.advanceTimersByTime(60_000);
  expect(made()).toHaveLength(2);
});

it('asks anew where a server that told it is there tells no more', () => {
  const heard: string[] = [];
  let away = 0;
  const stop = followStream(PATH, { grew: (data) => heard.push(data) }, () => (away += 1));
  // One that never tells is an older one: it is left alone.
  jest.advanceTimersByTime(600_000);
  expect(made()).toHaveLength(1);
  for (let told = 0; told < 10; told += 1) {
    last().says('alive', 'null');
    jest.advanceTimersByTime(44_999);
  }
  expect(made()).toHaveLength(1);
  const gone = last();
  jest.advanceTimersByTime(1);
  expect(gone.readyState).toBe(FakeSource.CLOSED);
  expect(made()).toHaveLength(2);
  expect(away).toBe(1);
  last().says('grew', 'from another');
  expect(heard).toEqual(['from another']);
  // Where the browser itself has noticed, nothing is asked for twice; and nothing once it is over.
  last().says('alive', 'null');
  last().stumbles();
  jest.advanceTimersByTime(600_000);
  expect(made()).toHaveLength(2);
  last().says('alive', 'null');
  stop();
  jest.advanceTimersByTime(600_000);
  expect(made()).toHaveLength(2);
});

it('follows only what the server has a stream of: the types hold it', () => {
  const has = <P extends string>(_: P, is: P extends StreamPath ? true : false) => is;
  expect([
    has(PATH, true),
    has('/api/v1/units/a/gauges/live', true),
    has('/api/v1/yard/live', false),
    has('/api/v1/logs/a', false),
    has('/logs/a/live', false),
  ]).toEqual([true, true, false, false, false]);
});
