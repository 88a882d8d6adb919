import { mkdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from './app.ts';
import { readConfig } from './config.ts';
import { connect } from './db/connection.ts';
import { migrate } from './db/migrate.ts';
import { createModels } from './db/models.ts';
import { stopEngine } from './features/genetics/engine-client.ts';
import { startSensors } from './features/incubation/sensor.ts';
import { ensureOwner } from './features/session/first-start.ts';

if (process.env['KARYOTOME_DATA']) mkdirSync(process.env['KARYOTOME_DATA'], { recursive: true, mode: 0o700 });
const config = readConfig(process.env);
const logger = pino({
  level: config.logLevel,
  redact: ['req.headers.cookie', 'req.headers["x-csrf-token"]', 'res.headers["set-cookie"]'],
});
const sequelize = connect(config.databaseUrl, (sql) => logger.debug({ sql }));
const database = { sequelize, models: createModels(sequelize) };
await migrate(sequelize);
await ensureOwner(database, config);
const app = createApp(database, config, logger);
const server = app.express.listen(config.port, config.host);
server.on('error', (error: NodeJS.ErrnoException) => {
  const taken = error.code === 'EADDRINUSE';
  console.error(taken ? `Port ${config.port} is taken. Set PORT to another one.` : error.message);
  process.exit(1);
});
server.on('listening', () => console.log(`listening ${(server.address() as AddressInfo).port}`));

const stopSensors = startSensors(database, (error) =>
  logger.error({ err: error }, 'simulated sensor failed'),
);

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  stopSensors();
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await app.close();
  await stopEngine();
  await sequelize.close();
  // An open pipe from the launcher would keep the process alive.
  process.stdin.destroy();
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
// Started by a launcher, the server ends with it, even when the launcher was killed.
if (process.env['KARYOTOME_PARENT']) process.stdin.on('end', () => void stop()).resume();
