import type { RigUnderTest } from '@keen-bleed/core';
import { createChannel, type Channel } from 'better-sse';
import type { Bus } from '../bus/bus';
import { seededRandom } from '../random/seededRandom';
import { GaugeSet, SAMPLE_MS } from './gaugeSet';

/** A set says this often that it runs, so that the other servers’ listeners join in; and counts as gone after that, ms. */
const SAID_EVERY_MS = 5_000;
const GONE_AFTER_MS = 12_000;
/** Most of a set's time that is gone through at once where it was switched on elsewhere before, ms. */
const CATCHES_UP_MS = 5_000;

/**
 * The gauge sets that are listened to; one for each unit, put away when the last listener has gone. What a set shows
 * follows from when it was switched on, so servers tell each other that and show the same.
 */
export class GaugeHub {
  private readonly channels = new Map<string, Channel>();
  private readonly elsewhere = new Map<string, { startedMs: number; heardMs: number }>();

  /**
   * @param onTrouble told when a set broke; its listeners hear nothing more
   * @param bus tells of sets that other servers run
   */
  constructor(
    private readonly onTrouble: (error: unknown) => void,
    private readonly bus: Bus,
  ) {
    bus.on('gauges', ({ shopId, unitId, startedMs }) => {
      this.elsewhere.set(`${shopId}/${unitId}`, { startedMs, heardMs: Date.now() });
    });
  }

  /** How many sets are listened to. */
  get size(): number {
    return this.channels.size;
  }

  /** The stream of a unit's set, made at its first listener. */
  of(shopId: string, rig: RigUnderTest): Channel {
    const unitId = rig.unit.id;
    const key = `${shopId}/${unitId}`;
    const found = this.channels.get(key);
    if (found) return found;
    const channel = createChannel();
    const startedMs = this.startedElsewhere(key) ?? Date.now();
    const set = new GaugeSet(rig, startedMs, seededRandom(1));
    let reachedMs = startedMs;
    let saidMs = 0;
    const putAway = () => {
      clearInterval(timer);
      this.channels.delete(key);
      this.elsewhere.delete(key);
    };
    const tick = () => {
      const now = Date.now();
      if (now - saidMs > SAID_EVERY_MS) {
        saidMs = now;
        this.bus.tell('gauges', { shopId, unitId, startedMs });
      }
      const isBehind = now - reachedMs > CATCHES_UP_MS;
      reachedMs = isBehind ? reachedMs + CATCHES_UP_MS : now;
      const samples = set.samplesTo(reachedMs);
      // What went before is nobody's any more.
      if (samples.length > 0 && !isBehind) channel.broadcast(samples, 'samples');
    };
    const timer = setInterval(() => {
      try {
        tick();
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

  private startedElsewhere(key: string): number | null {
    const said = this.elsewhere.get(key);
    return said && Date.now() - said.heardMs < GONE_AFTER_MS ? said.startedMs : null;
  }
}
