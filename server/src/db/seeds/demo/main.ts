import { mkdirSync } from 'node:fs';
import { connect } from '../../connection.ts';
import { migrate } from '../../migrate.ts';
import { createModels } from '../../models.ts';
import { readConfig } from '../../../config.ts';
import { stopEngine } from '../../../features/genetics/engine-client.ts';
import { loadDemo } from './demo.ts';

/* Loads the demo farm into an empty database; leaves any other as it is. Run by npm run demo and by the tests. */
mkdirSync(process.env['KARYOTOME_DATA'] ?? '.data', { recursive: true, mode: 0o700 });
const config = readConfig(process.env);
const sequelize = connect(config.databaseUrl);
try {
  await migrate(sequelize);
  const database = { sequelize, models: createModels(sequelize) };
  if ((await database.models.accounts.count()) === 0) {
    console.log('Loading the demo farm');
    await loadDemo(database, config.dataDir);
  }
} finally {
  await stopEngine();
  await sequelize.close();
}
