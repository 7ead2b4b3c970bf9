import type { AnyFact, AnyHeader, LogKindName } from '@keen-bleed/contract';
import {
  openDB,
  type DBSchema,
  type IDBPDatabase,
  type IDBPTransaction,
  type StoreNames,
} from 'idb';
import { fromFirstVersion } from './fromFirstVersion';

/** Why the server would not take something, for causes that may pass. */
export interface Refusal {
  code: string;
  message: string;
  /** The field it named, within the header or the fact. */
  field: string | null;
  /** The fact it named; null where it is the header. */
  factId: string | null;
  atMs: number;
  /** Build of the app that was refused: another one may be taken. */
  build: string;
}

/** A log as this device keeps it. */
export interface DeviceLog {
  id: string;
  kind: LogKindName;
  shopId: string;
  /** Who opened it. */
  personId: string;
  /** Who took it over on this device to go on with it, where that is not who opened it. */
  takenBy?: string;
  /** The unit it is on, or the one in front. */
  unitId: string;
  header: AnyHeader;
  /** 1 once the server has the header; a number, since an index takes no truth values. */
  opened: 0 | 1;
  /** 1 once its closing fact has been recorded here. */
  closed: 0 | 1;
  refused: Refusal | null;
  /** When the server was last known to hold all of it. */
  confirmedAtMs: number | null;
  /** Names of others who write in it, by lane. */
  writers: Readonly<Record<string, string>>;
  /** What it came to, once closed; for what has to stay on the device. */
  verdict: string | null;
}

/** A fact as this device keeps it, in its place. */
export interface DeviceFact {
  id: string;
  logId: string;
  lane: string;
  seq: number;
  fact: AnyFact;
  /** 0 until the server has it. */
  sent: 0 | 1;
  /** Which setting of the device's clock it was recorded under. */
  epoch: string;
}

/** A fact that was taken out of its log by hand, and why; it stays until its log leaves. */
export interface DroppedFact {
  id: string;
  logId: string;
  fact: AnyFact;
  why: string;
  atMs: number;
}

/** A picture that a fact names. */
export interface DeviceBlob {
  id: string;
  logId: string;
  blob: Blob;
  sent: 0 | 1;
}

export interface Schema extends DBSchema {
  logs: {
    key: string;
    value: DeviceLog;
    indexes: { 'by-unit': string; 'by-opened': number; 'by-closed': number };
  };
  facts: {
    key: string;
    value: DeviceFact;
    indexes: { 'by-log': string; 'by-sent': number; 'by-place': [string, string, number] };
  };
  dropped: { key: string; value: DroppedFact; indexes: { 'by-log': string } };
  blobs: { key: string; value: DeviceBlob; indexes: { 'by-log': string; 'by-sent': number } };
  kept: { key: string; value: unknown };
}

export type Store = IDBPDatabase<Schema>;

const NAME = 'keen-bleed';
const VERSION = 2;

let opening: Promise<Store> | null = null;

/** The device's own store; opened once, and again after a browser has closed it. */
export function database(): Promise<Store> {
  opening ??= openDB<Schema>(NAME, VERSION, {
    upgrade(db, oldVersion, _newVersion, tx) {
      const logs = db.createObjectStore('logs', { keyPath: 'id' });
      logs.createIndex('by-unit', 'unitId');
      logs.createIndex('by-opened', 'opened');
      logs.createIndex('by-closed', 'closed');
      const facts = db.createObjectStore('facts', { keyPath: 'id' });
      facts.createIndex('by-log', 'logId');
      facts.createIndex('by-sent', 'sent');
      // Two tabs cannot take the same place.
      facts.createIndex('by-place', ['logId', 'lane', 'seq'], { unique: true });
      db.createObjectStore('dropped', { keyPath: 'id' }).createIndex('by-log', 'logId');
      const blobs = db.createObjectStore('blobs', { keyPath: 'id' });
      blobs.createIndex('by-log', 'logId');
      blobs.createIndex('by-sent', 'sent');
      if (oldVersion < 1) db.createObjectStore('kept');
      // What goes wrong undoes the whole step: the first version's store stays as it was.
      else fromFirstVersion(tx).catch(() => tx.abort());
    },
    blocking(_current, _blocked, event) {
      // A newer page waits to bring the store up: this one lets go, and opens it again when it is asked next.
      (event.target as IDBDatabase).close();
      opening = null;
    },
    terminated() {
      opening = null;
    },
  });
  return opening;
}

/**
 * A transaction to write in: all of it is kept, or nothing. What a full device does not take is told to whoever waits
 * for that write, or for the end.
 */
export async function toWrite<N extends StoreNames<Schema>[]>(
  names: [...N],
  options?: IDBTransactionOptions,
): Promise<IDBPTransaction<Schema, [...N], 'readwrite'>> {
  const tx = (await database()).transaction<[...N], 'readwrite'>(names, 'readwrite', options);
  // Whoever hears of the write that failed does not wait for the end any more.
  tx.done.catch(() => undefined);
  return tx;
}
