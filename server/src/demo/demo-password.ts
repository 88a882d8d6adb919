import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { writeDurably } from '../files/durable.ts';
import { textIfThere } from '../files/text-if-there.ts';

/** Where the demo leaves how to sign in, readable by the data folder's owner alone. Only the demo does. */
const FILE = 'owner-sign-in.txt';

/**
 * The password of the demo's owner, on the disk before the account is: whatever cuts the loading off, the next one finds
 * either no account and this password, or both.
 */
export async function demoPassword(dataDir: string, email: string): Promise<string> {
  const file = join(dataDir, FILE);
  const [keptEmail, kept] = (textIfThere(file) ?? '').split('\n');
  if (kept && keptEmail === email) return kept;
  const password = randomBytes(9).toString('base64url');
  await writeDurably(file, `${email}\n${password}\n`);
  return password;
}
