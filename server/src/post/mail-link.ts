import { DEFAULT_LOCALE, letterText, Reader, type LetterFact } from '@karyotome/words';
import { createTransport } from 'nodemailer';
import type { Config } from '../config.ts';
import { toHtml } from './letter-html.ts';

/*
 * Links that let people in, mailed at once and stored nowhere: whoever could read one among letters would be let in. Their address
 * is the one that was configured, never one that a request names.
 */

export type LinkMail = Pick<Config, 'smtpUrl' | 'mailFrom' | 'publicAddress'>;

/** Whether links can be mailed: to where people really are, by a mail server that is configured. */
export const canMailLinks = ({ smtpUrl, publicAddress }: LinkMail): boolean =>
  smtpUrl !== null && publicAddress !== null;

/**
 * @param letter - by the address that its link begins with
 * @returns whether it was handed to the mail server; not where links cannot be mailed
 * @throws what the mail server refuses
 */
export async function mailLink(
  { smtpUrl, mailFrom, publicAddress }: LinkMail,
  to: string,
  letter: (address: string) => LetterFact,
): Promise<boolean> {
  if (smtpUrl === null || publicAddress === null) return false;
  const { subject, paragraphs } = letterText(
    letter(publicAddress),
    new Reader({ locale: DEFAULT_LOCALE, massUnit: 'g', temperatureUnit: 'C' }),
  );
  await createTransport(smtpUrl).sendMail({
    from: { name: 'Karyotome', address: mailFrom },
    to,
    subject,
    text: paragraphs.join('\n\n'),
    html: toHtml(paragraphs),
    headers: { 'Auto-Submitted': 'auto-generated' },
  });
  return true;
}
