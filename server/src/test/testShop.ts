import type { OpenRun, Role, RuleSet, RunEvent, Unit, UnitDraft } from '@keen-bleed/contract';
import { newUnitDraft, roadTest } from '@keen-bleed/core';
import type { Express } from 'express';
import pg from 'pg';
import pino from 'pino';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { hashPassword } from '../accounts/password';
import { migrateDatabase, openDatabase, type Database } from '../db/database';
import { people, ruleSets, shops } from '../db/schema';
import { makeApp } from '../http/app';

/** A database of its own for one test file, with the application over it. */
export interface TestShop {
  app: Express;
  database: Database;
  url: string;
  /** Everything the server logged. */
  logged: string[];
  close: () => Promise<void>;
}

const PASSWORD = 'one-for-all-tests';

/** Makes a database beside the one TEST_DATABASE_URL names, and an application over it. */
export async function openTestShop({ signInTries = 1000 } = {}): Promise<TestShop> {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error('TEST_DATABASE_URL is not set: run these through `npm test`');
  const name = `t_${uuidv7().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name}`);
  await admin.end();
  const url = base.replace(/\/[^/]*$/, `/${name}`);
  const database = openDatabase(url, () => undefined);
  await migrateDatabase(database);
  const logged: string[] = [];
  const log = pino({}, { write: (line: string) => void logged.push(line) });
  const app = makeApp({
    database,
    log,
    sessionSecret: 'tests only',
    secureCookie: false,
    signInTries,
    webFolder: null,
  });
  return { app, database, url, logged, close: () => database.close() };
}

export type Agent = ReturnType<typeof request.agent>;

/** A shop's own rule set with the governor and the static hold alone, so that a whole run is short. */
export const shortRuleSet: RuleSet = {
  ...roadTest,
  id: '018f0000-0000-7000-8000-0000000000aa',
  basedOn: roadTest.id,
  title: 'Governor and leak',
  steps: ['prepare', 'charge', 'build-up', 'cut-out', 'cut-in', 'static-hold'].map((stepId) => ({
    stepId,
    need: 'must',
  })),
};

/** The row that keeps {@link shortRuleSet} for a shop. */
export function shortRuleSetRow(shopId: string): typeof ruleSets.$inferInsert {
  const { id, revision, basedOn: _basedOn, ...draft } = shortRuleSet;
  return { shopId, id, revision, basedOn: roadTest.id, draft };
}

/** A shop with one person of each role, each signed in. */
export interface Staff {
  shopId: string;
  lead: Agent;
  technician: Agent;
  viewer: Agent;
  ids: Record<Role, string>;
  names: Record<Role, string>;
}

/** Makes a shop with its people and signs them in. */
export async function makeStaff({ app, database }: TestShop, tag: string): Promise<Staff> {
  const shopId = uuidv7();
  const passwordHash = await hashPassword(PASSWORD);
  await database.db.insert(shops).values({ id: shopId, name: `Shop ${tag}` });
  await database.db.insert(ruleSets).values(shortRuleSetRow(shopId));
  const ids = { lead: uuidv7(), technician: uuidv7(), viewer: uuidv7() };
  const names = { lead: `${tag}-lead`, technician: `${tag}-tech`, viewer: `${tag}-viewer` };
  const signIn = async (role: Role) => {
    await database.db
      .insert(people)
      .values({ shopId, id: ids[role], name: role, signInName: names[role], role, passwordHash });
    const agent = request.agent(app);
    await agent
      .post('/api/sign-in')
      .send({ signInName: names[role], password: PASSWORD })
      .expect(200);
    return agent;
  };
  return {
    shopId,
    ids,
    names,
    lead: await signIn('lead'),
    technician: await signIn('technician'),
    viewer: await signIn('viewer'),
  };
}

export const testPassword = PASSWORD;

/** A truck's draft with a number. */
export function truckDraft(number: string, change: Partial<UnitDraft> = {}): UnitDraft {
  return { ...newUnitDraft('truck', 2015), number, name: 'Tipper', ...change };
}

/** Adds a unit; gives it as the server answered it. */
export async function addUnit(agent: Agent, draft: UnitDraft): Promise<Unit> {
  const response = await agent.post('/api/units').send({ id: uuidv7(), draft }).expect(201);
  return response.body as Unit;
}

/** Adds a truck; gives the unit as the server answered it. */
export const addTruck = (agent: Agent, number: string): Promise<Unit> =>
  addUnit(agent, truckDraft(number));

/** The header of a run of a unit, by the short rule set. */
export function runHeader(unit: Unit): OpenRun {
  return {
    id: uuidv7(),
    unitId: unit.id,
    rigId: null,
    startedAtMs: 1_760_000_000_000,
    unit,
    towed: [],
    ruleSet: shortRuleSet,
    leftOut: ['drain'],
  };
}

/** A whole healthy run: ready, build-up in 28 s, 126 out, 106 in, and `lossPsi` lost in a minute. */
export function wholeRun(lossPsi = 1): RunEvent[] {
  let atMs = 1_760_000_000_000;
  const mark = (
    stepId: string,
    key: string,
    readingPsi: number,
    method: 'read' | 'crossing' = 'read',
  ) => ({
    kind: 'mark' as const,
    stepId,
    key,
    readingPsi,
    resolutionPsi: 1,
    method,
  });
  const steps: [number, object][] = [
    [5, { kind: 'ready', stepId: 'prepare', gauge: 'primary' }],
    [5, mark('build-up', 'from', 85, 'crossing')],
    [28, mark('build-up', 'to', 100, 'crossing')],
    [30, mark('cut-out', 'cut-out', 126)],
    [30, mark('cut-in', 'cut-in', 106)],
    [60, mark('static-hold', 'start', 120)],
    [60, mark('static-hold', 'end', 120 - lossPsi)],
    [5, { kind: 'close', how: 'complete' }],
  ];
  return steps.map(([waitS, fact], index) => {
    atMs += waitS * 1000;
    return { id: uuidv7(), seq: index + 1, atMs, ...fact } as RunEvent;
  });
}
