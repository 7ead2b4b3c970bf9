import type { Role, RuleSet, RunFact, RunHeader, Unit, UnitDraft } from '@keen-bleed/contract';
import { CORE_VERSION, newUnitDraft, roadTest, RUN_VERSION, runMade } from '@keen-bleed/core';
import Ajv from 'ajv';
import addFormats from 'ajv-formats';
import type { Express } from 'express';
import pg from 'pg';
import pino from 'pino';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { hashPassword } from '../accounts/password';
import { openDatabase, type Database } from '../db/database';
import { prepareDatabase } from '../db/leastRights';
import { people, ruleSetRevisions, ruleSets, shops } from '../db/schema';
import { makeApp } from '../app';
import { SuspectTables } from '../suspects/suspectTables';
import { DEFAULT_QUOTAS, type Quotas } from '../http/quotas';
import type { AnswerCheck } from '../http/route';

/** A database of its own for one test file, with the application over it. */
export interface TestShop {
  app: Express;
  database: Database;
  url: string;
  /** With the rights of the tables' owner. */
  ownerUrl: string;
  /** Everything the server logged. */
  logged: string[];
  close: () => Promise<void>;
}

const PASSWORD = 'one-for-all-tests';
export const TEST_SECRET = 'tests only';

/** An empty database of its own beside the one TEST_DATABASE_URL names. */
export async function openEmptyDatabase(): Promise<{ database: Database; url: string }> {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error('TEST_DATABASE_URL is not set: run these through `npm test`');
  const name = `t_${uuidv7().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name}`);
  await admin.end();
  const url = base.replace(/\/[^/]*$/, `/${name}`);
  return { database: openDatabase(url, () => undefined), url };
}

/** The application over a database. */
export function testApp(
  database: Database,
  logged: string[] = [],
  signInTries = 1000,
  tables: SuspectTables = neverReady(),
  quotas: Quotas = DEFAULT_QUOTAS,
): Express {
  return makeApp({
    database,
    tables,
    log: pino({}, { write: (line: string) => void logged.push(line) }),
    sessionSecret: TEST_SECRET,
    secureCookie: false,
    trustedProxies: null,
    signInTries,
    quotas,
    webFolder: null,
    onAnswer: holdToShape,
  });
}

/** Tables that are worked out for as long as a test goes on. */
const neverReady = () =>
  new SuspectTables(() => ({ table: new Promise(() => undefined), stop: () => undefined }));

/** Makes a database of its own with the tables of today, and an application over it with the rights it has in use. */
export async function openTestShop({
  signInTries = 1000,
  quotas = DEFAULT_QUOTAS,
} = {}): Promise<TestShop> {
  const empty = await openEmptyDatabase();
  await empty.database.close();
  const url = await prepareDatabase(empty.url, TEST_SECRET);
  const database = openDatabase(url, () => undefined);
  const logged: string[] = [];
  const app = testApp(database, logged, signInTries, neverReady(), quotas);
  return { app, database, url, ownerUrl: empty.url, logged, close: () => database.close() };
}

const ajv = new Ajv({ discriminator: true, strict: false });
addFormats(ajv, ['uuid']);

/** Every answer of a route in a test has the shape the route says it has. */
const holdToShape: AnswerCheck = ({ method, path, answers }, body) => {
  if (typeof answers === 'string') return;
  const plain = JSON.parse(JSON.stringify(body)) as unknown;
  if (ajv.validate(answers, plain)) return;
  throw new Error(`${method} ${path} answers otherwise than it says: ${ajv.errorsText()}`);
};

/** What the server answers to what it does not take. */
export interface Refusal {
  code: string;
  message: string;
  fields?: { field: string; message: string }[];
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
  const { id, revision, draft, ...ofShop } = shortRuleSetRow(shopId);
  await database.db.insert(ruleSets).values({ id, revision, draft, ...ofShop });
  await database.db
    .insert(ruleSetRevisions)
    .values({ shopId, ruleSetId: id, revision: revision ?? 1, draft });
  const ids = { lead: uuidv7(), technician: uuidv7(), viewer: uuidv7() };
  const names = { lead: `${tag}-lead`, technician: `${tag}-tech`, viewer: `${tag}-viewer` };
  const signIn = async (role: Role) => {
    await database.db
      .insert(people)
      .values({ shopId, id: ids[role], name: role, signInName: names[role], role, passwordHash });
    return signedInAgent(app, names[role]);
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

/** Somebody signed in by their name. */
export async function signedInAgent(app: Express, signInName: string): Promise<Agent> {
  const agent = request.agent(app);
  await agent.post('/api/sign-in').send({ signInName, password: PASSWORD }).expect(200);
  return agent;
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

/** When the runs of these tests are made: 2025-10-09T08:53:20Z. */
export const STARTED_MS = 1_760_000_000_000;

/** The header of a run of a unit, by the short rule set. */
export function runHeader(unit: Unit, towed: Unit[] = []): RunHeader {
  return {
    id: uuidv7(),
    kind: 'run',
    v: RUN_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: STARTED_MS,
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: runMade({ unit, towed, ruleSet: shortRuleSet, leftOut: ['drain'] }),
  };
}

/** What a fact says, by its kind and what goes with that. */
export type Said = Record<string, unknown> & { kind: RunFact['kind'] };

/** Facts of one lane, each so many seconds after the one before it. */
export function laneOf(
  said: readonly [waitS: number, fact: Said][],
  {
    lane = uuidv7(),
    startMs = STARTED_MS,
    offsetMs = 0,
  }: { lane?: string; startMs?: number; offsetMs?: number | null } = {},
): RunFact[] {
  let atMs = startMs;
  return said.map(([waitS, fact], index) => {
    atMs += waitS * 1000;
    return {
      id: uuidv7(),
      lane,
      seq: index + 1,
      atMs,
      offsetMs,
      v: RUN_VERSION,
      ...fact,
    } as RunFact;
  });
}

/** What a 2-psi dial and a limit of 2 psi/min ask for. */
const HELD_S = 225;

/** A whole healthy run: ready, build-up in 28 s, 126 out, 106 in, and `lossPsi` lost a minute, as long as is asked. */
export function wholeRun(lossPsi = 1, options: Parameters<typeof laneOf>[1] = {}): RunFact[] {
  const mark = (
    stepId: string,
    key: string,
    readingPsi: number,
    method: 'read' | 'crossing' = 'read',
  ): Said => ({ kind: 'mark', stepId, key, readingPsi, resolutionPsi: 1, method });
  return laneOf(
    [
      [5, { kind: 'ready', stepId: 'prepare', gauge: 'primary' }],
      [5, mark('build-up', 'from', 85, 'crossing')],
      [28, mark('build-up', 'to', 100, 'crossing')],
      [30, mark('cut-out', 'cut-out', 126)],
      [30, mark('cut-in', 'cut-in', 106)],
      [60, mark('static-hold', 'settle', 120)],
      [120, mark('static-hold', 'start', 120)],
      [HELD_S, mark('static-hold', 'end', 120 - (lossPsi * HELD_S) / 60)],
      [5, { kind: 'close', how: 'complete' }],
    ],
    options,
  );
}

/** Facts as they were sent, out of facts as they are read back. */
export const unreceived = <F extends { receivedAtMs?: number }>(facts: readonly F[]) =>
  facts.map(({ receivedAtMs: _receivedAtMs, ...fact }) => fact);
