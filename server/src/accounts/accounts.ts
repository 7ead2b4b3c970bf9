import type pg from 'pg';
import type { Bus } from '../bus/bus';
import type { Db } from '../db/database';
import type { Quotas } from '../http/quotas';
import type { KnownDevice } from './knownDevice';
import type { Seal } from './seal';

/** What routes of accounts stand on. */
export interface Accounts {
  db: Db;
  pool: pg.Pool;
  bus: Bus;
  devices: KnownDevice;
  seal: Seal;
  /** Failed sign-ins a name may have in a quarter of an hour. */
  signInTries: number;
  /** Asked for at the first account of all; null where nobody else can reach the server. */
  setUpCode: string | null;
  quotas: Quotas;
}
