import { mkdirSync } from 'node:fs';
import { migrate } from '../db/migrate.ts';
import { openDatabase } from '../db/open.ts';
import { readConfig } from '../config.ts';
import { stopEngine } from '../domain/genetics/engine-client.ts';
import { openStore } from '../files/open-store.ts';
import { loadDemo } from './demo.ts';

/* Loads the demo farm into an empty database; leaves any other as it is. Run by npm run demo and by the tests. */
mkdirSync(process.env['KARYOTOME_DATA'] ?? '.data', { recursive: true, mode: 0o700 });
const config = readConfig(process.env);
const onFault = (error: unknown): void => console.error(error);
const database = openDatabase(config.databaseUrl, onFault);
try {
  await migrate(database.sequelize);
  if ((await database.models.accounts.count()) === 0) {
    console.log('Loading the demo farm');
    await loadDemo(database, await openStore(config, onFault), config);
  }
} finally {
  await stopEngine();
  await database.sequelize.close();
}
