import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { KnownDevice } from './accounts/knownDevice';
import { Seal } from './accounts/seal';
import { sessionMiddleware, signedInAs } from './accounts/session';
import { keepAudit } from './audit/keepAudit';
import { LocalBus, type Bus } from './bus/bus';
import { schemaStanding, type Database } from './db/database';
import { schemaRoutes } from './runs/runRoutes';
import { visitSchemaRoutes } from './log/visitRoutes';
import { mount, type AnswerCheck } from './http/route';
import { allRoutes } from './routes';
import { API_VERSION, openApiOf } from './openApi/openApi';
import { noteEscapes, readableText } from './http/readableText';
import type { SuspectTables } from './suspects/suspectTables';
import { Metrics } from './metrics/metrics';
import { ApiError } from './http/apiError';
import { errorHandler } from './http/errorHandler';
import type { InFlight } from './http/inFlight';
import { DEFAULT_QUOTAS, type Quotas } from './http/quotas';
import { requestId } from './http/requestId';
import { overHttps } from './http/overHttps';
import { sameOrigin } from './http/sameOrigin';
import { Streams } from './http/streams';
import { webRoutes } from './http/web';

/** What the server is made of; each has its default in `main`. */
export interface AppOptions {
  database: Database;
  log: Logger;
  sessionSecret: string;
  /** Send the session cookie over HTTPS only. */
  secureCookie: boolean;
  /**
   * Whose word counts for how a request came in: addresses of the proxies before this server, in the way of Express's
   * `trust proxy`, such as `loopback` or `10.0.0.0/8`; null where there is none.
   */
  trustedProxies: string | null;
  /** Failed sign-ins a name may have in a quarter of an hour. */
  signInTries: number;
  /** Asked for at the first account of all; null where it is not. */
  setUpCode?: string | null;
  /** How much a shop may keep; the usual bounds unless told. */
  quotas?: Quotas;
  /** Whoever brings this may read what is measured; null where nobody may. */
  metricsToken?: string | null;
  /** Passes words between this server and others of its installation; alone it needs none. */
  bus?: Bus;
  /** Folder of the built web application, or null to serve the API alone. */
  webFolder: string | null;
  /** What is worked out of rigs for phones. */
  tables: SuspectTables;
  /** Counts what is being answered, so that a stop loses none of it. */
  inFlight?: InFlight;
  /** The moment every answer tells; another than now only for pictures of a fixed day. */
  nowMs?: () => number;
  /** Told of every answer, so that tests can hold it to its shape. */
  onAnswer?: AnswerCheck;
}

/** The whole HTTP application. */
export function makeApp(options: AppOptions): Express {
  const { database, log } = options;
  const app = express();
  app.disable('x-powered-by');
  // Answers are never kept by a browser, so nothing is gained by their hashes; files have their own.
  app.disable('etag');
  const { db, pool } = database;
  const bus = options.bus ?? new LocalBus();
  const streams = new Streams(bus, pool);
  const metrics = new Metrics(pool, streams);
  app.use(requestId);
  app.use(metrics.measured);
  if (options.inFlight) app.use(options.inFlight.counted);
  // Else a server behind HTTPS takes every request for plain HTTP, gives no cookie, and sees one address for all.
  if (options.trustedProxies !== null) app.set('trust proxy', options.trustedProxies);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          baseUri: ["'none'"],
          connectSrc: ["'self'"],
          fontSrc: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          // Photos that are still on the device are shown from there.
          imgSrc: ["'self'", 'data:', 'blob:'],
          manifestSrc: ["'self'"],
          // The tones of a run are made on the device.
          mediaSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          scriptSrc: ["'self'"],
          scriptSrcAttr: ["'none'"],
          // React Native's web styles are inserted at run time.
          styleSrc: ["'self'", "'unsafe-inline'"],
          workerSrc: ["'self'"],
        },
      },
      // Shops on a workshop network often have no certificate; whoever puts one in front sets this there.
      strictTransportSecurity: options.secureCookie,
    }),
  );
  // A stream of events must not wait to be worth packing.
  app.use(
    compression({
      filter: (request, response) =>
        !request.path.endsWith('/live') && compression.filter(request, response),
    }),
  );

  // For whatever looks after the server: whether it runs, and whether it can be asked.
  app.get('/live', (_request, response) => {
    response.json({ live: true });
  });
  app.get('/ready', async (_request, response) => {
    const standing = await schemaStanding(database).catch(() => null);
    const ready = standing === 'as it should be';
    const why = standing === null ? 'the database cannot be reached' : `its tables are ${standing}`;
    response.status(ready ? 200 : 503).json(ready ? { ready } : { ready, why });
  });

  app.get('/metrics', metrics.served(options.metricsToken ?? null));

  const api = express.Router();
  api.use((_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    // Every phone measures by this how far its own clock is off.
    response.setHeader('Server-Time', String((options.nowMs ?? Date.now)()));
    next();
  });
  api.get('/health', async (_request, response) => {
    await database.pool.query('select 1');
    response.json({ ok: true });
  });
  api.use(sameOrigin);
  if (options.secureCookie) api.use(overHttps);
  api.use(express.json({ limit: '512kb', strict: true, verify: noteEscapes }));
  api.use(readableText);
  api.use(sessionMiddleware(database, options.sessionSecret, options.secureCookie));
  const routes = allRoutes({
    ...{ database, bus, streams, log, tables: options.tables },
    devices: new KnownDevice(options.sessionSecret, options.secureCookie),
    seal: new Seal(options.sessionSecret),
    signInTries: options.signInTries,
    setUpCode: options.setUpCode ?? null,
    quotas: options.quotas ?? DEFAULT_QUOTAS,
  });
  app.locals.routes = routes;
  mount(api, signedInAs, routes, {
    onAnswer: options.onAnswer,
    onExport: (me, request, fileName) => keepAudit(db, { me, request }, 'exported', fileName),
  });
  const description = openApiOf(routes);
  api.get('/openapi.json', (_request, response) => {
    response.json(description);
  });
  api.use(() => {
    throw new ApiError('not-found', 'There is nothing at this address.');
  });
  app.use(`/api/${API_VERSION}`, api);
  app.use('/api', api);
  app.use('/schema', schemaRoutes());
  app.use('/schema', visitSchemaRoutes());
  if (options.webFolder !== null) app.use(webRoutes(options.webFolder));
  app.use(() => {
    throw new ApiError('not-found', 'There is nothing at this address.');
  });
  app.use(errorHandler(log));
  return app;
}
