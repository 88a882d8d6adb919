import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { ROUTES } from '@karyotome/contract';
import { openRoute } from './http/open-route.ts';
import compression from 'compression';
import expressStaticGzip from 'express-static-gzip';
import connectPgSimple from 'connect-pg-simple';
import { csrfSync } from 'csrf-sync';
import express, { Router, type Express } from 'express';
import session from 'express-session';
import type pg from 'pg';
import { LRUCache } from 'lru-cache';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from './config.ts';
import type { Database } from './db/work.ts';
import { animalRoutes } from './features/animals/animals.routes.ts';
import { binRoutes } from './features/bin/bin.routes.ts';
import { benchRoutes } from './features/bench/bench.routes.ts';
import { outsideRoutes } from './features/bench/outside.routes.ts';
import { breedingRoutes } from './features/season/breeding.routes.ts';
import { calendarRoutes, publicCalendarRoutes } from './features/calendar/feeds.ts';
import { changeRoutes } from './features/changes/changes.ts';
import { settleStates } from './domain/states/catch-up.ts';
import { IDLE_DAYS } from './domain/accounts/devices.service.ts';
import { notifyChanged } from './domain/changes/notify.ts';
import { catalogueRoutes } from './features/catalogue/catalogue.routes.ts';
import { feedingRoutes } from './features/feeding/feeding.routes.ts';
import { geneticsRoutes } from './features/genetics/genetics.routes.ts';
import { importRoutes } from './features/imports/imports.routes.ts';
import { climateRoutes } from './features/climate/climate.routes.ts';
import { incubationRoutes } from './features/incubation/incubation.routes.ts';
import { labelRoutes } from './features/labels/labels.routes.ts';
import { pictureRoutes, publicPictureRoutes } from './features/pictures/pictures.routes.ts';
import { plannerRoutes } from './features/planner/planner.routes.ts';
import { projectRoutes } from './features/projects/projects.routes.ts';
import { letterRoutes } from './features/post/post.routes.ts';
import { publicationRoutes, publicRoutes } from './features/publications/publications.ts';
import { healthRoutes } from './features/health/health.routes.ts';
import { rackRoutes } from './features/racks/racks.routes.ts';
import { recordRoutes } from './features/records/records.routes.ts';
import { roomRoutes } from './features/room/room.routes.ts';
import { roundRoutes } from './features/rounds/rounds.routes.ts';
import { pageRoutes } from './features/pages/pages.routes.ts';
import { importAllRoute } from './features/export/import.routes.ts';
import { exportRoutes } from './features/export/export.routes.ts';
import { historyRoutes } from './features/history/history.routes.ts';
import { factorRoutes } from './features/people/factor.routes.ts';
import { invitationRoutes } from './features/people/invitations.routes.ts';
import { peopleRoutes } from './features/people/people.routes.ts';
import { personRoutes, salesRoutes } from './features/sales/sales.routes.ts';
import { seasonRoutes } from './features/season/season.routes.ts';
import { identifyActor, identifyProgram, sessionRoutes } from './features/session/session.routes.ts';
import { settingsRoutes } from './features/settings/settings.ts';
import { takingInRoutes } from './features/taking-in/taking-in.routes.ts';
import { webhookRoutes } from './features/webhooks/webhooks.routes.ts';
import { waitingRoutes } from './features/waiting/waiting.routes.ts';
import { searchRoutes } from './features/search/search.routes.ts';
import { todayRoutes } from './features/today/today.routes.ts';
import { backgroundEnded } from './background.ts';
import { forLog } from './db/faults.ts';
import { sidePool } from './db/connection.ts';
import { appPage } from './http/app-page.ts';
import { jobRoutes } from './http/jobs.ts';
import { actorOf } from './http/allow.ts';
import { createEndpoints } from './http/endpoint.ts';
import { describeApi } from './http/open-api.ts';
import { limitBody, readJson, refuseStrangeAddress } from './http/limits.ts';
import { warnOfUnnamedProxy } from './http/unnamed-proxy.ts';
import { levelOf, whoAndWhat, withoutSecrets } from './http/log.ts';
import { handleErrors, newRequestId, noSuchRoute } from './http/problems.ts';
import type { FileStore } from './files/file-store.ts';
import { Refusal } from './refusal.ts';
import { RateLimits } from './http/rate-limits.ts';
import { securityHeaders } from './http/security-headers.ts';
import { cookieOptions, sessionCookie } from './http/session-cookie.ts';

const SESSION_MS = IDLE_DAYS * 86_400_000;

/** Where somebody who is not signed in may send something. */
const BEGINNINGS: ReadonlySet<string> = new Set([
  ROUTES.signIn.path,
  ROUTES.passkeySignInOptions.path,
  ROUTES.signInWithPasskey.path,
  ROUTES.lookAtInvitation.path,
  ROUTES.join.path,
  ROUTES.startFarm.path,
  ROUTES.resetPassword.path,
  ROUTES.forgotPassword.path,
]);

export interface App {
  readonly express: Express;
  /** Ends what nobody waits for, and closes what the app opened itself: the session store's connections. */
  close(): Promise<void>;
}

/** What routes are made with. */
interface Parts {
  readonly database: Database;
  readonly files: FileStore;
  readonly config: Config;
  readonly limits: RateLimits;
}

/** Puts the application together. Does not listen. */
export function createApp(database: Database, files: FileStore, config: Config, logger: Logger): App {
  const app = express();
  app.disable('x-powered-by');
  // `?a[b]=1` would make objects of parameters.
  app.set('query parser', 'simple');
  // Who asks is taken from a header only where a proxy that was named wrote it.
  app.set('trust proxy', config.trustedProxies);
  app.use(
    pinoHttp({
      logger,
      genReqId: newRequestId,
      serializers: withoutSecrets,
      customProps: whoAndWhat,
      customLogLevel: levelOf,
      autoLogging: { ignore: (request) => request.url === '/api/v1/health' },
    }),
  );
  app.use(warnOfUnnamedProxy(logger));
  app.use(securityHeaders(config));
  app.use(compression());
  const pool = sidePool(config.databaseUrl, (error) =>
    logger.warn({ fault: forLog(error) }, 'an idle connection to the database broke'),
  );
  const limits = new RateLimits(pool);
  app.use('/api/v1', api({ database, files, config, pool, limits }));
  app.use(pageRoutes(database, files, limits));
  if (config.webDir) serveWeb(app, config.webDir);
  app.use(handleErrors);
  return {
    express: app,
    async close() {
      await backgroundEnded();
      await pool.end();
    },
  };
}

function api({ database, files, config, pool, limits }: Parts & { readonly pool: pg.Pool }): Router {
  const router = Router();
  openRoute(router, ROUTES.health, async (_request, response) => {
    await pool.query('select 1');
    response.set('Cache-Control', 'no-store').json({ status: 'ok' });
  });
  const description = describeApi(ROUTES);
  openRoute(router, ROUTES.openApi, (_request, response) => {
    response.set('Cache-Control', 'no-cache').json(description);
  });
  router.use(refuseStrangeAddress);
  router.use(limitBody);
  const json = readJson((request, bytes) => {
    request.bodyDigest = createHash('sha256').update(bytes).digest('hex');
  });
  router.use(publicRoutes(database, limits));
  router.use(publicPictureRoutes(database, files, limits));
  router.use(publicCalendarRoutes(database, limits));
  router.use(outsideRoutes(database, files, limits, json));
  router.use(identifyProgram(database, config.signingSecret));
  router.use(sessions(config, pool));
  router.use(identifyActor(database));
  const { generateToken, csrfSynchronisedProtection, invalidCsrfTokenError } = csrfSync({
    // Signing in starts a session, so it cannot carry the session's token yet.
    skipCsrfProtection: (request) =>
      request.actor?.scope !== undefined || (request.method === 'POST' && BEGINNINGS.has(request.path)),
    getTokenFromRequest: (request) => request.get('X-CSRF-Token') ?? null,
  });
  router.use((request, _response, next) => {
    // Who is nobody is told so before anything they send is read.
    if (request.path !== ROUTES.session.path && !BEGINNINGS.has(request.path)) actorOf(request);
    next();
  });
  router.use(csrfSynchronisedProtection);
  router.use(((error, _request, _response, next) => {
    next(
      error === invalidCsrfTokenError
        ? new Refusal('stale-page', 'The token against forged requests is missing or old.')
        : error,
    );
  }) as express.ErrorRequestHandler);
  router.use(json);
  router.use(endpointsOf({ database, files, config, limits, generateToken }));
  router.use(noSuchRoute);
  return router;
}

/** All routes that take a session, registered from the table of routes. */
function endpointsOf({
  database,
  files,
  config,
  limits,
  generateToken,
}: Parts & { readonly generateToken: ReturnType<typeof csrfSync>['generateToken'] }): Router {
  const endpoints = createEndpoints(database, notifyChanged, (actor) => settleStates(database, actor));
  sessionRoutes(endpoints, database, config, limits, generateToken);
  settingsRoutes(endpoints, config.backupFolder);
  peopleRoutes(endpoints, database, config, limits);
  invitationRoutes(endpoints, database, config, limits);
  factorRoutes(endpoints, database, config, limits);
  webhookRoutes(endpoints, database, config);
  historyRoutes(endpoints, database);
  exportRoutes(endpoints, database, config);
  importAllRoute(endpoints, database, config);
  changeRoutes(endpoints, database);
  jobRoutes(endpoints);
  catalogueRoutes(endpoints);
  geneticsRoutes(endpoints);
  animalRoutes(endpoints);
  binRoutes(endpoints, files);
  importRoutes(endpoints, database);
  recordRoutes(endpoints, database);
  breedingRoutes(endpoints);
  benchRoutes(endpoints, config.signingSecret);
  labelRoutes(endpoints, database, files);
  seasonRoutes(endpoints);
  incubationRoutes(endpoints, database, files);
  climateRoutes(endpoints, database);
  plannerRoutes(endpoints);
  projectRoutes(endpoints);
  calendarRoutes(endpoints, config.signingSecret);
  rackRoutes(endpoints);
  healthRoutes(endpoints);
  feedingRoutes(endpoints);
  roundRoutes(endpoints);
  roomRoutes(endpoints);
  searchRoutes(endpoints);
  todayRoutes(endpoints);
  pictureRoutes(endpoints, database, files);
  salesRoutes(endpoints, database);
  personRoutes(endpoints);
  letterRoutes(endpoints, config.smtpUrl === null);
  waitingRoutes(endpoints);
  takingInRoutes(endpoints, database, files);
  publicationRoutes(endpoints, database, files, config.signingSecret);
  return endpoints.router;
}

/** A session's end moves on with its use: written down so often at most. */
const TOUCHED_EVERY_MS = 600_000;
const TOUCHED_SESSIONS = 10_000;

/** The store of sessions without a write for each request. */
function seldomTouched(Store: ReturnType<typeof connectPgSimple>): ReturnType<typeof connectPgSimple> {
  const touched = new LRUCache<string, true>({ max: TOUCHED_SESSIONS, ttl: TOUCHED_EVERY_MS });
  return class extends Store {
    override touch(...[id, kept, done]: Parameters<InstanceType<typeof Store>['touch']>): void {
      if (touched.has(id)) return void done?.();
      touched.set(id, true);
      super.touch(id, kept, done);
    }
  };
}

function sessions(config: Config, pool: pg.Pool): express.RequestHandler {
  const PgStore = seldomTouched(connectPgSimple(session));
  return session({
    name: sessionCookie(config),
    secret: config.sessionSecret,
    store: new PgStore({ pool, tableName: 'sessions', pruneSessionInterval: false }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { ...cookieOptions(config), maxAge: SESSION_MS } as session.CookieOptions,
  });
}

function serveWeb(app: Express, webDir: string): void {
  app.use(
    '/assets',
    expressStaticGzip(join(webDir, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  const page = appPage(webDir);
  app.get('/index.html', page);
  app.use(express.static(webDir, { index: false, cacheControl: false }));
  app.get('/{*path}', page);
}
