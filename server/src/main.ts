import { mkdirSync } from 'node:fs';
import { createServer } from 'node:http';
import { Server, type AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from './app.ts';
import { setClockAhead } from './clock.ts';
import { readConfig } from './config.ts';
import { forLog } from './db/faults.ts';
import { migrate } from './db/migrate.ts';
import { openDatabase } from './db/open.ts';
import { endAllStreams } from './http/event-streams.ts';
import { stopEngine } from './domain/genetics/engine-client.ts';
import { startSensors } from './domain/incubation/sensor.ts';
import { ensureOwner } from './features/session/first-start.ts';
import { sweepFiles } from './files/sweep.ts';
import { stopThreads } from './threads/pool.ts';
import { lapseEverywhere } from './domain/sales/lapse.ts';
import { lapseOffers } from './domain/waiting/offer-to-first.ts';
import { startPost } from './post/start-post.ts';
import { startUpkeep } from './upkeep/upkeep.ts';

/** Accepted requests have so long to end when the server is told to stop. */
const GRACE_MS = 20_000;
/** Connections that the system has taken already, and this process not yet, are still taken for so long. */
const KNOCKED_MS = 150;
const LEAST_TURNS = 30;
/** A connection without a request is closed only so long after: what is on its way on it arrives. */
const IDLE_MS = 700;
/** A client has so long to send a request's headers. */
const HEADERS_MS = 20_000;

if (process.env['KARYOTOME_DATA']) mkdirSync(process.env['KARYOTOME_DATA'], { recursive: true, mode: 0o700 });
const config = readConfig(process.env);
setClockAhead(config.clockAheadDays);
const logger = pino({ level: config.logLevel });
if (config.clockAheadDays > 0)
  logger.warn(
    { days: config.clockAheadDays },
    'the clock is ahead: what is recorded is dated later than it was',
  );
const onFault = (error: unknown): void => logger.error({ fault: forLog(error) }, 'something failed');
// One request's fault must not end the others'; what is not caught anywhere is a mistake of ours, and is told.
process.on('unhandledRejection', onFault);

const database = openDatabase(config.databaseUrl, onFault, { log: (sql) => logger.debug({ sql }) });
await migrate(database.sequelize);
await ensureOwner(database, config);
const app = createApp(database, config, logger);
// No limit on the whole: a photograph over a slow line arrives as long as it moves (http/limits.ts).
const server = createServer({ requestTimeout: 0, headersTimeout: HEADERS_MS }, app.express);
server.on('error', (error: NodeJS.ErrnoException) => {
  const taken = error.code === 'EADDRINUSE';
  console.error(taken ? `Port ${config.port} is taken. Set PORT to another one.` : error.message);
  process.exit(1);
});
server.listen(config.port, config.host, () => {
  console.log(`listening ${(server.address() as AddressInfo).port}`);
});

const stopSensors = startSensors(database, onFault);
const stopPost = await startPost(database, config, onFault);
const stopUpkeep = startUpkeep(database, onFault, [lapseEverywhere, lapseOffers]);
sweepFiles(database, config.dataDir).then(({ removed, missing }) => {
  if (removed.length > 0) logger.warn({ files: removed.length }, 'removed files that no record names');
  for (const { folder, name } of missing)
    console.error(
      `Missing from the data folder: ${folder}/${name}. A record names it; a backup may hold it.`,
    );
}, onFault);

async function letIn(): Promise<void> {
  const until = Date.now() + KNOCKED_MS;
  for (let turn = 0; turn < LEAST_TURNS || Date.now() < until; turn++)
    await new Promise((resolve) => setTimeout(resolve, 2));
}

let stopping = false;
// What is answered from then on is the last on its connection.
server.prependListener('request', (_request, response) => {
  if (stopping) response.setHeader('Connection', 'close');
});
/** Accepts nothing more, lets what was accepted end, and goes. */
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  stopSensors();
  stopUpkeep();
  await stopPost();
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
  await app.close();
  await stopEngine();
  await stopThreads();
  await database.sequelize.close();
  // An open pipe from the launcher would keep the process alive.
  process.stdin.destroy();
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
// Started by a launcher, the server ends with it, even when the launcher was killed.
if (process.env['KARYOTOME_PARENT']) process.stdin.on('end', () => void stop()).resume();
