import { randomBytes, randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { LADDER_PRESETS } from '@karyotome/core';
import type { Config } from '../../config.ts';
import { inTransaction, type Database, type Work } from '../../db/work.ts';
import { createLadder } from '../racks/racks.service.ts';
import { hashPassword } from './session.service.ts';

/** Where the first start leaves the owner's sign-in, readable by the data folder's owner alone. */
export const OWNER_FILE = 'owner-sign-in.txt';

/** A new collection with its owner and the ladder presets. */
export async function createCollection(
  database: Database,
  owner: { email: string; name: string; password: string },
  collectionName: string,
): Promise<Work['actor']> {
  const actor = {
    accountId: randomUUID(),
    name: owner.name,
    collectionId: randomUUID(),
    role: 'owner' as const,
  };
  const passwordHash = await hashPassword(owner.password);
  await inTransaction(database, actor, async (work) => {
    const { transaction, models } = work;
    await models.accounts.create(
      { id: actor.accountId, email: owner.email.toLowerCase(), name: owner.name, passwordHash },
      { transaction },
    );
    await models.collections.create({ id: actor.collectionId, name: collectionName }, { transaction });
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
  });
  return actor;
}

/** The very first start makes the owner, with a password nobody chose. */
export async function ensureOwner(database: Database, config: Config): Promise<void> {
  if ((await database.models.accounts.count()) > 0) return;
  const password = randomBytes(9).toString('base64url');
  await createCollection(database, { email: config.ownerEmail, name: 'Owner', password }, 'My collection');
  writeFileSync(join(config.dataDir, OWNER_FILE), `${config.ownerEmail}\n${password}\n`, { mode: 0o600 });
}
