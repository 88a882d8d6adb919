import { fstatSync } from 'node:fs';
import { backUp, restore, verify } from './backup/commands.ts';
import { withDatabase } from './db/open.ts';
import { readConfig, type Config } from './config.ts';
import { createResetCode, RESET_HOURS } from './domain/accounts/password-reset.ts';
import { removeSecondFactorOf } from './domain/accounts/second-factor.ts';
import { importCollection } from './export/read-export.ts';
import { openStore } from './files/open-store.ts';
import { OperatorError } from './operator-error.ts';
import { Refusal } from './refusal.ts';

/*
 * What whoever runs the server does beside it. Run by npm run admin, backup and restore: those open files that the server's
 * own user may not, and hand them over as descriptors.
 */

const USAGE = `npm run admin -- reset-password E-MAIL
npm run admin -- remove-second-factor E-MAIL
npm run admin -- backup-passphrase`;

/** Says how to call it. */
class Usage extends OperatorError {}

async function resetPassword(config: Config, email: string | undefined): Promise<void> {
  if (!email) throw new Usage(USAGE);
  const code = await withDatabase(config.databaseUrl, (database) =>
    createResetCode(database, email, config.signingSecret),
  );
  if (code === null) throw new OperatorError(`No account has the address ${email}.`);
  console.log(`Open this address within ${RESET_HOURS} hours to choose a new password. It is good once:`);
  console.log(`http://${config.host}:${config.port}/reset#${code}`);
}

/** For somebody who has lost the authenticator and the recovery codes. */
async function removeSecondFactor(config: Config, email: string | undefined): Promise<void> {
  if (!email) throw new Usage(USAGE);
  const isRemoved = await withDatabase(config.databaseUrl, (database) =>
    removeSecondFactorOf(database, email),
  );
  if (!isRemoved) throw new OperatorError(`No account with a second factor has the address ${email}.`);
  console.log(`${email} signs in with the password alone now.`);
}

/** Takes in a collection that was exported, from the descriptor that the launcher hands over. */
async function importArchive(config: Config, email: string | undefined): Promise<void> {
  if (!email) throw new Usage('npm run import -- ARCHIVE --owner E-MAIL');
  const files = await openStore(config, () => undefined);
  const {
    name,
    rows,
    files: count,
    missing,
  } = await importCollection({ databaseUrl: config.directDatabaseUrl, files }, HANDED_OVER, email);
  console.log(
    `Took in ${name}: ${rows} rows and ${count} files. ${email} owns it, and finds it under Your account.`,
  );
  for (const path of missing) console.log(`Was missing already where it was exported: ${path}`);
}

/** The descriptor that a launcher hands over; null where it hands over none. */
function descriptorHandedOver(): number | null {
  try {
    return fstatSync(HANDED_OVER).isFile() ? HANDED_OVER : null;
  } catch {
    return null;
  }
}
/** The first after standard input, output and errors. */
const HANDED_OVER = 3;

/** What the environment says goes before what was restored. */
function warnOfEnvironment(signingSecret: string): void {
  if (readConfig(process.env).signingSecret !== signingSecret)
    console.error(
      'SIGNING_SECRET of the environment is another one than in the backup: without the restored one, which lies in the data folder, signing keys cannot be opened.',
    );
}

async function main([command, argument]: readonly string[]): Promise<void> {
  const config = readConfig(process.env);
  switch (command) {
    case 'reset-password':
      return resetPassword(config, argument);
    case 'remove-second-factor':
      return removeSecondFactor(config, argument);
    case 'import':
      return importArchive(config, argument);
    case 'backup-passphrase':
      return console.log(config.backupPassphrase);
    case 'backup':
      return backUp(config, descriptorHandedOver());
    case 'verify':
      return verify(config, HANDED_OVER);
    case 'restore':
      return warnOfEnvironment(await restore(config, HANDED_OVER));
    default:
      throw new Usage(USAGE);
  }
}

try {
  await main(process.argv.slice(2));
} catch (error) {
  const isTold = error instanceof OperatorError || error instanceof Refusal;
  console.error(isTold ? (error as Error).message : error);
  process.exitCode = error instanceof Usage ? 2 : 1;
}
