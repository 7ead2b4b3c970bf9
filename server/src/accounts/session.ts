import type { Me, Role } from '@keen-bleed/contract';
import { and, desc, eq, notInArray } from 'drizzle-orm';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import { promisify } from 'node:util';
import type { Bus } from '../bus/bus';
import type { Database, Db } from '../db/database';
import { sessions } from '../db/schema';
import { ApiError } from '../http/apiError';
import { MOST_DEVICES } from '../http/quotas';
import { deviceWords } from './deviceWords';
import { SessionStore } from './sessionStore';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    shopId: string;
    /** The browser in a few words. */
    device?: string;
    /** Who is behind it, read afresh with it; never kept in it. */
    me?: Me;
    /** When it was noted as in use last; read with it. */
    lastAtMs?: number;
  }
}

/** The cookie that carries a session's secret. */
export const SESSION_COOKIE = 'kb.sid';
const FOURTEEN_DAYS_MS = 14 * 86_400_000;

/** Server-side sessions in PostgreSQL behind one HttpOnly cookie. */
export function sessionMiddleware(
  { pool }: Pick<Database, 'pool'>,
  secret: string,
  secureCookie: boolean,
): RequestHandler {
  return session({
    name: SESSION_COOKIE,
    secret,
    resave: false,
    saveUninitialized: false,
    store: new SessionStore(pool),
    cookie: {
      httpOnly: true,
      sameSite: 'lax',
      secure: secureCookie,
      maxAge: FOURTEEN_DAYS_MS,
      path: '/',
    },
  });
}

/** Who is behind a request, read afresh with its session, so that a changed role counts at once. */
export function signedIn(request: Request): Me {
  const { me } = request.session;
  if (!me) throw new ApiError('not-signed-in', 'Sign in to go on.');
  return me;
}

/** Who is behind a request, where only some roles may do the thing asked. */
export function signedInAs(request: Request, allowed: readonly Role[]): Me {
  const me = signedIn(request);
  if (!allowed.includes(me.role)) {
    throw new ApiError('not-allowed', `A ${me.role} may not do this: ask a lead.`);
  }
  return me;
}

/**
 * Begins a session, with a new id each time, so that one planted beforehand is worth nothing.
 *
 * @returns who is behind it from now on
 */
export async function beginSession(
  request: Request,
  who: { shopId: string; personId: string },
): Promise<Me> {
  await promisify(request.session.regenerate.bind(request.session))();
  // The session object is another one from here on.
  request.session.shopId = who.shopId;
  request.session.personId = who.personId;
  request.session.device = deviceWords(request.get('user-agent') ?? '');
  await promisify(request.session.save.bind(request.session))();
  await promisify(request.session.reload.bind(request.session))();
  return signedIn(request);
}

/** Signs out the devices a person used longest ago, beyond those they may have. */
export async function endOldest(
  db: Db,
  { shopId, personId }: { shopId: string; personId: string },
): Promise<void> {
  const own = and(eq(sessions.shopId, shopId), eq(sessions.personId, personId));
  const kept = db
    .select({ sid: sessions.sid })
    .from(sessions)
    .where(own)
    .orderBy(desc(sessions.lastAt))
    .limit(MOST_DEVICES);
  await db.delete(sessions).where(and(own, notInArray(sessions.sid, kept)));
}

/** Ends the session of a request. */
export const endSession = async (request: Request): Promise<void> => {
  await promisify(request.session.destroy.bind(request.session))();
};

/** Ends every session of a person, on whatever device, and the streams that hang on them. */
export async function endSessionsOf(
  db: Db,
  bus: Bus,
  shopId: string,
  personId: string,
): Promise<void> {
  await db
    .delete(sessions)
    .where(and(eq(sessions.shopId, shopId), eq(sessions.personId, personId)));
  bus.tell('rights', { shopId, personId });
}
