import type { SentSample } from '@keen-bleed/contract';
import { act, renderHook } from '@testing-library/react-native';
import { useLinkedGauge } from './useLinkedGauge';

/** A stream that says what a test has it say. */
class FakeSource {
  static last: FakeSource;
  closed = false;
  private readonly listeners = new Map<string, (event: { data: string }) => void>();
  constructor(readonly url: string) {
    FakeSource.last = this;
  }
  addEventListener(name: string, listener: (event: { data: string }) => void): void {
    this.listeners.set(name, listener);
  }
  close(): void {
    this.closed = true;
  }
  say(name: string, data: unknown = null): void {
    act(() => this.listeners.get(name)?.({ data: JSON.stringify(data) }));
  }
}

/** The sender's clock is this far behind the device's, ms. */
const BEHIND_MS = 5_000;
const sample = (seq: number, psi: number, change: Partial<SentSample> = {}): SentSample => ({
  channel: 'primary',
  seq,
  atMs: Date.now() - BEHIND_MS,
  sentAtMs: Date.now() - BEHIND_MS,
  psi,
  battery: 0.6,
  ...change,
});
const pass = (ms: number) => act(() => jest.advanceTimersByTime(ms));

beforeEach(() => {
  // The library's own clean-up waits by the others.
  jest.useFakeTimers({
    now: 1_760_000_000_000,
    doNotFake: ['setImmediate', 'setTimeout', 'queueMicrotask', 'nextTick'],
  });
  Object.assign(globalThis, { EventSource: FakeSource });
});
afterEach(() => jest.useRealTimers());

describe('a linked gauge set', () => {
  const link = () => renderHook(() => useLinkedGauge('unit-1', 'primary'));

  it('is not followed until it is wanted', () => {
    const { result } = renderHook(() => useLinkedGauge(null, 'primary'));
    expect(result.current).toBeNull();
  });

  it('reads its own channel, by the clock of this device', () => {
    const { result } = link();
    expect(FakeSource.last.url).toBe('/api/v1/units/unit-1/gauges/live');
    pass(500);
    FakeSource.last.say('samples', [sample(1, 84.26), sample(1, 99, { channel: 'secondary' })]);
    pass(500);
    expect(result.current?.gauge.psi).toBe(84.3);
    expect(result.current?.gauge.log).toHaveLength(1);
    expect(result.current?.gauge.log[0]?.atMs).toBe(Date.now() - 500);
    expect(result.current?.said).toBe('simulated gauge set linked');
  });

  it('takes what comes twice once, and what comes late in its place', () => {
    const { result } = link();
    const [first, second, third] = [sample(1, 80), sample(2, 81), sample(3, 82)];
    const at = (each: SentSample, n: number) => ({ ...each, atMs: each.atMs + 100 * n });
    FakeSource.last.say('samples', [at(first, 0), at(third, 2), at(third, 2)]);
    FakeSource.last.say('samples', [at(second, 1)]);
    expect(result.current?.gauge.log.map((each) => each.psi)).toEqual([80, 81, 82]);
  });

  it('says that it is silent, out of reach, or low, and shows no needle that is not there', () => {
    const { result } = link();
    FakeSource.last.say('samples', [sample(1, 90, { battery: 0.1 })]);
    pass(500);
    expect(result.current?.said).toBe('simulated gauge set linked, battery low');
    pass(2_000);
    expect(result.current?.said).toBe('simulated gauge set silent, battery low');
    expect(result.current?.gauge.psi).toBeNull();
    FakeSource.last.say('error');
    expect(result.current?.said).toBe('simulated gauge set out of reach, battery low');
  });

  it('is let go with the screen', () => {
    const { unmount } = link();
    unmount();
    expect(FakeSource.last.closed).toBe(true);
  });
});
