import type { Person } from '@keen-bleed/contract';
import { and, asc, eq, sql } from 'drizzle-orm';
import { Router, type Request } from 'express';
import { promisify } from 'node:util';
import rateLimit, { ipKeyGenerator } from 'express-rate-limit';
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '../db/database';
import { people, shops } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { checkedBody, pathId } from '../http/checked';
import { takenIndex } from '../http/errorHandler';
import { refuseGuessable } from './guessable';
import type { KnownDevice } from './knownDevice';
import { hashPassword, passwordFits } from './password';
import { endSessionsOf, signedIn, signedInAs } from './session';

const QUARTER_HOUR_MS = 15 * 60_000;
/** Guards the making of the first account against two requests at once; any fixed number does. */
const FIRST_ACCOUNT_LOCK = 710_121;

const personFields = {
  id: people.id,
  name: people.name,
  signInName: people.signInName,
  role: people.role,
  active: people.active,
};

/** Sign-in, sign-out, the first account, and the people of a shop. */
export function accountRoutes(db: Db, signInTries: number, devices: KnownDevice): Router {
  const router = Router();

  const tooMany = () => {
    throw new ApiError(
      'too-many-tries',
      'Too many tries. Wait a quarter of an hour, then try again.',
    );
  };
  const slowed = {
    windowMs: QUARTER_HOUR_MS,
    standardHeaders: false,
    legacyHeaders: false,
  } as const;
  // By name and device: whoever tries a name elsewhere does not lock its owner out of their own phone.
  const perName = rateLimit({
    ...slowed,
    limit: signInTries,
    skipSuccessfulRequests: true,
    keyGenerator: (request) => {
      const name = triedName(request);
      const device = devices.idFor(request, name);
      return device === null
        ? `name:${name} address:${ipKeyGenerator(request.ip ?? '')}`
        : `name:${name} device:${device}`;
    },
    handler: tooMany,
  });
  // Many addresses together are no way round it.
  const perNameElsewhere = rateLimit({
    ...slowed,
    limit: signInTries * 5,
    skipSuccessfulRequests: true,
    skip: (request) => devices.idFor(request, triedName(request)) !== null,
    keyGenerator: (request) => `name:${triedName(request)}`,
    handler: tooMany,
  });
  const perPerson = rateLimit({
    ...slowed,
    limit: signInTries,
    skipSuccessfulRequests: true,
    keyGenerator: (request) => `person:${request.session.personId ?? ''}`,
    handler: tooMany,
  });
  const perAddress = rateLimit({
    ...slowed,
    limit: signInTries * 5,
    skipSuccessfulRequests: true,
    // A whole shop stands behind one address: whoever tries names there does not lock out its own devices.
    skip: (request) => devices.idFor(request, triedName(request)) !== null,
    keyGenerator: (request) => `address:${ipKeyGenerator(request.ip ?? '')}`,
    handler: tooMany,
  });

  router.get('/set-up', async (_request, response) => {
    response.json({ needsFirstLead: !(await anyShop(db)) });
  });

  router.post('/set-up', perAddress, async (request, response) => {
    const first = checkedBody('firstLead', request);
    // Making a password's hash is dear: nobody has it made who is told no anyway.
    if (await anyShop(db)) throw alreadySetUp();
    const timeZone = knownZone(first.timeZone);
    refuseGuessable(first.password, [first.name, first.signInName, first.shopName]);
    const passwordHash = await hashPassword(first.password);
    const ids = { shopId: uuidv7(), personId: uuidv7() };
    await db.transaction(async (tx) => {
      await tx.execute(sql`select pg_advisory_xact_lock(${FIRST_ACCOUNT_LOCK})`);
      if (await anyShop(tx)) {
        throw alreadySetUp();
      }
      await tx.insert(shops).values({ id: ids.shopId, name: first.shopName, timeZone });
      await tx.insert(people).values({
        shopId: ids.shopId,
        id: ids.personId,
        name: first.name,
        signInName: first.signInName,
        role: 'lead',
        passwordHash,
      });
    });
    await startSession(request, ids);
    response.status(201).json(await signedIn(db, request));
  });

  router.post('/sign-in', perAddress, perNameElsewhere, perName, async (request, response) => {
    const { signInName, password } = checkedBody('signIn', request);
    const [person] = await db
      .select({
        shopId: people.shopId,
        personId: people.id,
        hash: people.passwordHash,
      })
      .from(people)
      .where(and(sql`lower(${people.signInName}) = lower(${signInName})`, eq(people.active, true)));
    if (!(await passwordFits(person?.hash ?? null, password)) || !person) {
      throw new ApiError('wrong-sign-in', 'Name and password do not fit together.');
    }
    await startSession(request, person);
    devices.remember(request, response, signInName);
    response.json(await signedIn(db, request));
  });

  router.post('/me/password', perPerson, async (request, response) => {
    const me = await signedIn(db, request);
    const { old, password } = checkedBody('changePassword', request);
    const own = and(eq(people.shopId, me.shopId), eq(people.id, me.personId));
    const [person] = await db.select({ hash: people.passwordHash }).from(people).where(own);
    if (!(await passwordFits(person?.hash ?? null, old))) {
      const message = 'This is not your password now.';
      throw new ApiError('not-right', message, [{ field: 'old', message }]);
    }
    refuseGuessable(password, [me.name, me.signInName, me.shopName]);
    await db
      .update(people)
      .set({ passwordHash: await hashPassword(password) })
      .where(own);
    // Whoever else is in with the old one is out; this device goes on.
    await endSessionsOf(db, me.shopId, me.personId);
    await startSession(request, me);
    response.json(await signedIn(db, request));
  });

  router.post('/sign-out', async (request, response) => {
    await promisify(request.session.destroy.bind(request.session))();
    response.clearCookie('kb.sid', { path: '/' }).status(204).end();
  });

  router.post('/sign-out-everywhere', async (request, response) => {
    const me = await signedIn(db, request);
    await endSessionsOf(db, me.shopId, me.personId);
    response.clearCookie('kb.sid', { path: '/' }).status(204).end();
  });

  router.get('/me', async (request, response) => {
    response.json(await signedIn(db, request));
  });

  router.patch('/shop', async (request, response) => {
    const me = await signedInAs(db, request, 'lead');
    const { timeZone, ...edit } = checkedBody('editShop', request);
    await db
      .update(shops)
      .set({ ...edit, ...(timeZone === undefined ? {} : { timeZone: knownZone(timeZone) }) })
      .where(eq(shops.id, me.shopId));
    response.json(await signedIn(db, request));
  });

  router.get('/people', async (request, response) => {
    const me = await signedIn(db, request);
    const rows: Person[] = await db
      .select(personFields)
      .from(people)
      .where(eq(people.shopId, me.shopId))
      .orderBy(asc(people.name));
    response.json(rows);
  });

  router.post('/people', async (request, response) => {
    const me = await signedInAs(db, request, 'lead');
    const { password, ...person } = checkedBody('createPerson', request);
    refuseGuessable(password, [person.name, person.signInName, me.shopName]);
    const passwordHash = await hashPassword(password);
    try {
      const [made] = await db
        .insert(people)
        .values({ shopId: me.shopId, ...person, passwordHash })
        .returning(personFields);
      response.status(201).json(made);
    } catch (error) {
      throw takenIndex(error) === null
        ? error
        : new ApiError('name-taken', 'This sign-in name is taken.', [
            {
              field: 'signInName',
              message: `“${person.signInName}” is taken: choose another.`,
            },
          ]);
    }
  });

  router.patch('/people/:id', async (request, response) => {
    const me = await signedInAs(db, request, 'lead');
    const id = pathId(request, 'id', 'person');
    const edit = checkedBody('editPerson', request);
    if (id === me.personId && (edit.active === false || (edit.role && edit.role !== 'lead'))) {
      throw new ApiError(
        'not-right',
        'You cannot take the lead away from yourself: another lead can.',
      );
    }
    if (edit.password && id === me.personId) {
      throw new ApiError(
        'not-right',
        'Your own password is changed under Shop, with the old one.',
        [{ field: 'password', message: 'Change your own under Shop, with the old one.' }],
      );
    }
    if (edit.password) {
      const [of] = await db
        .select({ name: people.name, signInName: people.signInName })
        .from(people)
        .where(and(eq(people.shopId, me.shopId), eq(people.id, id)));
      refuseGuessable(edit.password, [of?.name ?? '', of?.signInName ?? '', me.shopName]);
    }
    const passwordHash = edit.password ? await hashPassword(edit.password) : null;
    const [edited] = await db.transaction(async (tx) => {
      // One at a time in a shop: two leads who take the lead from each other at once would leave it without one.
      await tx
        .select({ id: shops.id })
        .from(shops)
        .where(eq(shops.id, me.shopId))
        .for('no key update');
      const [asking] = await tx
        .select({ role: people.role, active: people.active })
        .from(people)
        .where(and(eq(people.shopId, me.shopId), eq(people.id, me.personId)));
      if (!asking?.active || asking.role !== 'lead') {
        throw new ApiError('not-allowed', 'You are no longer a lead of this shop.');
      }
      return await tx
        .update(people)
        .set({
          ...(edit.role ? { role: edit.role } : {}),
          ...(edit.active === undefined ? {} : { active: edit.active }),
          ...(passwordHash === null ? {} : { passwordHash }),
        })
        .where(and(eq(people.shopId, me.shopId), eq(people.id, id)))
        .returning(personFields);
    });
    if (!edited) throw notFound('person');
    if ((edit.active === false || edit.password) && id !== me.personId) {
      await endSessionsOf(db, me.shopId, id);
    }
    response.json(edited);
  });

  return router;
}

const alreadySetUp = () =>
  new ApiError('already-set-up', 'This installation has its first account already: sign in.');

/** A zone by its IANA name, as the product knows it. */
function knownZone(zone = 'UTC'): string {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    const message = `“${zone}” is no time zone: give one such as Europe/London.`;
    throw new ApiError('not-right', message, [{ field: 'timeZone', message }]);
  }
}

function triedName(request: Request): string {
  const name = (request.body as { signInName?: unknown } | undefined)?.signInName;
  return typeof name === 'string' ? name.trim().toLowerCase().slice(0, 40) : '';
}

async function anyShop(db: Pick<Db, 'select'>): Promise<boolean> {
  const rows = await db.select({ id: shops.id }).from(shops).limit(1);
  return rows.length > 0;
}

/** A new session id at every sign-in, so that one planted beforehand is worth nothing. */
async function startSession(
  request: Request,
  who: { shopId: string; personId: string },
): Promise<void> {
  await promisify(request.session.regenerate.bind(request.session))();
  // The session object is another one from here on.
  request.session.shopId = who.shopId;
  request.session.personId = who.personId;
  await promisify(request.session.save.bind(request.session))();
}
