import type { Logger } from 'pino';
import type { Accounts } from './accounts/accounts';
import { auditRoutes } from './audit/auditRoutes';
import { dueRoutes } from './units/dueRoutes';
import { failureRoutes } from './failures/failureRoutes';
import { gaugeRoutes } from './gauges/gaugeRoutes';
import { gradeRoutes } from './hunts/gradeRoutes';
import { jobRoutes } from './jobs/jobRoutes';
import { logRoutes } from './log/logRoutes';
import { meRoutes } from './accounts/meRoutes';
import { pedalRoutes } from './hunts/pedalRoutes';
import { peopleRoutes } from './accounts/peopleRoutes';
import { photoRoutes } from './photos/photoRoutes';
import { rigRoutes } from './rigs/rigRoutes';
import { ruleSetRoutes } from './ruleSets/ruleSetRoutes';
import { shopExportRoutes } from './shopExport/shopExportRoutes';
import { signInRoutes } from './accounts/signInRoutes';
import { suspectRoutes } from './suspects/suspectRoutes';
import { unitRoutes } from './units/unitRoutes';
import { runRoutes } from './runs/runRoutes';
import { visitRoutes } from './log/visitRoutes';
import type { Bus } from './bus/bus';
import type { Database } from './db/database';
import type { Route } from './http/route';
import type { Streams } from './http/streams';
import type { SuspectTables } from './suspects/suspectTables';

/** What routes are made over. */
export interface RouteParts extends Pick<
  Accounts,
  'devices' | 'seal' | 'signInTries' | 'setUpCode' | 'quotas'
> {
  database: Database;
  bus: Bus;
  streams: Streams;
  tables: SuspectTables;
  log: Logger;
}

/** Every route there is, in the order in which they are tried. */
export function allRoutes({ database, bus, streams, tables, log, ...rest }: RouteParts): Route[] {
  const { db, pool } = database;
  const accounts: Accounts = { ...rest, db, pool, bus };
  const onGaugeTrouble = (error: unknown) => log.error({ err: error }, 'a gauge set broke');
  return [
    ...signInRoutes(accounts),
    ...meRoutes(accounts),
    ...peopleRoutes(accounts),
    ...auditRoutes(db),
    ...shopExportRoutes(pool),
    ...unitRoutes(db, rest.quotas),
    ...dueRoutes(db),
    ...gradeRoutes(db),
    ...pedalRoutes(db, bus, streams),
    ...failureRoutes(db),
    ...rigRoutes(db),
    ...ruleSetRoutes(db),
    ...logRoutes(db, bus, streams),
    ...visitRoutes(db),
    ...runRoutes(db),
    ...photoRoutes(db, rest.quotas),
    ...jobRoutes(db),
    ...suspectRoutes(db, tables),
    ...gaugeRoutes(db, bus, streams, onGaugeTrouble),
  ];
}
