import { act, renderHook } from '@testing-library/react-native';
import { isLogOpen, useLogOpenHere } from './openHere';
import { oneAtATime, onLogChanged, tellTabs } from './tabs';

/** Locks as a browser keeps them for all its tabs: who holds which. */
class Locks {
  readonly held: { name: string }[] = [];
  readonly asked: string[] = [];

  async request<T>(name: string, ...rest: unknown[]): Promise<T> {
    const work = rest.at(-1) as () => Promise<T>;
    const lock = { name };
    this.asked.push(rest.length > 1 ? `${name} ${JSON.stringify(rest[0])}` : name);
    this.held.push(lock);
    try {
      return await work();
    } finally {
      this.held.splice(this.held.indexOf(lock), 1);
    }
  }

  query = () => Promise.resolve({ held: this.held });
}

let locks: Locks;
beforeEach(() => {
  locks = new Locks();
  Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
});
afterEach(() => {
  delete (navigator as { locks?: unknown }).locks;
});

describe('a log that is open on a screen', () => {
  it('is known to every tab for as long as its screen stands, and shares its lock', async () => {
    expect(await isLogOpen()).toBe(false);
    const one = renderHook(() => useLogOpenHere(true));
    const two = renderHook(() => useLogOpenHere(true));
    expect(locks.asked).toEqual(Array(2).fill('keen-bleed log open {"mode":"shared"}'));
    expect(await isLogOpen()).toBe(true);
    one.unmount();
    await act(() => Promise.resolve());
    expect(await isLogOpen()).toBe(true);
    two.unmount();
    await act(() => Promise.resolve());
    expect(await isLogOpen()).toBe(false);
  });

  it('is let go of once it is closed, and taken up where it is opened again', async () => {
    const screen = renderHook(({ isOpen }: { isOpen: boolean }) => useLogOpenHere(isOpen), {
      initialProps: { isOpen: true },
    });
    expect(await isLogOpen()).toBe(true);
    screen.rerender({ isOpen: false });
    await act(() => Promise.resolve());
    expect(await isLogOpen()).toBe(false);
    screen.rerender({ isOpen: true });
    expect(await isLogOpen()).toBe(true);
    screen.unmount();
  });

  it('is not mistaken for another lock, and not known to a browser without any', async () => {
    locks.held.push({ name: 'something else' });
    expect(await isLogOpen()).toBe(false);
    delete (navigator as { locks?: unknown }).locks;
    const screen = renderHook(() => useLogOpenHere(true));
    expect(await isLogOpen()).toBe(false);
    screen.unmount();
  });
});

describe('a log that changed', () => {
  it('calls who listens to it, until they stop, and nobody of another', () => {
    const [one, two, other] = [jest.fn(), jest.fn(), jest.fn()];
    const stop = onLogChanged('a', one);
    onLogChanged('a', two);
    onLogChanged('b', other);
    tellTabs('a');
    stop();
    tellTabs('a');
    expect([one, two, other].map(({ mock }) => mock.calls.length)).toEqual([1, 2, 0]);
  });

  it('may take a listener off while it is told', () => {
    const seen: string[] = [];
    const stop = onLogChanged('c', () => {
      seen.push('first');
      stop();
    });
    onLogChanged('c', () => seen.push('second'));
    tellTabs('c');
    tellTabs('c');
    expect(seen).toEqual(['first', 'second', 'second']);
  });
});

it('one thing at a time is done under its name, with locks or without', async () => {
  expect(await oneAtATime('sending', () => Promise.resolve(7))).toBe(7);
  expect(locks.asked).toEqual(['sending']);
  delete (navigator as { locks?: unknown }).locks;
  expect(await oneAtATime('sending', () => Promise.resolve(8))).toBe(8);
});
