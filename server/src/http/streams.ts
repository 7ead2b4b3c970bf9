import { ALIVE_EVERY_MS, type Me } from '@keen-bleed/contract';
import { createSession, type DefaultSessionState, type Session } from 'better-sse';
import type { Request, Response } from 'express';
import type pg from 'pg';
import type { Bus } from '../bus/bus';

/** Sessions that end by themselves are looked for this often, ms. */
const LOOKED_EVERY_MS = 60_000;

interface Open {
  shopId: string;
  personId: string;
  sid: string;
  /** Null until it has begun. */
  session: Session<DefaultSessionState> | null;
  end: () => void;
}

/**
 * Streams of events that are open, each with whose right it hangs on. When that changes its streams are ended; a page
 * that may still follow asks again by itself.
 */
export class Streams {
  private readonly open = new Set<Open>();

  /**
   * @param bus tells of rights that changed, here or on another server
   * @param pool asked now and then which sessions have ended by themselves
   */
  constructor(
    bus: Bus,
    private readonly pool: pg.Pool,
  ) {
    setInterval(() => void this.endIdle().catch(() => undefined), LOOKED_EVERY_MS).unref();
    setInterval(() => this.tellAlive(), ALIVE_EVERY_MS).unref();
    bus.on('rights', ({ shopId, personId, sid }) => {
      for (const each of [...this.open]) {
        const isTheirs = each.shopId === shopId && each.personId === personId;
        if (isTheirs && (sid === undefined || sid === each.sid)) each.end();
      }
    });
  }

  /** Ends the streams whose sessions are over: lain idle too long, run out, or taken away in the database. */
  async endIdle(): Promise<void> {
    const sids = [...new Set([...this.open].map(({ sid }) => sid))];
    if (sids.length === 0) return;
    const { rows } = await this.pool.query<{ sid: string }>(
      `select s.sid from sessions s
       join people p on p.shop_id = s.shop_id and p.id = s.person_id and p.active
       join shops h on h.id = s.shop_id
       where s.sid = any($1) and s.expire > now() and s.last_at > now() - h.idle_minutes * interval '1 minute'`,
      [sids],
    );
    const alive = new Set(rows.map(({ sid }) => sid));
    for (const each of [...this.open]) if (!alive.has(each.sid)) each.end();
  }

  /** Tells every stream that this server is still there: one that vanished without a word tells nothing. */
  tellAlive(): void {
    for (const { session } of this.open) if (session?.isConnected) session.push(null, 'alive');
  }

  /** How many are open. */
  get size(): number {
    return this.open.size;
  }

  /** Opens a stream for whoever asks. */
  async start(me: Me, request: Request, response: Response): Promise<Session<DefaultSessionState>> {
    const each: Open = {
      shopId: me.shopId,
      personId: me.personId,
      sid: request.sessionID,
      session: null,
      end: () => response.end(),
    };
    this.open.add(each);
    response.once('close', () => this.open.delete(each));
    each.session = await createSession(request, response);
    return each.session;
  }
}
