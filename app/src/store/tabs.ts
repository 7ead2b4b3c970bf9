/** Tabs of one device share a store; each tells the others which log it has written in. */
const channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel('keen-bleed-logs') : null;
// Where a channel holds a whole process up, as outside a browser, it must not.
(channel as { unref?: () => void } | null)?.unref?.();
const listeners = new Map<string, Set<() => void>>();

channel?.addEventListener('message', (event: MessageEvent<string>) => heard(event.data));

function heard(logId: string): void {
  for (const listener of [...(listeners.get(logId) ?? [])]) listener();
}

/**
 * Tells the other tabs that a log has grown in the store: this one knows what it wrote. They are told a moment later,
 * when this one has drawn it.
 */
export function tellOtherTabs(logId: string): void {
  if (channel) setTimeout(() => channel.postMessage(logId));
}

/** Tells this tab and the others that a log has changed in the store. */
export function tellTabs(logId: string): void {
  tellOtherTabs(logId);
  heard(logId);
}

/** Calls when a log changes in the store, in whatever tab. */
export function onLogChanged(logId: string, listener: () => void): () => void {
  const some = listeners.get(logId) ?? new Set();
  listeners.set(logId, some.add(listener));
  return () => {
    some.delete(listener);
    if (some.size === 0) listeners.delete(logId);
  };
}

/** Does one thing at a time under a name, among all tabs where the browser has locks. */
export async function oneAtATime<T>(name: string, work: () => Promise<T>): Promise<T> {
  if (!('locks' in navigator)) return work();
  return await navigator.locks.request(name, work);
}
