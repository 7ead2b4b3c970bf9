import type { PedalCall, PedalStanding } from '@keen-bleed/contract';
import { createChannel, type Channel } from 'better-sse';
import type { Bus } from '../bus/bus';

/** What goes from server to server: a call, or the call that a helper's phone shows. */
type Said = { call: PedalCall; seq: number } | { heard: number };

interface Pedal {
  channel: Channel;
  call: PedalCall | null;
  seq: number;
  calledAtMs: number;
  heard: { seq: number; atMs: number } | null;
  /** Put away once nobody calls or listens any more. */
  touchedAtMs: number;
}

/** A pedal nobody called or listened to for so long is forgotten, ms. */
const FORGOTTEN_MS = 30 * 60_000;
/** A caller who has said nothing for so long has gone: the next one begins anew, ms. */
const GONE_MS = 10_000;

/**
 * What is called to whoever holds the pedal of a unit, and what the helper's phone shows of it. Nothing of it is kept:
 * it is said, heard and over.
 */
export class PedalCalls {
  private readonly pedals = new Map<string, Pedal>();

  /**
   * @param bus tells of what was said by way of other servers
   * @param nowMs the clock; a test brings its own
   */
  constructor(
    private readonly bus: Bus,
    private readonly nowMs: () => number = Date.now,
  ) {
    bus.on('pedal', ({ shopId, unitId, said }) => this.take(shopId, unitId, said as Said));
  }

  /** How many pedals are known. */
  get size(): number {
    return this.pedals.size;
  }

  /** Calls to the pedal, and says how that stands. A call older than the one that stands is not taken. */
  call(shopId: string, unitId: string, call: PedalCall, seq: number): PedalStanding {
    this.bus.tell('pedal', { shopId, unitId, said: { call, seq } satisfies Said });
    return this.standing(this.of(shopId, unitId));
  }

  private called(shopId: string, unitId: string, call: PedalCall, seq: number): void {
    const pedal = this.of(shopId, unitId);
    const now = this.nowMs();
    if (seq >= pedal.seq || now - pedal.calledAtMs > GONE_MS) {
      // What was shown of an earlier caller says nothing of this one.
      if (seq < pedal.seq) pedal.heard = null;
      pedal.call = call;
      pedal.seq = seq;
      pedal.calledAtMs = now;
    }
    pedal.channel.broadcast({ call: pedal.call, seq: pedal.seq }, 'call');
  }

  /** The helper's phone says which call it shows. */
  heard(shopId: string, unitId: string, seq: number): PedalStanding {
    this.bus.tell('pedal', { shopId, unitId, said: { heard: seq } satisfies Said });
    return this.standing(this.of(shopId, unitId));
  }

  /** Takes in what was said at this server or at another. */
  private take(shopId: string, unitId: string, said: Said): void {
    if ('heard' in said) {
      this.of(shopId, unitId).heard = { seq: said.heard, atMs: this.nowMs() };
    } else this.called(shopId, unitId, said.call, said.seq);
  }

  /** The stream of calls to a pedal, and what stands. */
  follow(shopId: string, unitId: string): { channel: Channel; standing: PedalStanding } {
    const pedal = this.of(shopId, unitId);
    return { channel: pedal.channel, standing: this.standing(pedal) };
  }

  private standing({ call, seq, heard }: Pedal): PedalStanding {
    return {
      call,
      seq,
      heard: heard
        ? { seq: heard.seq, agoMs: Math.max(0, Math.round(this.nowMs() - heard.atMs)) }
        : null,
    };
  }

  private of(shopId: string, unitId: string): Pedal {
    const now = this.nowMs();
    for (const [key, { channel, touchedAtMs }] of this.pedals) {
      if (channel.sessionCount === 0 && now - touchedAtMs > FORGOTTEN_MS) this.pedals.delete(key);
    }
    const key = `${shopId}/${unitId}`;
    const found = this.pedals.get(key) ?? {
      channel: createChannel(),
      call: null,
      seq: 0,
      calledAtMs: 0,
      heard: null,
      touchedAtMs: now,
    };
    found.touchedAtMs = now;
    this.pedals.set(key, found);
    return found;
  }
}
