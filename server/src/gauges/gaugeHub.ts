import type { RigUnderTest } from '@keen-bleed/core';
import { createChannel, type Channel } from 'better-sse';
import { seededRandom } from '../random/seededRandom';
import { GaugeSet, SAMPLE_MS } from './gaugeSet';

/** The gauge sets that are listened to; one for each unit, put away when the last listener has gone. */
export class GaugeHub {
  private readonly channels = new Map<string, Channel>();

  /** @param onTrouble told when a set broke; its listeners hear nothing more */
  constructor(private readonly onTrouble: (error: unknown) => void) {}

  /** How many sets are listened to. */
  get size(): number {
    return this.channels.size;
  }

  /** The stream of a unit's set, made at its first listener. */
  of(shopId: string, rig: RigUnderTest): Channel {
    const key = `${shopId}/${rig.unit.id}`;
    const found = this.channels.get(key);
    if (found) return found;
    const channel = createChannel();
    const set = new GaugeSet(rig, Date.now(), seededRandom(1));
    const putAway = () => {
      clearInterval(timer);
      this.channels.delete(key);
    };
    const timer = setInterval(() => {
      try {
        const samples = set.samplesTo(Date.now());
        if (samples.length > 0) channel.broadcast(samples, 'samples');
      } catch (error) {
        // A made-up rig that cannot be followed must not take the server with it: its set falls silent.
        this.onTrouble(error);
        putAway();
      }
    }, 2 * SAMPLE_MS);
    channel.on('session-deregistered', () => {
      if (channel.sessionCount === 0) putAway();
    });
    this.channels.set(key, channel);
    return channel;
  }
}
