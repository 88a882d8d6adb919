import { DEFAULT_LOCALE, letterText, Reader } from '@karyotome/words';
import { createTransport } from 'nodemailer';
import type { Config } from '../config.ts';
import type { Database } from '../db/work.ts';
import { createResetCode, RESET_HOURS } from '../domain/accounts/password-reset.ts';
import { toHtml } from './letter-html.ts';

type MailConfig = Pick<Config, 'smtpUrl' | 'mailFrom' | 'publicAddress' | 'signingSecret'>;

/** Whether links for another password can be mailed: to where people really are, by a mail server that is configured. */
export const canMailResets = ({ smtpUrl, publicAddress }: MailConfig): boolean =>
  smtpUrl !== null && publicAddress !== null;

/**
 * Mails a link for another password to whoever has the address. It is sent at once and stored nowhere: whoever could read it
 * among letters would choose the password. Its address is the one that was configured, never one that a request names.
 */
export async function mailReset(database: Database, config: MailConfig, email: string): Promise<void> {
  const { smtpUrl, mailFrom, publicAddress, signingSecret } = config;
  const account = (await database.models.accounts.findOne({ where: { email } }))?.get();
  const code = account && (await createResetCode(database, email, signingSecret));
  if (!account || !code || smtpUrl === null || publicAddress === null) return;
  const { subject, paragraphs } = letterText(
    {
      code: 'password-forgotten',
      facts: { name: account.name, address: `${publicAddress}/reset#${code}`, hours: RESET_HOURS },
    },
    new Reader({ locale: DEFAULT_LOCALE, massUnit: 'g', temperatureUnit: 'C' }),
  );
  await createTransport(smtpUrl).sendMail({
    from: { name: 'Karyotome', address: mailFrom },
    to: email,
    subject,
    text: paragraphs.join('\n\n'),
    html: toHtml(paragraphs),
    headers: { 'Auto-Submitted': 'auto-generated' },
  });
}
