import type { Me, Role } from '@keen-bleed/contract';
import connectPgSimple from 'connect-pg-simple';
import { and, eq, sql } from 'drizzle-orm';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type { Database, Db } from '../db/database';
import { people, sessions, shops } from '../db/schema';
import { ApiError } from '../http/apiError';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    shopId: string;
  }
}

const FOURTEEN_DAYS_MS = 14 * 86_400_000;

/** Server-side sessions in PostgreSQL behind one HttpOnly cookie. */
export function sessionMiddleware(
  database: Database,
  secret: string,
  secureCookie: boolean,
): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'kb.sid',
    secret,
    resave: false,
    saveUninitialized: false,
    store: new Store({
      pool: database.pool,
      tableName: 'sessions',
      pruneSessionInterval: 900,
      disableTouch: true,
      // The store's own console noise would carry database messages; failures reach the error handler.
      errorLog: () => undefined,
    }),
    cookie: {
      httpOnly: true,
      sameSite: 'lax',
      secure: secureCookie,
      maxAge: FOURTEEN_DAYS_MS,
      path: '/',
    },
  });
}

/** Who is behind a request, read afresh each time so that a changed role counts at once. */
export async function signedIn(db: Db, request: Request): Promise<Me> {
  const { personId, shopId } = request.session;
  const [found] =
    personId && shopId
      ? await db
          .select({
            personId: people.id,
            shopId: people.shopId,
            name: people.name,
            signInName: people.signInName,
            role: people.role,
            shopName: shops.name,
            timeZone: shops.timeZone,
            demo: shops.demo,
            senses: shops.senses,
          })
          .from(people)
          .innerJoin(shops, eq(shops.id, people.shopId))
          .where(and(eq(people.shopId, shopId), eq(people.id, personId), eq(people.active, true)))
      : [];
  if (!found) throw new ApiError('not-signed-in', 'Sign in to go on.');
  return found;
}

/** Who is behind a request, where only some roles may do the thing asked. */
export async function signedInAs(db: Db, request: Request, ...allowed: Role[]): Promise<Me> {
  const me = await signedIn(db, request);
  if (!allowed.includes(me.role)) {
    throw new ApiError('not-allowed', `A ${me.role} may not do this: ask a lead.`);
  }
  return me;
}

/** Ends every session of a person, on whatever device. */
export async function endSessionsOf(db: Db, shopId: string, personId: string): Promise<void> {
  await db
    .delete(sessions)
    .where(
      sql`${sessions.sess}->>'shopId' = ${shopId} and ${sessions.sess}->>'personId' = ${personId}`,
    );
}
