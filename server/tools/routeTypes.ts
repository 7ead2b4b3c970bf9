/* Writes what the app's requests are held to, from the routes themselves: `npm run route-types`. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import { KnownDevice } from '../src/accounts/knownDevice';
import { Seal } from '../src/accounts/seal';
import { LocalBus } from '../src/bus/bus';
import { openDatabase } from '../src/db/database';
import { DEFAULT_QUOTAS } from '../src/http/quotas';
import { Streams } from '../src/http/streams';
import { routeTypesOf } from '../src/openApi/routeTypes';
import { allRoutes } from '../src/routes';
import { SuspectTables } from '../src/suspects/suspectTables';

// Never asked for anything: routes are made over a database, and only read here.
const database = openDatabase('postgres://nobody@127.0.0.1:1/none', () => undefined);
const bus = new LocalBus();
const streams = new Streams(bus, database.pool);
const text = routeTypesOf(
  allRoutes({
    ...{ database, bus, streams, log: pino({ level: 'silent' }) },
    tables: new SuspectTables(() => ({
      table: new Promise(() => undefined),
      stop: () => undefined,
    })),
    devices: new KnownDevice('none', false),
    seal: new Seal('none'),
    signInTries: 1,
    setUpCode: null,
    quotas: DEFAULT_QUOTAS,
  }),
);
writeFileSync(
  join(fileURLToPath(new URL('.', import.meta.url)), '../../contract/src/routeTypes.ts'),
  text,
);
process.exit(0);
