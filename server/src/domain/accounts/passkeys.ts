import { createHmac, randomBytes, randomUUID } from 'node:crypto';
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type AuthenticatorTransport,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server';
import { now } from '../../clock.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { noteAct } from '../history/history.queries.ts';
import { isSame } from './secret-code.ts';

/*
 * Passkeys (WebAuthn Level 3). The authenticator verifies its user, by a finger, a face or a PIN: so a passkey is both factors at
 * once. Challenges are signed by the server's own secret instead of being kept; each is good for minutes, and once.
 */

const NAME = 'Karyotome';
const CHALLENGE_MS = 300_000;
const RANDOM_BYTES = 16;

/** Where the browser is, by which authenticators tell sites apart. */
export interface Site {
  /** Scheme, host and port. */
  readonly origin: string;
  /** The host alone. */
  readonly id: string;
}

type Purpose = 'register' | 'sign in';

const macOf = (purpose: Purpose, text: string, secret: string): string =>
  createHmac('sha256', secret).update(`passkey ${purpose} ${text}`).digest('base64url');

/** @param about - the account, or nothing where nobody is signed in */
function newChallenge(purpose: Purpose, about: string, secret: string): string {
  const text = `${randomBytes(RANDOM_BYTES).toString('base64url')}.${Date.now() + CHALLENGE_MS}`;
  return `${text}.${macOf(purpose, `${text} ${about}`, secret)}`;
}

/** @param challenge - as the authenticator got it: the text in base64url */
function isOwnChallenge(purpose: Purpose, about: string, challenge: string, secret: string): boolean {
  const [random = '', expires = '', mac = ''] = Buffer.from(challenge, 'base64url').toString().split('.');
  const isOwn = isSame(mac, macOf(purpose, `${random}.${expires} ${about}`, secret));
  return isOwn && Number(expires) >= Date.now();
}

const bytes = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(Buffer.from(text));

/** What an authenticator is asked for a new passkey of whoever is signed in. */
export async function registrationOptions(work: Work<Actor>, site: Site, secret: string): Promise<object> {
  const { accountId } = work.actor;
  const { models, transaction } = work;
  const account = await models.accounts.findByPk(accountId, { transaction, rejectOnEmpty: true });
  const known = await models.passkeys.findAll({ where: { accountId }, transaction });
  return generateRegistrationOptions({
    rpName: NAME,
    rpID: site.id,
    userID: bytes(accountId),
    userName: account.get().email,
    userDisplayName: account.get().name,
    challenge: bytes(newChallenge('register', accountId, secret)),
    attestationType: 'none',
    excludeCredentials: known.map((row) => ({ id: row.get().credentialId })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
}

/** A passkey as an authenticator made it. */
export interface Registered {
  readonly credentialId: string;
  readonly publicKey: Buffer;
  readonly counter: number;
  readonly transports: readonly string[];
}

/** @throws Refusal `invalid` where it was made for another site, account or question */
export async function checkRegistration(
  { accountId }: Actor,
  response: object,
  site: Site,
  secret: string,
): Promise<Registered> {
  const answer = response as RegistrationResponseJSON;
  const checked = await verifyRegistrationResponse({
    response: answer,
    expectedChallenge: (challenge) => isOwnChallenge('register', accountId, challenge, secret),
    expectedOrigin: site.origin,
    expectedRPID: site.id,
    requireUserVerification: true,
  }).catch(() => null);
  if (!checked?.verified)
    throw invalidField('response', 'is no passkey for this site: try again', 'passkey.wrong');
  const { id, publicKey, counter, transports } = checked.registrationInfo.credential;
  return { credentialId: id, publicKey: Buffer.from(publicKey), counter, transports: transports ?? [] };
}

export async function addPasskey(work: Work<Actor>, name: string, made: Registered): Promise<{ id: string }> {
  const { accountId, device = null } = work.actor;
  const { models, transaction } = work;
  const { credentialId } = made;
  if (await models.passkeys.findOne({ where: { credentialId }, transaction }))
    throw new Refusal('conflict', 'This passkey is here already.');
  const id = randomUUID();
  await models.passkeys.create(
    { id, accountId, name, ...made, transports: [...made.transports], usedAt: null },
    { transaction },
  );
  await noteAct(work, 'passkey-added', { accountId, device }, transaction);
  return { id };
}

export async function removePasskey(work: Work<Actor>, id: string): Promise<void> {
  const { accountId, device = null } = work.actor;
  const { models, transaction } = work;
  if ((await models.passkeys.destroy({ where: { id, accountId }, transaction })) === 0)
    throw notFound('This passkey');
  await noteAct(work, 'passkey-removed', { accountId, device }, transaction);
}

/** What an authenticator is asked for signing in: with any passkey that it has for this site. */
export const signInOptions = (site: Site, secret: string): Promise<object> =>
  generateAuthenticationOptions({
    rpID: site.id,
    challenge: bytes(newChallenge('sign in', '', secret)),
    userVerification: 'required',
  });

/**
 * Who signs in with a passkey.
 *
 * @param isFirst - takes the challenge; false where it was taken before
 * @returns the account and its first collection
 * @throws Refusal `wrong-sign-in`
 */
export async function checkPasskey(
  { models }: Database,
  response: object,
  site: Site,
  secret: string,
  isFirst: (challenge: string) => Promise<boolean>,
): Promise<{ accountId: string; collectionId: string }> {
  const wrong = new Refusal('wrong-sign-in', 'This passkey is not known here, or the question ran out.');
  const answer = response as AuthenticationResponseJSON;
  const credentialId = typeof answer.id === 'string' ? answer.id : '';
  const row = (await models.passkeys.findOne({ where: { credentialId } }))?.get();
  if (!row) throw wrong;
  let asked = '';
  const checked = await verifyAuthenticationResponse({
    response: answer,
    expectedChallenge: (challenge) => {
      asked = challenge;
      return isOwnChallenge('sign in', '', challenge, secret);
    },
    expectedOrigin: site.origin,
    expectedRPID: site.id,
    requireUserVerification: true,
    credential: {
      id: row.credentialId,
      publicKey: Uint8Array.from(row.publicKey),
      counter: Number(row.counter),
      transports: row.transports as AuthenticatorTransport[],
    },
  }).catch(() => null);
  const { accountId } = row;
  const membership = (await models.memberships.findOne({ where: { accountId } }))?.get();
  if (!checked?.verified || !membership || !(await isFirst(asked))) throw wrong;
  await models.passkeys.update(
    { counter: checked.authenticationInfo.newCounter, usedAt: now() },
    { where: { id: row.id } },
  );
  return { accountId, collectionId: membership.collectionId };
}
