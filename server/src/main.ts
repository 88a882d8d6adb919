import cluster from 'node:cluster';
import { mkdirSync } from 'node:fs';
import { pino } from 'pino';
import { noteBackup } from './backup/backups.queries.ts';
import { backUpBeforeMigration } from './backup/nightly.ts';
import { setClockAhead } from './clock.ts';
import { readConfig } from './config.ts';
import { refuseUnboundRole } from './db/bound-role.ts';
import { forLog } from './db/faults.ts';
import { migrate } from './db/migrate.ts';
import { keepNoPlans } from './db/statement.ts';
import { closeDatabase, openDatabase } from './db/open.ts';
import { firstStartCode } from './domain/accounts/first-owner.ts';
import { OperatorError } from './operator-error.ts';
import { runProcesses } from './processes.ts';
import { serve } from './serve.ts';
import { forgetComputedByOthers, thisBuild } from './upkeep/forget-computed.ts';

async function start(): Promise<void> {
  if (process.env['KARYOTOME_DATA'])
    mkdirSync(process.env['KARYOTOME_DATA'], { recursive: true, mode: 0o700 });
  const config = readConfig(process.env);
  setClockAhead(config.clockAheadDays);
  const logger = pino({ level: config.logLevel });
  const onFault = (error: unknown): void => logger.error({ fault: forLog(error) }, 'something failed');
  // One request's fault must not end the others'; what is not caught anywhere is a mistake of ours, and is told.
  process.on('unhandledRejection', onFault);
  if (config.isPooledByTransaction) keepNoPlans();
  const database = openDatabase(config.databaseUrl, onFault, {
    log: (sql) => logger.debug({ sql }),
    standbyUrl: config.standbyDatabaseUrl,
  });

  if (cluster.isWorker) await serve(database, config, logger, onFault);
  else {
    if (config.clockAheadDays > 0)
      logger.warn(
        { days: config.clockAheadDays },
        'the clock is ahead: what is recorded is dated later than it was',
      );
    await refuseUnboundRole(database.sequelize);
    const backup = await backUpBeforeMigration(database, config);
    await migrate(database.sequelize);
    if (backup) await noteBackup(database.sequelize, 'before-migration', config.backupFolder!, backup);
    const build = thisBuild();
    if (build) await forgetComputedByOthers(database, build);
    const code = await firstStartCode(database, config.signingSecret);
    if (config.processes === 1) await serve(database, config, logger, onFault, code);
    else {
      await closeDatabase(database);
      runProcesses(config, onFault, code);
    }
  }
}

try {
  await start();
} catch (error) {
  if (!(error instanceof OperatorError)) throw error;
  // Whoever runs the server reads what to do, and no stack.
  console.error(error.message);
  process.exit(1);
}
