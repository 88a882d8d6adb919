import { randomUUID } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { CollectionSettings, SessionView, SignIn } from '@karyotome/contract';
import { daysAhead } from '../../clock.ts';
import { permissionsOf } from '../../access/policy.ts';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { accountEmail, collectionsOf, memberOf } from './accounts.queries.ts';
import { requireSecondFactor } from './second-factor.ts';
import { collectionOf } from '../collection/collection-of.ts';

/* Argon2id with 19 MiB, two passes: the OWASP password storage cheat sheet's first choice. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export function hashPassword(password: string): Promise<string> {
  return hash(password, COST);
}

/** Verified against when no account has the address, so that the answer takes as long as with a wrong password. */
const DUMMY_HASH = hashPassword(randomUUID());

/**
 * @param secret - the server's own
 * @param device - what the browser calls itself; null where it says nothing
 * @returns the account and its first collection
 * @throws Refusal `wrong-sign-in`, `code-needed`, `wrong-code`
 */
export async function checkSignIn(
  database: Database,
  { email, password, code }: SignIn,
  secret: string,
  device: string | null,
): Promise<{ accountId: string; collectionId: string }> {
  const { models } = database;
  const account = (await models.accounts.findOne({ where: { email: email.toLowerCase() } }))?.get();
  const fits = await verify(account?.passwordHash || (await DUMMY_HASH), password);
  const membership =
    account && (await models.memberships.findOne({ where: { accountId: account.id } }))?.get();
  if (!account || !fits || !membership)
    throw new Refusal('wrong-sign-in', 'Check both fields and try again.');
  await requireSecondFactor(database, { accountId: account.id, secret }, code ?? null, device);
  return { accountId: account.id, collectionId: membership.collectionId };
}

/** Whether it is the account's password. */
export async function isPasswordOf(
  { models }: Database,
  { accountId, password }: { readonly accountId: string; readonly password: string },
): Promise<boolean> {
  const account = (await models.accounts.findByPk(accountId))?.get();
  return verify(account?.passwordHash || (await DUMMY_HASH), password);
}

/** Looks the actor up anew on every request: a membership that ended ends at once. */
export async function findActor(
  database: Database,
  accountId: string,
  collectionId: string,
): Promise<Actor | null> {
  const [found] = await memberOf(database, { accountId, collectionId });
  return found ? { accountId, collectionId, ...found } : null;
}

export async function readSettings(
  work: Work,
): Promise<CollectionSettings & { id: string; version: number; pageName: string }> {
  const { id, name, numberPattern, massUnit, temperatureUnit, ladderId, timeZone, version, pageName } =
    await collectionOf(work);
  return { id, name, numberPattern, massUnit, temperatureUnit, ladderId, timeZone, version, pageName };
}

export async function viewSession(database: Database, actor: Actor, csrfToken: string): Promise<SessionView> {
  const collections = await collectionsOf(database, { accountId: actor.accountId });
  return reading(database, actor, async (work) => {
    const [account] = await accountEmail(work, { id: actor.accountId });
    if (!account) throw new Refusal('not-signed-in', 'This account does not exist any more.');
    const { pageName, ...collection } = await readSettings(work);
    return {
      account: { id: actor.accountId, name: actor.name, email: account.email },
      role: actor.role,
      permissions: [...permissionsOf(actor)],
      collections,
      collection: { ...collection, farmZone: work.timeZone },
      pageName,
      daysAhead: daysAhead(),
      csrfToken,
    };
  });
}
