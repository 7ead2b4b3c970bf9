import type {
  AuditedAct,
  Figure,
  LogKindName,
  OpenFailure,
  RuleSetDraft,
  RunRowFigure,
  Senses,
  UnitDraft,
  Verdict,
} from '@keen-bleed/contract';
import type { JobBoard } from '@keen-bleed/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

/* The shop leads every key, so that rows of one shop stand together and no query can forget it. */

export const shops = pgTable('shops', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  /** The rule set a new run takes when none is picked; null for the one that ships as default. */
  ruleSetId: text('rule_set_id'),
  /** IANA name of the zone its times are said in. */
  timeZone: text('time_zone').notNull().default('UTC'),
  /** Whether made-up sources may be used in runs that are kept. */
  demo: boolean('demo').notNull().default(false),
  /** What ears, soap and eyes get wrong here; null for the house's figures. */
  senses: jsonb('senses').$type<Senses>(),
  /** A session that is not used for so long ends, minutes. */
  idleMinutes: integer('idle_minutes').notNull().default(4320),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
});

export const people = pgTable(
  'people',
  {
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shops.id),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    signInName: text('sign_in_name').notNull(),
    role: text('role', { enum: ['technician', 'lead', 'viewer'] }).notNull(),
    passwordHash: text('password_hash').notNull(),
    active: boolean('active').notNull().default(true),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    uniqueIndex('people_name').on(t.shopId, sql`lower(${t.signInName})`),
    // Sign-in asks for a name before it knows the shop; the password tells which, where two shops have the name.
    index('people_by_name').on(sql`lower(${t.signInName})`),
  ],
);

/** The second factor of a lead: what codes are made from, and spare codes for the day the phone is gone. */
export const secondFactors = pgTable(
  'second_factors',
  {
    shopId: uuid('shop_id').notNull(),
    personId: uuid('person_id').notNull(),
    /** Base32, as the app that makes codes was given it; sealed by the installation's secret. */
    secret: text('secret').notNull(),
    /** Null until a first code has shown that the app has it right. */
    confirmedAt: timestamp('confirmed_at', { withTimezone: true, mode: 'date' }),
    /** The newest time step whose code was taken: no code is good twice. */
    lastStep: bigint('last_step', { mode: 'number' }).notNull().default(0),
    /** Marks of the spare codes that are left, by a slow hash; of codes that an earlier version gave, SHA-256. */
    spare: jsonb('spare').$type<string[]>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.personId] }),
    foreignKey({ columns: [t.shopId, t.personId], foreignColumns: [people.shopId, people.id] }),
  ],
);

/** Sessions by the secret in their cookie. Who is behind one is not known before it is read: no shop leads its key. */
export const sessions = pgTable(
  'sessions',
  {
    sid: text('sid').primaryKey(),
    /** What it is called to its owner, who is never shown the secret. */
    id: uuid('id').notNull(),
    shopId: uuid('shop_id').notNull(),
    personId: uuid('person_id').notNull(),
    sess: jsonb('sess').notNull(),
    expire: timestamp('expire', { withTimezone: true, mode: 'date' }).notNull(),
    /** The browser as it says of itself, in a few words. */
    device: text('device').notNull().default(''),
    createdAt: timestamp('created_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
    lastAt: timestamp('last_at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
  },
  (t) => [
    index('sessions_expire').on(t.expire),
    index('sessions_of').on(t.shopId, t.personId, t.lastAt),
  ],
);

/** Tries that are counted, such as those at a sign-in, as their counter keeps them. Belongs to the session store. */
export const tries = pgTable('tries', {
  key: text('key').primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

/** What was done to accounts and records beside the records themselves. Rows are only ever added. */
export const audit = pgTable(
  'audit',
  {
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shops.id),
    id: uuid('id').notNull(),
    at: timestamp('at', { withTimezone: true, mode: 'date' }).notNull().defaultNow(),
    /** Null for the server’s console, and for somebody who was not let in. */
    personId: uuid('person_id'),
    /** Their name as it was. */
    by: text('by').notNull(),
    what: text('what').$type<AuditedAct>().notNull(),
    /** Whom or what it was done to, in words. */
    about: text('about').notNull(),
    /** Network address it came from. */
    address: text('address').notNull().default(''),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    // Newest first: ids go by time.
    index('audit_by_person').on(t.shopId, t.personId, t.id),
  ],
);

export const units = pgTable(
  'units',
  {
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shops.id),
    id: uuid('id').notNull(),
    number: text('number').notNull(),
    draft: jsonb('draft').$type<UnitDraft>().notNull(),
    revision: integer('revision').notNull().default(1),
    retiredAt: timestamp('retired_at', { withTimezone: true, mode: 'date' }),
    /** What has failed on it and was not proven right since; follows from its runs. Null until worked out first. */
    failures: jsonb('failures').$type<OpenFailure[]>(),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
    updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    // A retired unit gives its number free.
    uniqueIndex('units_number')
      .on(t.shopId, sql`lower(${t.number})`)
      .where(sql`retired_at is null`),
  ],
);

/** Every revision of every unit, as it was: a run's snapshot is taken only where it is one of these. */
export const unitRevisions = pgTable(
  'unit_revisions',
  {
    shopId: uuid('shop_id').notNull(),
    unitId: uuid('unit_id').notNull(),
    revision: integer('revision').notNull(),
    draft: jsonb('draft').$type<UnitDraft>().notNull(),
    /** Null for what was kept before people were written down. */
    personId: uuid('person_id'),
    keptAt: timestamp('kept_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.unitId, t.revision] }),
    foreignKey({ columns: [t.shopId, t.unitId], foreignColumns: [units.shopId, units.id] }),
  ],
);

export const rigs = pgTable(
  'rigs',
  {
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shops.id),
    id: uuid('id').notNull(),
    revision: integer('revision').notNull().default(1),
    coupledAt: timestamp('coupled_at', { withTimezone: true }).notNull().defaultNow(),
    uncoupledAt: timestamp('uncoupled_at', { withTimezone: true, mode: 'date' }),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.id] })],
);

/** Which unit stands where in which rig. A unit is coupled in one rig at a time, and the table sees to it. */
export const rigUnits = pgTable(
  'rig_units',
  {
    shopId: uuid('shop_id').notNull(),
    rigId: uuid('rig_id').notNull(),
    place: integer('place').notNull(),
    unitId: uuid('unit_id').notNull(),
    coupled: boolean('coupled').notNull().default(true),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.rigId, t.place] }),
    uniqueIndex('rig_units_once')
      .on(t.shopId, t.unitId)
      .where(sql`coupled`),
    foreignKey({ columns: [t.shopId, t.rigId], foreignColumns: [rigs.shopId, rigs.id] }),
    foreignKey({ columns: [t.shopId, t.unitId], foreignColumns: [units.shopId, units.id] }),
  ],
);

export const ruleSets = pgTable(
  'rule_sets',
  {
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shops.id),
    id: uuid('id').notNull(),
    revision: integer('revision').notNull().default(1),
    basedOn: text('based_on').notNull(),
    draft: jsonb('draft').$type<RuleSetDraft>().notNull(),
    updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.id] })],
);

/** Every revision of every rule set of a shop's own, as it was. */
export const ruleSetRevisions = pgTable(
  'rule_set_revisions',
  {
    shopId: uuid('shop_id').notNull(),
    ruleSetId: uuid('rule_set_id').notNull(),
    revision: integer('revision').notNull(),
    draft: jsonb('draft').$type<RuleSetDraft>().notNull(),
    personId: uuid('person_id'),
    keptAt: timestamp('kept_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.ruleSetId, t.revision] }),
    foreignKey({
      columns: [t.shopId, t.ruleSetId],
      foreignColumns: [ruleSets.shopId, ruleSets.id],
    }),
  ],
);

/** Logs of every kind: the header as it was opened, and what its facts come to. All of the latter can be made again. */
export const logs = pgTable(
  'logs',
  {
    shopId: uuid('shop_id').notNull(),
    id: uuid('id').notNull(),
    kind: text('kind').$type<LogKindName>().notNull(),
    unitId: uuid('unit_id').notNull(),
    rigId: uuid('rig_id'),
    personId: uuid('person_id').notNull(),
    /** As the version of its time kept it; `v` in it says which. */
    header: jsonb('header').$type<Record<string, unknown>>().notNull(),
    /** What it is on, in words. */
    title: text('title').notNull(),
    /** By the server's clock, as far as the device's offset is known; never later than it was received. */
    startedAtMs: bigint('started_at_ms', { mode: 'number' }).notNull(),
    closedAtMs: bigint('closed_at_ms', { mode: 'number' }),
    lastAtMs: bigint('last_at_ms', { mode: 'number' }).notNull(),
    timeUnsure: boolean('time_unsure').notNull().default(false),
    factCount: integer('fact_count').notNull().default(0),
    verdict: text('verdict').$type<Verdict>(),
    headline: text('headline'),
    decisive: jsonb('decisive').$type<Figure>(),
    figures: jsonb('figures').$type<RunRowFigure[]>(),
    owes: jsonb('owes').$type<string[]>(),
    drained: boolean('drained').notNull().default(false),
    /** A job as its board shows it. */
    board: jsonb('board').$type<JobBoard>(),
    /** All that was computed at its closing, and by which version. */
    result: jsonb('result'),
    coreVersion: text('core_version'),
    receivedAt: timestamp('received_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({ columns: [t.shopId, t.unitId], foreignColumns: [units.shopId, units.id] }),
    foreignKey({ columns: [t.shopId, t.personId], foreignColumns: [people.shopId, people.id] }),
    // What is open in the shop.
    // Jobs of the shop, the open ones first.
    index('logs_jobs')
      .on(t.shopId, t.closedAtMs)
      .where(sql`kind = 'job'`),
    index('logs_open')
      .on(t.shopId, t.lastAtMs)
      .where(sql`closed_at_ms is null`),
  ],
);

/** Every unit of every log, with what the yard asks of it: a rig's run is a run of each of its units. */
export const logUnits = pgTable(
  'log_units',
  {
    shopId: uuid('shop_id').notNull(),
    unitId: uuid('unit_id').notNull(),
    logId: uuid('log_id').notNull(),
    kind: text('kind').$type<LogKindName>().notNull(),
    startedAtMs: bigint('started_at_ms', { mode: 'number' }).notNull(),
    closedAtMs: bigint('closed_at_ms', { mode: 'number' }),
    /** What it is listed by: its closing, or the end of time for a failure whose clock cannot be told. */
    rankMs: bigint('rank_ms', { mode: 'number' }),
    verdict: text('verdict').$type<Verdict>(),
    /** False for a run that tested only what a repair owed: no interval starts at it. */
    whole: boolean('whole').notNull().default(true),
    trend: doublePrecision('trend'),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.unitId, t.logId] }),
    foreignKey({ columns: [t.shopId, t.logId], foreignColumns: [logs.shopId, logs.id] }),
    foreignKey({ columns: [t.shopId, t.unitId], foreignColumns: [units.shopId, units.id] }),
    index('log_units_by_log').on(t.shopId, t.logId),
    index('log_units_open')
      .on(t.shopId, t.unitId, t.startedAtMs)
      .where(sql`closed_at_ms is null`),
  ],
);

/** Failures that a lead closed with a written reason. Rows are only ever added. */
export const failureClosings = pgTable(
  'failure_closings',
  {
    shopId: uuid('shop_id').notNull(),
    logId: uuid('log_id').notNull(),
    /** What failed, as `OpenFailure` names it. */
    key: text('key').notNull(),
    reason: text('reason').notNull(),
    personId: uuid('person_id').notNull(),
    closedAt: timestamp('closed_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.logId, t.key] }),
    foreignKey({ columns: [t.shopId, t.logId], foreignColumns: [logs.shopId, logs.id] }),
    foreignKey({ columns: [t.shopId, t.personId], foreignColumns: [people.shopId, people.id] }),
  ],
);

/** Facts of every log, each once. Rows are only ever added. */
export const facts = pgTable(
  'facts',
  {
    shopId: uuid('shop_id').notNull(),
    logId: uuid('log_id').notNull(),
    lane: uuid('lane').notNull(),
    seq: integer('seq').notNull(),
    id: uuid('id').notNull(),
    personId: uuid('person_id').notNull(),
    /** As the version of its time kept it; `v` in it says which. */
    fact: jsonb('fact').$type<Record<string, unknown>>().notNull(),
    receivedAtMs: bigint('received_at_ms', { mode: 'number' }).notNull(),
    /** Its number in the order of receipt within its log, from 1; null until an older version’s facts are chained. */
    place: integer('place'),
    /** The hash chain’s link at this place, as `chain` makes it. */
    link: text('link'),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.logId, t.lane, t.seq] }),
    uniqueIndex('facts_place').on(t.shopId, t.logId, t.place),
    uniqueIndex('facts_id').on(t.shopId, t.id),
    foreignKey({ columns: [t.shopId, t.logId], foreignColumns: [logs.shopId, logs.id] }),
    foreignKey({ columns: [t.shopId, t.personId], foreignColumns: [people.shopId, people.id] }),
  ],
);

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** Pictures that facts name; each is here before the fact that names it. */
export const blobs = pgTable(
  'blobs',
  {
    shopId: uuid('shop_id').notNull(),
    id: uuid('id').notNull(),
    logId: uuid('log_id').notNull(),
    personId: uuid('person_id').notNull(),
    mediaType: text('media_type').notNull(),
    bytes: bytea('bytes').notNull(),
    receivedAt: timestamp('received_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({ columns: [t.shopId, t.logId], foreignColumns: [logs.shopId, logs.id] }),
  ],
);
