import { mkdirSync } from 'node:fs';
import { migrate } from '../db/migrate.ts';
import { openDatabase } from '../db/open.ts';
import { readConfig } from '../config.ts';
import { stopEngine } from '../domain/genetics/engine-client.ts';
import { loadDemo } from './demo.ts';

/* Loads the demo farm into an empty database; leaves any other as it is. Run by npm run demo and by the tests. */
mkdirSync(process.env['KARYOTOME_DATA'] ?? '.data', { recursive: true, mode: 0o700 });
const config = readConfig(process.env);
const database = openDatabase(config.databaseUrl, (error) => console.error(error));
try {
  await migrate(database.sequelize);
  if ((await database.models.accounts.count()) === 0) {
    console.log('Loading the demo farm');
    await loadDemo(database, config.dataDir, config.signingSecret);
  }
} finally {
  await stopEngine();
  await database.sequelize.close();
}
