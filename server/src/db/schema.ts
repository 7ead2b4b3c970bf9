import type {
  Figure,
  Outcome,
  RuleSet,
  RuleSetDraft,
  RunEvent,
  RunRowFigure,
  Unit,
  UnitDraft,
  Verdict,
} from '@keen-bleed/contract';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
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
    // Sign-in asks for a name only, so names are one space over all shops.
    uniqueIndex('people_sign_in_name').on(sql`lower(${t.signInName})`),
  ],
);

/** Sessions in the shape their store asks for. */
export const sessions = pgTable(
  'sessions',
  {
    sid: text('sid').primaryKey(),
    sess: jsonb('sess').notNull(),
    expire: timestamp('expire', { precision: 6 }).notNull(),
  },
  (t) => [index('sessions_expire').on(t.expire)],
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

export const runs = pgTable(
  'runs',
  {
    shopId: uuid('shop_id').notNull(),
    id: uuid('id').notNull(),
    unitId: uuid('unit_id').notNull(),
    personId: uuid('person_id').notNull(),
    rigId: uuid('rig_id'),
    unit: jsonb('unit').$type<Unit>().notNull(),
    towed: jsonb('towed').$type<Unit[]>().notNull(),
    ruleSet: jsonb('rule_set').$type<RuleSet>().notNull(),
    leftOut: jsonb('left_out').$type<string[]>().notNull(),
    startedAtMs: bigint('started_at_ms', { mode: 'number' }).notNull(),
    closedAtMs: bigint('closed_at_ms', { mode: 'number' }),
    outcome: jsonb('outcome').$type<Outcome>(),
    verdict: text('verdict').$type<Verdict>(),
    /** The figure the verdict hangs on. */
    decisive: jsonb('decisive').$type<Figure>(),
    headline: text('headline'),
    figures: jsonb('figures').$type<RunRowFigure[]>(),
    /** Static leak, psi/min: kept apart because the yard draws it for every unit at once. */
    staticLeak: doublePrecision('static_leak'),
    /** The tanks were drained in it. */
    drained: boolean('drained').notNull().default(false),
    coreVersion: text('core_version'),
    lastSeq: integer('last_seq').notNull().default(0),
    receivedAt: timestamp('received_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({
      columns: [t.shopId, t.unitId],
      foreignColumns: [units.shopId, units.id],
    }),
    foreignKey({
      columns: [t.shopId, t.personId],
      foreignColumns: [people.shopId, people.id],
    }),
  ],
);

/** Every unit of every run, with what the yard asks of it: a rig's run is a run of each of its units. */
export const runUnits = pgTable(
  'run_units',
  {
    shopId: uuid('shop_id').notNull(),
    unitId: uuid('unit_id').notNull(),
    runId: uuid('run_id').notNull(),
    startedAtMs: bigint('started_at_ms', { mode: 'number' }).notNull(),
    closedAtMs: bigint('closed_at_ms', { mode: 'number' }),
    verdict: text('verdict').$type<Verdict>(),
    staticLeak: doublePrecision('static_leak'),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.unitId, t.runId] }),
    foreignKey({ columns: [t.shopId, t.runId], foreignColumns: [runs.shopId, runs.id] }),
    foreignKey({ columns: [t.shopId, t.unitId], foreignColumns: [units.shopId, units.id] }),
    index('run_units_by_run').on(t.shopId, t.runId),
  ],
);

export const runEvents = pgTable(
  'run_events',
  {
    shopId: uuid('shop_id').notNull(),
    runId: uuid('run_id').notNull(),
    seq: integer('seq').notNull(),
    id: uuid('id').notNull(),
    event: jsonb('event').$type<RunEvent>().notNull(),
    receivedAt: timestamp('received_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.runId, t.seq] }),
    uniqueIndex('run_events_id').on(t.shopId, t.id),
    foreignKey({
      columns: [t.shopId, t.runId],
      foreignColumns: [runs.shopId, runs.id],
    }),
  ],
);
