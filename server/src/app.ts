import { join } from 'node:path';
import compression from 'compression';
import connectPgSimple from 'connect-pg-simple';
import { csrfSync } from 'csrf-sync';
import express, { Router, type Express } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from './config.ts';
import type { Database } from './db/work.ts';
import { animalRoutes } from './features/animals/animals.routes.ts';
import { benchRoutes } from './features/bench/bench.routes.ts';
import { outsideRoutes } from './features/bench/outside.routes.ts';
import { breedingRoutes } from './features/breeding/breeding.routes.ts';
import { calendarRoutes, publicCalendarRoutes } from './features/calendar/feeds.ts';
import { changeRoutes, tellChanged } from './features/changes/changes.ts';
import { catalogueRoutes } from './features/catalogue/catalogue.routes.ts';
import { feedingRoutes } from './features/feeding/feeding.routes.ts';
import { geneticsRoutes } from './features/genetics/genetics.routes.ts';
import { importRoutes } from './features/imports/imports.routes.ts';
import { incubationRoutes } from './features/incubation/incubation.routes.ts';
import { labelRoutes } from './features/labels/labels.routes.ts';
import { pictureRoutes, publicPictureRoutes } from './features/pictures/pictures.ts';
import { plannerRoutes } from './features/planner/planner.routes.ts';
import { publicationRoutes, publicRoutes } from './features/publications/publications.ts';
import { rackRoutes } from './features/racks/racks.routes.ts';
import { recordRoutes } from './features/records/records.routes.ts';
import { roomRoutes } from './features/room/room.routes.ts';
import { roundRoutes } from './features/rounds/rounds.routes.ts';
import { seasonRoutes } from './features/season/season.routes.ts';
import { identifyActor, sessionRoutes } from './features/session/session.routes.ts';
import { settingsRoutes } from './features/settings/settings.ts';
import { todayRoutes } from './features/today/today.ts';
import { createEndpoints } from './http/endpoint.ts';
import { handleErrors, newRequestId, noSuchRoute, Refusal } from './http/problems.ts';

export interface App {
  readonly express: Express;
  /** Closes what the app opened itself: the session store's connections. */
  close(): Promise<void>;
}

/** Puts the application together. Does not listen. */
export function createApp(database: Database, config: Config, logger: Logger): App {
  const app = express();
  app.disable('x-powered-by');
  if (config.behindTls) app.set('trust proxy', 1);
  app.use(
    pinoHttp({
      logger,
      genReqId: newRequestId,
      autoLogging: { ignore: (request) => request.url === '/api/v1/health' },
    }),
  );
  app.use(securityHeaders(config));
  app.use(compression());
  const sessionPool = new pg.Pool({ connectionString: config.databaseUrl, max: 3 });
  app.use('/api/v1', api(database, config, sessionPool));
  if (config.webDir) serveWeb(app, config.webDir);
  app.use(handleErrors);
  return { express: app, close: () => sessionPool.end() };
}

function securityHeaders(config: Config) {
  return helmet({
    strictTransportSecurity: config.behindTls,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        // Components and charts position themselves by inline styles.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:'],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
  });
}

function api(database: Database, config: Config, sessionPool: pg.Pool): Router {
  const router = Router();
  router.get('/health', async (_request, response) => {
    await database.sequelize.query('select 1');
    response.json({ status: 'ok' });
  });
  router.use(publicRoutes(database));
  router.use(publicPictureRoutes(database, config.dataDir));
  router.use(publicCalendarRoutes(database));
  router.use(outsideRoutes(database, config.dataDir));
  const PgStore = connectPgSimple(session);
  router.use(
    session({
      name: 'karyotome',
      secret: config.sessionSecret,
      store: new PgStore({ pool: sessionPool, tableName: 'sessions', pruneSessionInterval: false }),
      resave: false,
      saveUninitialized: false,
      rolling: true,
      cookie: { httpOnly: true, sameSite: 'lax', secure: config.behindTls, maxAge: 30 * 86_400_000 },
    }),
  );
  router.use(identifyActor(database));
  const { generateToken, csrfSynchronisedProtection, invalidCsrfTokenError } = csrfSync({
    // Signing in starts a session, so it cannot carry the session's token yet.
    skipCsrfProtection: (request) => request.path === '/session' && request.method === 'POST',
    getTokenFromRequest: (request) => request.get('X-CSRF-Token') ?? null,
  });
  router.use(csrfSynchronisedProtection);
  router.use(((error, _request, _response, next) => {
    next(
      error === invalidCsrfTokenError
        ? new Refusal('stale-page', 'The token against forged requests is missing or old.')
        : error,
    );
  }) as express.ErrorRequestHandler);
  // Above the longest text any field takes, so that too long a text is refused by its field's name.
  router.use(express.json({ limit: '12mb' }));
  const endpoints = createEndpoints(database, tellChanged);
  router.use(sessionRoutes(database, config, generateToken));
  router.use(settingsRoutes(endpoints));
  router.use(changeRoutes());
  router.use(catalogueRoutes(endpoints));
  router.use(geneticsRoutes(endpoints));
  router.use(animalRoutes(endpoints));
  router.use(importRoutes(endpoints));
  router.use(recordRoutes(endpoints));
  router.use(breedingRoutes(endpoints));
  router.use(benchRoutes(endpoints));
  router.use(labelRoutes(endpoints, database, config.dataDir));
  router.use(seasonRoutes(endpoints));
  router.use(incubationRoutes(endpoints, database, config.dataDir));
  router.use(plannerRoutes(endpoints));
  router.use(calendarRoutes(endpoints));
  router.use(rackRoutes(endpoints));
  router.use(feedingRoutes(endpoints));
  router.use(roundRoutes(endpoints));
  router.use(roomRoutes(endpoints));
  router.use(todayRoutes(endpoints));
  router.use(pictureRoutes(endpoints, database, config.dataDir));
  router.use(publicationRoutes(endpoints));
  router.use(noSuchRoute);
  return router;
}

function serveWeb(app: Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(join(webDir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(webDir, { index: false, cacheControl: false }));
  app.get('/{*path}', (_request, response) => {
    response.sendFile(join(webDir, 'index.html'), { headers: { 'Cache-Control': 'no-cache' } });
  });
}
