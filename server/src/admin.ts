import { createResetCode, RESET_HOURS } from './domain/accounts/password-reset.ts';
import { closeDatabase, openDatabase } from './db/open.ts';
import { readConfig } from './config.ts';

/* What whoever runs the server does beside it. Run by npm run admin. */

const USAGE = 'npm run admin -- reset-password E-MAIL';

const [command, email] = process.argv.slice(2);
if (command !== 'reset-password' || !email) {
  console.error(USAGE);
  process.exitCode = 2;
} else {
  const config = readConfig(process.env);
  const database = openDatabase(config.databaseUrl, (error) => console.error(error));
  try {
    const code = await createResetCode(database, email, config.signingSecret);
    if (code === null) {
      console.error(`No account has the address ${email}.`);
      process.exitCode = 1;
    } else {
      console.log(`Open this address within ${RESET_HOURS} hours to choose a new password. It is good once:`);
      console.log(`http://${config.host}:${config.port}/reset#${code}`);
    }
  } finally {
    await closeDatabase(database);
  }
}
