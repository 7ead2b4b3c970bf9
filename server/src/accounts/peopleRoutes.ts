import {
  MeSchema,
  PeopleSchema,
  PersonSchema,
  type EditPerson,
  type Person,
} from '@keen-bleed/contract';
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm';
import { keepAudit, type Doer } from '../audit/keepAudit';
import type { Db } from '../db/database';
import { people, secondFactors, shops } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { takenIndex } from '../http/errorHandler';
import { fieldError } from '../http/fieldError';
import { oneAtATime, requireRoom } from '../http/quotas';
import { LEADS, READERS, route, type Route } from '../http/route';
import type { Accounts } from './accounts';
import { refuseGuessable } from './guessable';
import { hashPassword } from './password';
import { dropFactor } from './secondFactor';
import { endSessionsOf } from './session';
import { knownZone } from './zone';

/** What a shop says of itself, and its people. */
export function peopleRoutes({ db, bus, quotas }: Accounts): Route[] {
  return [
    route({
      method: 'patch',
      path: '/shop',
      who: LEADS,
      body: 'editShop',
      query: null,
      answers: MeSchema,
      does: async ({ me, body: { timeZone, ...edit }, request }) => {
        const [row] = await db.transaction(async (tx) => {
          await keepAudit(
            tx,
            { me, request },
            'shop',
            Object.keys({ ...edit, ...(timeZone === undefined ? {} : { timeZone }) }).join(', '),
          );
          return tx
            .update(shops)
            .set({ ...edit, ...(timeZone === undefined ? {} : { timeZone: knownZone(timeZone) }) })
            .where(eq(shops.id, me.shopId))
            .returning();
        });
        if (!row) throw notFound('shop');
        const { name: shopName, timeZone: zone, demo, senses, idleMinutes } = row;
        return { body: { ...me, shopName, timeZone: zone, demo, senses, idleMinutes } };
      },
    }),
    route({
      method: 'get',
      path: '/people',
      who: READERS,
      body: null,
      query: null,
      answers: PeopleSchema,
      does: async ({ me }) => ({ body: await listed(db, me.shopId) }),
    }),
    route({
      method: 'post',
      path: '/people',
      who: LEADS,
      body: 'createPerson',
      query: null,
      answers: PersonSchema,
      does: async ({ me, body: { password, ...person }, request }) => {
        refuseGuessable(password, [person.name, person.signInName, me.shopName]);
        const passwordHash = await hashPassword(password);
        try {
          await db.transaction(async (tx) => {
            await oneAtATime(tx, me.shopId);
            requireRoom(quotas, 'people', await tx.$count(people, eq(people.shopId, me.shopId)));
            await tx.insert(people).values({ shopId: me.shopId, ...person, passwordHash });
            await keepAudit(
              tx,
              { me, request },
              'person-added',
              `${person.name}, ${person.role}, signs in as ${person.signInName}`,
            );
          });
        } catch (error) {
          if (takenIndex(error) === null) throw error;
          throw new ApiError('name-taken', 'This sign-in name is taken.', [
            {
              field: 'signInName',
              message: `“${person.signInName}” is taken: choose another.`,
            },
          ]);
        }
        return { status: 201, body: await onePerson(db, me.shopId, person.id) };
      },
    }),
    route({
      method: 'patch',
      path: '/people/:id',
      who: LEADS,
      body: 'editPerson',
      query: null,
      answers: PersonSchema,
      does: async ({ me, id: pathId, body: edit, request }) => {
        const id = pathId('id', 'person');
        if (id === me.personId) refuseOwn(edit);
        const before = await onePerson(db, me.shopId, id);
        if (edit.password) {
          refuseGuessable(edit.password, [before.name, before.signInName, me.shopName]);
        }
        const passwordHash = edit.password ? await hashPassword(edit.password) : null;
        await db.transaction(async (tx) => {
          await requireStillLead(tx, me);
          const change = {
            ...(edit.role ? { role: edit.role } : {}),
            ...(edit.active === undefined ? {} : { active: edit.active }),
            ...(passwordHash === null ? {} : { passwordHash }),
          };
          if (Object.keys(change).length > 0) {
            await tx
              .update(people)
              .set(change)
              .where(and(eq(people.shopId, me.shopId), eq(people.id, id)));
          }
          if (edit.secondFactor === false)
            await dropFactor(tx, { shopId: me.shopId, personId: id });
          await keepEdit(tx, { me, request }, before, edit);
        });
        // A changed role counts at the next request; streams are asked for again, by those who still may.
        if ((edit.active === false || edit.password) && id !== me.personId) {
          await endSessionsOf(db, bus, me.shopId, id);
        } else if (edit.role) {
          bus.tell('rights', { shopId: me.shopId, personId: id });
        }
        return { body: await onePerson(db, me.shopId, id) };
      },
    }),
  ];
}

/** What nobody may do to their own account here. */
function refuseOwn(edit: EditPerson): void {
  if (edit.active === false || (edit.role && edit.role !== 'lead')) {
    throw new ApiError(
      'not-right',
      'You cannot take the lead away from yourself: another lead can.',
    );
  }
  if (edit.password) {
    throw fieldError('password', 'Your own password is changed under Shop, with the old one.');
  }
  if (edit.secondFactor === false) {
    throw fieldError(
      'secondFactor',
      'Your own codes are turned off under Shop, with your password.',
    );
  }
}

/** One at a time in a shop: two leads who take the lead from each other at once would leave it without one. */
async function requireStillLead(
  tx: Pick<Db, 'select'>,
  me: { shopId: string; personId: string },
): Promise<void> {
  await tx.select({ id: shops.id }).from(shops).where(eq(shops.id, me.shopId)).for('no key update');
  const [asking] = await tx
    .select({ role: people.role, active: people.active })
    .from(people)
    .where(and(eq(people.shopId, me.shopId), eq(people.id, me.personId)));
  if (!asking?.active || asking.role !== 'lead') {
    throw new ApiError('not-allowed', 'You are no longer a lead of this shop.');
  }
}

async function keepEdit(
  tx: Pick<Db, 'insert'>,
  doer: Doer,
  before: Person,
  edit: EditPerson,
): Promise<void> {
  if (edit.role)
    await keepAudit(tx, doer, 'role', `${before.name}: ${before.role} to ${edit.role}`);
  if (edit.active !== undefined) {
    await keepAudit(tx, doer, edit.active ? 'activated' : 'deactivated', before.name);
  }
  if (edit.password) await keepAudit(tx, doer, 'password', `${before.name}’s`);
  if (edit.secondFactor === false) {
    await keepAudit(tx, doer, 'second-factor', `${before.name}’s turned off`);
  }
}

const select = (db: Db) =>
  db
    .select({
      id: people.id,
      name: people.name,
      signInName: people.signInName,
      role: people.role,
      active: people.active,
      secondFactor: sql<boolean>`${secondFactors.personId} is not null`,
    })
    .from(people)
    .leftJoin(
      secondFactors,
      and(
        eq(secondFactors.shopId, people.shopId),
        eq(secondFactors.personId, people.id),
        isNotNull(secondFactors.confirmedAt),
      ),
    );

const listed = (db: Db, shopId: string): Promise<Person[]> =>
  select(db).where(eq(people.shopId, shopId)).orderBy(asc(people.name));

async function onePerson(db: Db, shopId: string, id: string): Promise<Person> {
  const [person] = await select(db).where(and(eq(people.shopId, shopId), eq(people.id, id)));
  if (!person) throw notFound('person');
  return person;
}
