import type { RigUnderTest } from '@keen-bleed/core';
import { createChannel, type Channel } from 'better-sse';
import { seededRandom } from '../demo/seededRandom';
import { GaugeSet, SAMPLE_MS } from './gaugeSet';

/** The gauge sets that are listened to; one for each unit, put away when the last listener has gone. */
export class GaugeHub {
  private readonly channels = new Map<string, Channel>();

  /** The stream of a unit's set, made at its first listener. */
  of(shopId: string, rig: RigUnderTest): Channel {
    const key = `${shopId}/${rig.unit.id}`;
    const found = this.channels.get(key);
    if (found) return found;
    const channel = createChannel();
    const set = new GaugeSet(rig, Date.now(), seededRandom(1));
    const timer = setInterval(() => {
      const samples = set.samplesTo(Date.now());
      if (samples.length > 0) channel.broadcast(samples, 'samples');
    }, 2 * SAMPLE_MS);
    channel.on('session-deregistered', () => {
      if (channel.sessionCount > 0) return;
      clearInterval(timer);
      this.channels.delete(key);
    });
    this.channels.set(key, channel);
    return channel;
  }
}
