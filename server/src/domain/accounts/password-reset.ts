import { createHmac } from 'node:crypto';
import { readId, type PasswordReset } from '@karyotome/contract';
import { nowMs } from '../../clock.ts';
import type { Database } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { endSessionsOf } from './accounts.queries.ts';
import { noteAct } from '../history/history.queries.ts';
import { checkNewPassword } from './password-rules.ts';
import { isSame } from './secret-code.ts';
import { hashPassword } from './session.service.ts';

/*
 * A link by which somebody who has forgotten their password chooses another one. Nothing of it is kept: its code is made of the
 * account, the moment it runs out, the password as it is and the server's own secret. So it is good once: with the new password
 * it is no code any more, and neither are others that were made before.
 */

export const RESET_HOURS = 2;

const codeOf = (id: string, expires: number, passwordHash: string, secret: string): string =>
  `${id}.${expires}.${createHmac('sha256', secret).update(`password reset ${id} ${expires} ${passwordHash}`).digest('base64url')}`;

/** @returns null where no account has the address */
export async function createResetCode(
  { models }: Database,
  email: string,
  secret: string,
): Promise<string | null> {
  const account = (await models.accounts.findOne({ where: { email: email.toLowerCase() } }))?.get();
  if (!account) return null;
  const expires = Math.floor(nowMs() / 1000) + RESET_HOURS * 3600;
  return codeOf(account.id, expires, account.passwordHash, secret);
}

/**
 * Gives an account the password that was chosen, and ends all its sessions.
 *
 * @returns the sessions that ended
 * @throws Refusal `not-found` where the code is none, was used, or has run out
 */
export async function resetPassword(
  database: Database,
  { code, password }: PasswordReset,
  secret: string,
): Promise<readonly string[]> {
  const { models, sequelize } = database;
  const none = new Refusal('not-found', 'This link was used, or has run out.');
  const [text = '', seconds = ''] = code.split('.');
  const id = readId(text);
  const account = id === null ? undefined : (await models.accounts.findByPk(id))?.get();
  if (!account || !/^\d{1,12}$/.test(seconds) || Number(seconds) * 1000 < nowMs()) throw none;
  if (!isSame(code, codeOf(account.id, Number(seconds), account.passwordHash, secret))) throw none;
  checkNewPassword(password, 'password', [account.name, account.email.split('@')[0]!]);
  const passwordHash = await hashPassword(password);
  return sequelize.transaction(async (transaction) => {
    const unchanged = { id: account.id, passwordHash: account.passwordHash };
    const [changed] = await models.accounts.update({ passwordHash }, { where: unchanged, transaction });
    // Two who use it at once: the second finds another password than the code was made of.
    if (changed === 0) throw none;
    await noteAct(database, 'password-changed', { accountId: account.id }, transaction);
    return endSessionsOf(transaction, { accountId: account.id });
  });
}
