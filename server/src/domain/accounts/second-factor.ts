import { createHmac, randomUUID } from 'node:crypto';
import type { SecondFactorStart, SecondFactorView } from '@karyotome/contract';
import { base32nopad } from '@scure/base';
import { Secret, TOTP } from 'otpauth';
import { now } from '../../clock.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { invalidField, Refusal } from '../../refusal.ts';
import { keyFromSecret, sealed, unsealed } from '../../sealing.ts';
import { noteAct } from '../history/history.queries.ts';
import { useRecoveryCode, useStep } from './second-factor.queries.ts';

/*
 * A second factor: time-based codes of an authenticator (RFC 6238: SHA-1, six digits, 30 seconds, as authenticators expect it),
 * and recovery codes for when it is lost. The authenticator's secret is sealed by the server's own; recovery codes are made of
 * that as well, so that the database holds none of them.
 */

const ISSUER = 'Karyotome';
/** Codes of so many steps before and after are taken: clocks differ. */
const WINDOW = 1;
const RECOVERY_CODES = 10;
/** Fifty bits. */
const RECOVERY_LENGTH = 10;

const keyFor = (serverSecret: string, accountId: string): Buffer =>
  keyFromSecret(serverSecret, accountId, 'second factor');

function totpOf(sealedSecret: string, { accountId, secret }: Owner, label = ''): TOTP {
  const bytes = unsealed(sealedSecret, keyFor(secret, accountId));
  if (bytes === null)
    throw new Refusal(
      'conflict',
      'The second factor cannot be read: the secret in the data folder is another one than when it was set up. Whoever runs the server can turn it off: npm run admin -- remove-second-factor E-MAIL.',
    );
  return new TOTP({ issuer: ISSUER, label, secret: new Secret({ buffer: Uint8Array.from(bytes).buffer }) });
}

/** Whose it is. */
interface Owner {
  readonly accountId: string;
  /** The server's own. */
  readonly secret: string;
}

function recoveryCodes(set: string, { accountId, secret }: Owner): string[] {
  return Array.from({ length: RECOVERY_CODES }, (_, i) =>
    base32nopad
      .encode(createHmac('sha256', secret).update(`recovery code ${accountId} ${set} ${i}`).digest())
      .slice(0, RECOVERY_LENGTH)
      .toLowerCase(),
  );
}

export async function viewSecondFactor({
  models,
  transaction,
  actor,
}: Work<Actor>): Promise<SecondFactorView> {
  const row = (await models.secondFactors.findByPk(actor.accountId, { transaction }))?.get();
  if (!row?.confirmedAt) return { since: null, recoveryCodesLeft: 0 };
  return {
    since: row.confirmedAt.toISOString(),
    recoveryCodesLeft: RECOVERY_CODES - row.usedCodes.length,
  };
}

/** Makes a secret for an authenticator. It counts once a first code was given. */
export async function beginSecondFactor(work: Work<Actor>, secret: string): Promise<void> {
  const { accountId } = work.actor;
  const { models, transaction } = work;
  const known = (await models.secondFactors.findByPk(accountId, { transaction }))?.get();
  if (known?.confirmedAt)
    throw new Refusal('conflict', 'The second factor is on already: turn it off first.');
  await models.secondFactors.upsert(
    {
      accountId,
      sealedSecret: sealed(new Uint8Array(new Secret().buffer), keyFor(secret, accountId)),
      confirmedAt: null,
      lastStep: 0,
      recoverySet: randomUUID(),
      usedCodes: [],
    },
    { transaction },
  );
}

/** What the authenticator is set up with. @throws Refusal `conflict` once it is on: then it is told nobody any more */
export async function secondFactorStart({ models }: Database, owner: Owner): Promise<SecondFactorStart> {
  const row = (await models.secondFactors.findByPk(owner.accountId))?.get();
  if (!row || row.confirmedAt) throw new Refusal('conflict', 'The second factor is not being set up.');
  const { email } = (await models.accounts.findByPk(owner.accountId, { rejectOnEmpty: true })).get();
  const totp = totpOf(row.sealedSecret, owner, email);
  return { secret: totp.secret.base32, uri: totp.toString() };
}

/** Turns it on. @throws Refusal `invalid` where the code is not of this authenticator and moment */
export async function confirmSecondFactor(work: Work<Actor>, code: string, secret: string): Promise<void> {
  const { accountId } = work.actor;
  const { models, transaction } = work;
  const row = (await models.secondFactors.findByPk(accountId, { transaction }))?.get();
  if (!row || row.confirmedAt) throw new Refusal('conflict', 'The second factor is not being set up.');
  const step = stepOf(totpOf(row.sealedSecret, { accountId, secret }), plain(code));
  if (step === null) throw invalidField('code', 'is not what the authenticator shows now', 'code.wrong');
  await models.secondFactors.update(
    { confirmedAt: now(), lastStep: step },
    { where: { accountId }, transaction },
  );
  await noteAct(work, 'second-factor-on', { accountId, device: work.actor.device ?? null }, transaction);
}

export async function recoveryCodesOf({ models }: Database, owner: Owner): Promise<string[]> {
  const row = (await models.secondFactors.findByPk(owner.accountId))?.get();
  return row?.confirmedAt ? recoveryCodes(row.recoverySet, owner) : [];
}

/** Those that were told before are none any more. */
export async function newRecoveryCodes({ models, transaction, actor }: Work<Actor>): Promise<void> {
  const [changed] = await models.secondFactors.update(
    { recoverySet: randomUUID(), usedCodes: [] },
    { where: { accountId: actor.accountId }, transaction },
  );
  if (changed === 0) throw new Refusal('conflict', 'There is no second factor.');
}

export async function removeSecondFactor(work: Work<Actor>): Promise<void> {
  const { accountId } = work.actor;
  const { models, transaction } = work;
  if ((await models.secondFactors.destroy({ where: { accountId }, transaction })) > 0)
    await noteAct(work, 'second-factor-off', { accountId, device: work.actor.device ?? null }, transaction);
}

/** For whoever runs the server. @returns false where no account with a second factor has the address */
export async function removeSecondFactorOf(database: Database, email: string): Promise<boolean> {
  const { models } = database;
  const account = (await models.accounts.findOne({ where: { email: email.toLowerCase() } }))?.get();
  if (!account || (await models.secondFactors.destroy({ where: { accountId: account.id } })) === 0)
    return false;
  await noteAct(database, 'second-factor-off', { accountId: account.id });
  return true;
}

/** The time step that a code is of; null where it is of none near now. The real time, however far ahead days are counted. */
function stepOf(totp: TOTP, code: string): number | null {
  const timestamp = Date.now();
  const delta = totp.validate({ token: code, timestamp, window: WINDOW });
  return delta === null ? null : totp.counter({ timestamp }) + delta;
}

/** As people copy it, without what groups it. */
const plain = (code: string): string => code.replaceAll(/[\s-]/g, '').toLowerCase();

const DIGITS = /^\d{6}$/;

/**
 * Lets pass who has given the second factor of an account, or whose account has none.
 *
 * @param given - null where none was given
 * @throws Refusal `code-needed`, `wrong-code`
 */
export async function requireSecondFactor(
  database: Database,
  owner: Owner,
  given: string | null,
  device: string | null,
): Promise<void> {
  const { accountId } = owner;
  const row = (await database.models.secondFactors.findByPk(accountId))?.get();
  if (!row?.confirmedAt) return;
  if (given === null)
    throw new Refusal(
      'code-needed',
      'Give the six digits that your authenticator shows, or a recovery code.',
    );
  const code = plain(given);
  if (DIGITS.test(code)) {
    const step = stepOf(totpOf(row.sealedSecret, owner), code);
    if (step !== null && (await useStep(database, { accountId, step }))) return;
  } else {
    const place = recoveryCodes(row.recoverySet, owner).indexOf(code);
    if (place >= 0 && (await useRecoveryCode(database, { accountId, place }))) {
      await noteAct(database, 'recovery-code-used', { accountId, device });
      return;
    }
  }
  throw new Refusal('wrong-code', 'Each code is good once, and those of an authenticator for a minute.');
}
