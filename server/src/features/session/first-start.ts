import { randomBytes, randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { BUILT_IN_VERSION, LADDER_PRESETS } from '@karyotome/core';
import type { Config } from '../../config.ts';
import { founding, type Actor, type Database, type Work } from '../../db/work.ts';
import { writeDurably } from '../../files/durable.ts';
import { freePageName } from '../../domain/collection/page-name.ts';
import { createLadder } from '../../domain/enclosures/racks.service.ts';
import { hashPassword } from '../../domain/accounts/session.service.ts';

/** Where the first start leaves the owner's sign-in, readable by the data folder's owner alone. */
export const OWNER_FILE = 'owner-sign-in.txt';

interface Owner {
  readonly email: string;
  readonly name: string;
  readonly password: string;
}

/** A new collection with its owner and the ladder presets. */
export async function createCollection(
  database: Database,
  owner: Owner,
  collectionName: string,
  /** What else belongs to it from the first moment: all of it is there, or nothing. */
  furnish: (work: Work<Actor>) => Promise<void> = () => Promise.resolve(),
): Promise<Actor> {
  const actor = {
    accountId: randomUUID(),
    name: owner.name,
    collectionId: randomUUID(),
    role: 'owner' as const,
  };
  const passwordHash = await hashPassword(owner.password);
  await founding(database, actor, async (work) => {
    const { transaction, models } = work;
    await models.accounts.create(
      { id: actor.accountId, email: owner.email.toLowerCase(), name: owner.name, passwordHash },
      { transaction },
    );
    const pageName = await freePageName(work, collectionName);
    await models.collections.create(
      { id: actor.collectionId, name: collectionName, pageName, catalogueVersion: BUILT_IN_VERSION },
      { transaction },
    );
    await models.memberships.create(
      { collectionId: actor.collectionId, accountId: actor.accountId, role: 'owner' },
      { transaction },
    );
    for (const { name, steps } of LADDER_PRESETS) {
      await createLadder(work, { name, steps: steps.map((step) => ({ ...step })) });
    }
    const [first] = await models.ladders.findAll({
      where: { collectionId: actor.collectionId, name: LADDER_PRESETS[0]!.name },
      transaction,
    });
    await models.collections.update(
      { ladderId: first!.get().id },
      { where: { id: actor.collectionId }, transaction },
    );
    await furnish(work);
  });
  return actor;
}

/**
 * The password of an owner who is about to be made, on the disk before the account is: whatever cuts the first start off, the
 * next one finds either no account and this password, or both.
 */
export async function firstPassword(dataDir: string, email: string): Promise<string> {
  const file = join(dataDir, OWNER_FILE);
  const [keptEmail, kept] = existsSync(file) ? readFileSync(file, 'utf8').split('\n') : [];
  if (kept && keptEmail === email) return kept;
  const password = randomBytes(9).toString('base64url');
  await writeDurably(file, `${email}\n${password}\n`);
  return password;
}

/** The very first start makes the owner, with a password nobody chose. */
export async function ensureOwner(database: Database, config: Config): Promise<void> {
  if ((await database.models.accounts.count()) > 0) return;
  const { ownerEmail: email, dataDir } = config;
  const password = await firstPassword(dataDir, email);
  await createCollection(database, { email, name: 'Owner', password }, 'My collection');
}
