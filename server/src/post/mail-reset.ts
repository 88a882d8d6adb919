import type { Config } from '../config.ts';
import type { Database } from '../db/work.ts';
import { createResetCode, RESET_HOURS } from '../domain/accounts/password-reset.ts';
import { mailLink, type LinkMail } from './mail-link.ts';

/** Mails a link for another password to whoever has the address. */
export async function mailReset(
  database: Database,
  config: LinkMail & Pick<Config, 'signingSecret'>,
  email: string,
): Promise<void> {
  const account = (await database.models.accounts.findOne({ where: { email } }))?.get();
  const code = account && (await createResetCode(database, email, config.signingSecret));
  if (!account || !code) return;
  const { name } = account;
  await mailLink(config, email, (address) => ({
    code: 'password-forgotten',
    facts: { name, address: `${address}/reset#${code}`, hours: RESET_HOURS },
  }));
}
