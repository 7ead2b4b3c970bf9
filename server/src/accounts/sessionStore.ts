import type { Me } from '@keen-bleed/contract';
import { Store, type SessionData } from 'express-session';
import type pg from 'pg';
import { v7 as uuidv7 } from 'uuid';

/** A session that is in use is noted as such at most this often, ms. */
const NOTED_EVERY_MS = 60_000;
/** Sessions that have ended are cleared away this often, ms. */
const CLEARED_EVERY_MS = 15 * 60_000;

/**
 * Who is behind a session: its own row, the person and the shop, in one statement that each connection prepares once.
 * What has ended, lain idle too long, or belongs to somebody who was let go is not found.
 */
const WHO_IS = {
  name: 'who-is',
  text: `
    select s.sess, s.last_at, p.id as "personId", p.shop_id as "shopId", p.name, p.sign_in_name as "signInName", p.role,
      h.name as "shopName", h.time_zone as "timeZone", h.demo, h.senses, h.idle_minutes as "idleMinutes",
      exists (
        select from second_factors f
        where f.shop_id = s.shop_id and f.person_id = s.person_id and f.confirmed_at is not null
      ) as "secondFactor"
    from sessions s
    join people p on p.shop_id = s.shop_id and p.id = s.person_id and p.active
    join shops h on h.id = s.shop_id
    where s.sid = $1 and s.expire > now() and s.last_at > now() - h.idle_minutes * interval '1 minute'`,
} as const;

type Row = Me & { sess: SessionData; last_at: Date };

/** Sessions in PostgreSQL, where every server of an installation finds them. */
export class SessionStore extends Store {
  private readonly clearing: NodeJS.Timeout;

  constructor(private readonly pool: pg.Pool) {
    super();
    this.clearing = setInterval(
      () => void this.clearEnded().catch(() => undefined),
      CLEARED_EVERY_MS,
    );
    this.clearing.unref();
  }

  /** Reads a session with who is behind it, as `me` beside what is kept. */
  override get(sid: string, told: (error: unknown, session?: SessionData | null) => void): void {
    this.pool.query<Row>({ ...WHO_IS, values: [sid] }).then(
      ({ rows: [row] }) => {
        if (!row) return told(null, null);
        const { sess, last_at: lastAt, ...me } = row;
        told(null, { ...sess, me, lastAtMs: lastAt.getTime() });
      },
      (error: unknown) => told(error),
    );
  }

  /** Keeps a session that somebody signed in on; one without a person is not kept. */
  override set(
    sid: string,
    session: SessionData,
    told: (error?: unknown) => void = () => undefined,
  ): void {
    const { me: _me, lastAtMs: _lastAtMs, ...kept } = session;
    if (!kept.shopId || !kept.personId) return told();
    const endsAt = kept.cookie.expires
      ? new Date(kept.cookie.expires)
      : new Date(Date.now() + DAY_MS);
    this.pool
      .query(
        `insert into sessions (sid, id, shop_id, person_id, sess, expire, device) values ($1, $2, $3, $4, $5, $6, $7)
         on conflict (sid) do update set sess = excluded.sess, expire = excluded.expire`,
        [sid, uuidv7(), kept.shopId, kept.personId, kept, endsAt, kept.device ?? ''],
      )
      .then(
        () => told(),
        (error: unknown) => told(error),
      );
  }

  override destroy(sid: string, told: (error?: unknown) => void = () => undefined): void {
    this.pool.query('delete from sessions where sid = $1', [sid]).then(
      () => told(),
      (error: unknown) => told(error),
    );
  }

  /** Notes that a session is in use, now and then and without holding the answer up: idle ones end. */
  override touch(sid: string, session: SessionData, told: () => void = () => undefined): void {
    if (Date.now() - (session.lastAtMs ?? 0) > NOTED_EVERY_MS) {
      this.pool
        .query('update sessions set last_at = now() where sid = $1', [sid])
        .catch(() => undefined);
    }
    told();
  }

  private async clearEnded(): Promise<void> {
    await this.pool.query('delete from sessions where expire < now()');
  }
}

const DAY_MS = 86_400_000;
