import { createChannel, type Channel } from 'better-sse';

/**
 * Those who watch runs in progress on another device. A channel lives as long as somebody watches; nothing is
 * kept in it, a watcher reads the run first and then only hears that it has grown.
 */
export class LiveRuns {
  private readonly channels = new Map<string, Channel>();

  /** The channel of one run, made at its first watcher. */
  of(shopId: string, runId: string): Channel {
    const key = `${shopId}/${runId}`;
    const found = this.channels.get(key);
    if (found) return found;
    const channel = createChannel();
    channel.on('session-deregistered', () => {
      if (channel.sessionCount === 0) this.channels.delete(key);
    });
    this.channels.set(key, channel);
    return channel;
  }

  /** Tells the watchers of a run how far it has come. */
  grew(shopId: string, runId: string, lastSeq: number): void {
    this.channels.get(`${shopId}/${runId}`)?.broadcast({ lastSeq }, 'grew');
  }
}
