import type { Held } from '@keen-bleed/contract';
import { createChannel, type Channel } from 'better-sse';
import type { Bus } from '../bus/bus';

/**
 * Those who watch logs in progress on another device. A channel lives as long as somebody watches; nothing is
 * kept in it, a watcher reads the log first and then only hears that it has grown.
 */
export class LiveLogs {
  private readonly channels = new Map<string, Channel>();

  /** @param bus tells of what other servers took in */
  constructor(private readonly bus: Bus) {
    bus.on('grew', ({ shopId, logId, held }) => {
      this.channels.get(`${shopId}/${logId}`)?.broadcast(held, 'grew');
    });
    bus.onMissed(() => {
      for (const channel of this.channels.values()) channel.broadcast(null, 'grew');
    });
  }

  /** The channel of one log, made at its first watcher. */
  of(shopId: string, logId: string): Channel {
    const key = `${shopId}/${logId}`;
    const found = this.channels.get(key);
    if (found) return found;
    const channel = createChannel();
    channel.on('session-deregistered', () => {
      if (channel.sessionCount === 0) this.channels.delete(key);
    });
    this.channels.set(key, channel);
    return channel;
  }

  /** Tells the watchers of a log what is held of it; null where they have to ask. */
  grew(shopId: string, logId: string, held: Held | null): void {
    this.bus.tell('grew', { shopId, logId, held });
  }
}
