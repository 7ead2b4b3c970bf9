import { MeSchema, SetUpSchema, type Me } from '@keen-bleed/contract';
import { and, eq, sql } from 'drizzle-orm';
import type { Request } from 'express';
import { addressKey } from './addressKey';
import { timingSafeEqual } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { keepAudit } from '../audit/keepAudit';
import type { Db } from '../db/database';
import { people, shops } from '../db/schema';
import { ApiError } from '../http/apiError';
import { fieldError } from '../http/fieldError';
import { route, type Route } from '../http/route';
import type { Accounts } from './accounts';
import { refuseGuessable } from './guessable';
import { Limit, tried, type Counted } from './limits';
import { hashPassword, passwordFits } from './password';
import { codeFits, hasFactor } from './secondFactor';
import { beginSession, endOldest, endSession, SESSION_COOKIE } from './session';
import { anyShop, mayMakeFirstShop } from '../db/firstShop';
import { knownZone } from './zone';

/** A shop's whole network stands behind one address, and many addresses behind one name. */
const WIDER = 5;
/** People of one name whose passwords are compared; with more shops than that the shop's name is asked for. */
const MOST_ALIKE = 5;

/** The first account, sign-in and sign-out. */
export function signInRoutes(accounts: Accounts): Route[] {
  const { db, pool, bus, devices, signInTries, setUpCode } = accounts;
  // By name and device: whoever tries a name elsewhere does not lock its owner out of their own phone.
  const perName = new Limit(pool, 'name', signInTries);
  const perNameElsewhere = new Limit(pool, 'elsewhere', signInTries * WIDER);
  const perAddress = new Limit(pool, 'address', signInTries * WIDER);

  /** How a try on a name counts: a whole shop stands behind one address, and its own devices are known. */
  const countedFor = (request: Request, signInName: string): Counted => {
    const name = signInName.trim().toLowerCase();
    const device = devices.idFor(request, name);
    const address = addressKey(request.ip ?? '');
    if (device !== null) return [[perName, `${name} device ${device}`]];
    return [
      [perAddress, address],
      // Many addresses together are no way round it.
      [perNameElsewhere, name],
      [perName, `${name} address ${address}`],
    ];
  };

  return [
    route({
      method: 'get',
      path: '/set-up',
      who: 'anybody',
      body: null,
      query: null,
      answers: SetUpSchema,
      does: async () => {
        const needsFirstLead = !(await anyShop(db));
        return { body: { needsFirstLead, needsCode: needsFirstLead && setUpCode !== null } };
      },
    }),
    route({
      method: 'post',
      path: '/set-up',
      who: 'anybody',
      body: 'firstLead',
      query: null,
      answers: MeSchema,
      does: async ({ body: first, request }) => {
        // Making a password's hash is dear: nobody has it made who is told no anyway.
        if (await anyShop(db)) throw alreadySetUp();
        const address = addressKey(request.ip ?? '');
        const me = await tried([[perAddress, address]], async () => {
          if (setUpCode !== null && !sameCode(first.code ?? '', setUpCode)) {
            throw fieldError(
              'code',
              'This is not the set-up code: it is printed where the server was started.',
            );
          }
          const timeZone = knownZone(first.timeZone);
          refuseGuessable(first.password, [first.name, first.signInName, first.shopName]);
          const passwordHash = await hashPassword(first.password);
          const ids = { shopId: uuidv7(), personId: uuidv7() };
          await db.transaction(async (tx) => {
            if (!(await mayMakeFirstShop(tx))) throw alreadySetUp();
            await tx.insert(shops).values({ id: ids.shopId, name: first.shopName, timeZone });
            await tx.insert(people).values({
              shopId: ids.shopId,
              id: ids.personId,
              name: first.name,
              signInName: first.signInName,
              role: 'lead',
              passwordHash,
            });
            const doer = { me: { ...ids, name: first.name }, request };
            await keepAudit(tx, doer, 'person-added', `${first.name}, lead, the first account`);
          });
          return beginSession(request, ids);
        });
        return { status: 201, body: me };
      },
    }),
    route({
      method: 'post',
      path: '/sign-in',
      who: 'anybody',
      body: 'signIn',
      query: null,
      answers: MeSchema,
      does: async ({ body, request, response }) => {
        const entered = await tried(countedFor(request, body.signInName), async () => {
          const person = await whoFits(db, body.signInName, body.password, body.shop);
          if (person === 'which-shop') return person;
          if (person === null) {
            // Not waited for: how long an answer takes must not tell whether a name exists.
            void keepRefused(db, request, body.signInName).catch(() => undefined);
            throw new ApiError('wrong-sign-in', 'Name and password do not fit together.');
          }
          if (await hasFactor(db, person)) {
            if (body.code === undefined) return 'code-wanted';
            if (!(await codeFits(accounts, person, body.code))) {
              await keepAudit(db, { me: person, request }, 'refused', 'right password, wrong code');
              throw new ApiError('wrong-sign-in', 'This code is not right, or was used before.', [
                { field: 'code', message: 'Wait for the next code, or take a spare one.' },
              ]);
            }
          }
          return person;
        });
        if (entered === 'which-shop') {
          throw new ApiError('which-shop', 'This name is known in more than one shop: name yours.');
        }
        if (entered === 'code-wanted') {
          throw new ApiError('code-wanted', 'Give the code from your app, or a spare one.');
        }
        const me: Me = await beginSession(request, entered);
        await endOldest(db, me);
        devices.remember(request, response, body.signInName);
        await keepAudit(db, { me, request }, 'signed-in', request.session.device ?? '');
        return { body: me };
      },
    }),
    route({
      method: 'post',
      path: '/sign-out',
      who: 'anybody',
      body: null,
      query: null,
      answers: 'nothing',
      does: async ({ request, response }) => {
        const { me } = request.session;
        const sid = request.sessionID;
        await endSession(request);
        if (me) {
          bus.tell('rights', { shopId: me.shopId, personId: me.personId, sid });
          await keepAudit(db, { me, request }, 'signed-out', '');
        }
        response.clearCookie(SESSION_COOKIE, { path: '/' });
      },
    }),
  ];
}

const alreadySetUp = () =>
  new ApiError('already-set-up', 'This installation has its first account already: sign in.');

/** Compares codes as they are typed by hand, in the same time whatever is right of them. */
function sameCode(given: string, right: string): boolean {
  const [a, b] = [given, right].map((code) =>
    Buffer.from(
      code
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, '')
        .padEnd(32)
        .slice(0, 32),
    ),
  );
  return a !== undefined && b !== undefined && timingSafeEqual(a, b);
}

interface Entering {
  shopId: string;
  personId: string;
  name: string;
}

/** Whose name and password these are. Two shops may know the same name: mostly the password tells them apart. */
async function whoFits(
  db: Db,
  signInName: string,
  password: string,
  shop: string | undefined,
): Promise<Entering | null | 'which-shop'> {
  const alike = await db
    .select({
      shopId: people.shopId,
      personId: people.id,
      name: people.name,
      hash: people.passwordHash,
    })
    .from(people)
    .innerJoin(shops, eq(shops.id, people.shopId))
    .where(
      and(
        sql`lower(${people.signInName}) = lower(${signInName.trim()})`,
        eq(people.active, true),
        shop === undefined ? undefined : sql`lower(${shops.name}) = lower(${shop.trim()})`,
      ),
    )
    .limit(MOST_ALIKE + 1);
  if (alike.length > MOST_ALIKE) return 'which-shop';
  if (alike.length === 0) {
    await passwordFits(null, password);
    return null;
  }
  const fitting: Entering[] = [];
  for (const { hash, ...person } of alike) {
    if (await passwordFits(hash, password)) fitting.push(person);
  }
  return fitting.length > 1 ? 'which-shop' : (fitting[0] ?? null);
}

/** Keeps that somebody was refused, where the name is one of a single shop's. */
async function keepRefused(db: Db, request: Request, signInName: string): Promise<void> {
  const known = await db
    .select({ shopId: people.shopId, name: people.name })
    .from(people)
    .where(sql`lower(${people.signInName}) = lower(${signInName.trim()})`)
    .limit(2);
  const [only] = known;
  if (!only || known.length > 1) return;
  const doer = { me: { shopId: only.shopId, personId: null, name: 'somebody' }, request };
  await keepAudit(db, doer, 'refused', `as ${only.name}`);
}
