import cluster from 'node:cluster';
import { createServer, type Server as HttpServer } from 'node:http';
import { Server, type AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import { announce } from './announce.ts';
import { createApp } from './app.ts';
import { keptDuringBackups } from './backup/kept-during-backups.ts';
import { backUpNightly } from './backup/nightly.ts';
import { now } from './clock.ts';
import type { Config } from './config.ts';
import { closeDatabase } from './db/open.ts';
import type { Database } from './db/work.ts';
import { endInOrder } from './ending.ts';
import { endAllStreams } from './http/event-streams.ts';
import { emptyBin } from './domain/bin/bin.service.ts';
import { stopEngine } from './domain/genetics/engine-client.ts';
import { storeClaims } from './domain/genetics/stored-claims.ts';
import { readSensors } from './domain/climate/sensor.ts';
import { rollOver } from './domain/states/roll-over.ts';
import { deliverWebhooks } from './domain/webhooks/deliver.ts';
import type { FileStore } from './files/file-store.ts';
import { openStore } from './files/open-store.ts';
import { sweepFiles } from './files/sweep.ts';
import { startRecurring, type RecurringTask } from './jobs/recurring.ts';
import { stopThreads } from './threads/pool.ts';
import { lapseEverywhere } from './domain/sales/lapse.ts';
import { lapseOffers } from './domain/waiting/offer-to-first.ts';
import { startPost } from './post/start-post.ts';
import { joinRelay } from './relay.ts';
import { tidy } from './upkeep/upkeep.ts';

/** Accepted requests have so long to end when the server is told to stop. */
const GRACE_MS = 20_000;
/** All that ends with the process has so long, requests included: then it goes as it is. */
const LIMIT_MS = 45_000;
/** Connections that the system has taken already, and this process not yet, are still taken for so long. */
const KNOCKED_MS = 150;
const LEAST_TURNS = 30;
/** A connection without a request is closed only so long after: what is on its way on it arrives. */
const IDLE_MS = 700;
/** A client has so long to send a request's headers. */
const HEADERS_MS = 20_000;

/** What is done over and over, by one of the processes each time. */
const recurringTasks = (database: Database, files: FileStore, config: Config): RecurringTask[] => [
  { name: 'tidy', cron: '*/10 * * * *', run: () => tidy(database) },
  { name: 'empty-bin', cron: '*/30 * * * *', run: () => emptyBin(database, files) },
  {
    name: 'deliver-webhooks',
    cron: '* * * * *',
    run: () =>
      deliverWebhooks(database, {
        signingSecret: config.signingSecret,
        isPrivateAllowed: config.isWebhookPrivateAllowed,
      }),
  },
  { name: 'lapse-reservations', cron: '*/10 * * * *', run: () => lapseEverywhere(database) },
  { name: 'lapse-offers', cron: '*/10 * * * *', run: () => lapseOffers(database) },
  { name: 'read-sensors', cron: '*/10 * * * *', run: () => readSensors(database, now()) },
  { name: 'store-claims', cron: '*/10 * * * *', run: () => storeClaims(database) },
  { name: 'back-up', cron: '*/20 * * * *', run: () => backUpNightly(database, files, config) },
  { name: 'roll-over', cron: '*/20 * * * *', run: () => rollOver(database) },
];

/**
 * Serves in this process, alone or beside others, until it is told to stop.
 *
 * @param code - of the first start; null where there is an owner
 */
export async function serve(
  database: Database,
  config: Config,
  logger: Logger,
  onFault: (error: unknown) => void,
  code: string | null = null,
): Promise<void> {
  const leaveRelay = joinRelay(config.directDatabaseUrl, onFault);
  const files = keptDuringBackups(await openStore(config, onFault), database);
  const app = createApp(database, files, config, logger);
  // No limit on the whole: a photograph over a slow line arrives as long as it moves (http/limits.ts).
  const server = createServer({ requestTimeout: 0, headersTimeout: HEADERS_MS }, app.express);
  server.on('error', (error: NodeJS.ErrnoException) => {
    const taken = error.code === 'EADDRINUSE';
    console.error(taken ? `Port ${config.port} is taken. Set PORT to another one.` : error.message);
    process.exit(1);
  });
  server.listen(config.port, config.host, () => {
    // Beside others, the process that started them says it.
    if (!cluster.isWorker) announce(config, (server.address() as AddressInfo).port, code);
  });

  let stopping = false;
  // What is answered from then on is the last on its connection.
  server.prependListener('request', (_request, response) => {
    if (stopping) response.setHeader('Connection', 'close');
  });
  // What is beginning yet when the process is told to stop is ended once it has begun.
  const endRecurring = startRecurring(database, config.databaseUrl, recurringTasks(database, files, config));
  const post = startPost(database, config, onFault);
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    const isWhole = await endInOrder(
      [
        { name: 'accepted requests', end: () => endRequests(server) },
        { name: 'recurring work', end: endRecurring },
        { name: 'post', end: async () => (await post)() },
        { name: 'the relay', end: leaveRelay },
        { name: 'the application', end: () => app.close() },
        { name: "the engine's thread", end: stopEngine },
        { name: 'threads', end: stopThreads },
        { name: 'connections to the database', end: () => closeDatabase(database) },
      ],
      LIMIT_MS,
      onFault,
    );
    process.exit(isWhole ? 0 : 1);
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
  // Beside others, it ends in order as well when the process that started them was killed: Node would end it at once, with
  // requests in its hands.
  cluster.worker?.once('disconnect', () => {
    cluster.worker!.exitedAfterDisconnect = true;
    void stop();
  });
  // Started by a launcher, the server ends with it, even when the launcher was killed.
  if (config.hasLauncher && !cluster.isWorker) process.stdin.on('end', () => void stop()).resume();

  await post;
  if (!cluster.isWorker || cluster.worker?.id === 1) await sweep(database, files, logger).catch(onFault);
}

/** Accepts nothing more, and lets what was accepted end. */
async function endRequests(server: HttpServer): Promise<void> {
  // Who has knocked already is let in first: a busy process needs some turns for it, not only time.
  await letIn();
  // Listens no more; unlike the HTTP server's own close, it leaves connections whose request is still being read.
  const closed = new Promise((resolve) => Server.prototype.close.call(server, resolve));
  endAllStreams();
  const idle = setInterval(() => server.closeIdleConnections(), IDLE_MS);
  const late = setTimeout(() => server.closeAllConnections(), GRACE_MS);
  await closed;
  clearInterval(idle);
  clearTimeout(late);
}

/** Removes files that no record names, and tells of those that are missing. */
async function sweep(database: Database, files: FileStore, logger: Logger): Promise<void> {
  const { removed, missing } = await sweepFiles(database, files);
  if (removed.length > 0) logger.warn({ files: removed.length }, 'removed files that no record names');
  for (const { folder, name } of missing)
    console.error(
      `Missing from where files are kept: ${folder}/${name}. A record names it; a backup may hold it.`,
    );
}

async function letIn(): Promise<void> {
  const until = Date.now() + KNOCKED_MS;
  for (let turn = 0; turn < LEAST_TURNS || Date.now() < until; turn++)
    await new Promise((resolve) => setTimeout(resolve, 2));
}
