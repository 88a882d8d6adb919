import { createTransport } from 'nodemailer';
import type { Config } from '../config.ts';
import type { Database } from '../db/work.ts';
import { startDelivery } from './deliver.ts';
import { openSimulatedOffice } from './simulated-office.ts';

/** Sends letters by the mail server that is configured, or else by the simulated post office. @returns ends it */
export async function startPost(
  database: Database,
  { smtpUrl, mailFrom }: Pick<Config, 'smtpUrl' | 'mailFrom'>,
  onFault: (error: unknown) => void,
): Promise<() => Promise<void>> {
  const office = smtpUrl === null ? await openSimulatedOffice(database) : null;
  const transport =
    office === null
      ? createTransport(smtpUrl!)
      : createTransport({ host: '127.0.0.1', port: office.port, secure: false, ignoreTLS: true });
  const stopDelivery = startDelivery(database, { transport, from: mailFrom }, onFault);
  return async () => {
    await stopDelivery();
    await office?.close();
  };
}
