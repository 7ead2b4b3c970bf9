import {
  DeviceSessionsSchema,
  FactorOfferSchema,
  MeSchema,
  SpareCodesSchema,
} from '@keen-bleed/contract';
import { and, desc, eq, gt } from 'drizzle-orm';
import { keepAudit } from '../audit/keepAudit';
import { people, sessions } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { fieldError } from '../http/fieldError';
import { READERS, route, type Route } from '../http/route';
import type { Accounts } from './accounts';
import { refuseGuessable } from './guessable';
import { Limit, tried } from './limits';
import { hashPassword, passwordFits } from './password';
import {
  codeFits,
  confirmFactor,
  dropFactor,
  hasFactor,
  makeSpareCodes,
  offerFactor,
} from './secondFactor';
import { beginSession, endSessionsOf, SESSION_COOKIE } from './session';

/** One's own account: who one is, password, second factor, and the devices one is signed in on. */
export function meRoutes(accounts: Accounts): Route[] {
  const { db, pool, bus, signInTries } = accounts;
  const perPerson = new Limit(pool, 'person', signInTries);

  /** Holds a password to a person's own; whoever borrows an open phone does not try them out. */
  const requireOwn = (
    { shopId, personId }: { shopId: string; personId: string },
    password: string,
    field: string,
  ) =>
    tried([[perPerson, personId]], async () => {
      const [person] = await db
        .select({ hash: people.passwordHash })
        .from(people)
        .where(and(eq(people.shopId, shopId), eq(people.id, personId)));
      if (!(await passwordFits(person?.hash ?? null, password))) {
        throw fieldError(field, 'This is not your password now.');
      }
    });

  return [
    route({
      method: 'get',
      path: '/me',
      who: READERS,
      body: null,
      query: null,
      answers: MeSchema,
      does: ({ me }) => Promise.resolve({ body: me }),
    }),
    route({
      method: 'post',
      path: '/me/password',
      who: READERS,
      body: 'changePassword',
      query: null,
      answers: MeSchema,
      does: async ({ me, body: { old, password }, request }) => {
        await requireOwn(me, old, 'old');
        refuseGuessable(password, [me.name, me.signInName, me.shopName]);
        const passwordHash = await hashPassword(password);
        await db.transaction(async (tx) => {
          await tx
            .update(people)
            .set({ passwordHash })
            .where(and(eq(people.shopId, me.shopId), eq(people.id, me.personId)));
          await keepAudit(tx, { me, request }, 'password', 'their own');
        });
        // Whoever else is in with the old one is out; this device goes on.
        await endSessionsOf(db, bus, me.shopId, me.personId);
        return { body: await beginSession(request, me) };
      },
    }),
    route({
      method: 'post',
      path: '/me/second-factor',
      who: READERS,
      body: 'ownPassword',
      query: null,
      answers: FactorOfferSchema,
      does: async ({ me, body }) => {
        await requireOwn(me, body.password, 'password');
        if (await hasFactor(db, me)) {
          throw new ApiError('not-right', 'Codes are on already: turn them off first.');
        }
        return { body: await offerFactor(accounts, me, me.signInName) };
      },
    }),
    route({
      method: 'post',
      path: '/me/second-factor/confirm',
      who: READERS,
      body: 'confirmCode',
      query: null,
      answers: SpareCodesSchema,
      does: async ({ me, body: { code }, request }) => {
        if (await hasFactor(db, me)) throw new ApiError('not-right', 'Codes are on already.');
        await tried([[perPerson, me.personId]], async () => {
          if (!(await codeFits(accounts, me, code))) {
            throw fieldError('code', 'This is not the code now: take the next one.');
          }
        });
        // Before the transaction: it would hold a connection for as long as eight slow hashes take.
        const spare = await makeSpareCodes(me);
        await db.transaction(async (tx) => {
          await keepAudit(tx, { me, request }, 'second-factor', 'turned on');
          await confirmFactor(tx, me, spare);
        });
        return { body: { spare: spare.codes } };
      },
    }),
    route({
      method: 'post',
      path: '/me/second-factor/off',
      who: READERS,
      body: 'ownPassword',
      query: null,
      answers: 'nothing',
      does: async ({ me, body, request }) => {
        await requireOwn(me, body.password, 'password');
        await db.transaction(async (tx) => {
          await dropFactor(tx, me);
          await keepAudit(tx, { me, request }, 'second-factor', 'turned off');
        });
      },
    }),
    route({
      method: 'get',
      path: '/me/sessions',
      who: READERS,
      body: null,
      query: null,
      answers: DeviceSessionsSchema,
      does: async ({ me, request }) => {
        const now = Date.now();
        const rows = await db
          .select()
          .from(sessions)
          .where(
            and(
              eq(sessions.shopId, me.shopId),
              eq(sessions.personId, me.personId),
              gt(sessions.expire, new Date(now)),
              gt(sessions.lastAt, new Date(now - me.idleMinutes * 60_000)),
            ),
          )
          .orderBy(desc(sessions.lastAt));
        return {
          body: rows.map(({ id, sid, device, createdAt, lastAt }) => ({
            id,
            device,
            signedInAtMs: createdAt.getTime(),
            lastAtMs: lastAt.getTime(),
            isThis: sid === request.sessionID,
          })),
        };
      },
    }),
    route({
      method: 'delete',
      path: '/me/sessions/:id',
      who: READERS,
      body: null,
      query: null,
      answers: 'nothing',
      does: async ({ me, id, request }) => {
        const [ended] = await db
          .delete(sessions)
          .where(
            and(
              eq(sessions.shopId, me.shopId),
              eq(sessions.personId, me.personId),
              eq(sessions.id, id('id', 'device')),
            ),
          )
          .returning({ sid: sessions.sid, device: sessions.device });
        if (!ended) throw notFound('device');
        bus.tell('rights', { shopId: me.shopId, personId: me.personId, sid: ended.sid });
        await keepAudit(db, { me, request }, 'session-ended', ended.device);
      },
    }),
    route({
      method: 'post',
      path: '/sign-out-everywhere',
      who: READERS,
      body: null,
      query: null,
      answers: 'nothing',
      does: async ({ me, request, response }) => {
        await endSessionsOf(db, bus, me.shopId, me.personId);
        await keepAudit(db, { me, request }, 'session-ended', 'all devices');
        response.clearCookie(SESSION_COOKIE, { path: '/' });
      },
    }),
  ];
}
