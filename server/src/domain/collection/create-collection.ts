import { randomUUID } from 'node:crypto';
import { BUILT_IN_VERSION, LADDER_PRESETS } from '@karyotome/core';
import { founding, type Actor, type Database, type Work } from '../../db/work.ts';
import { hashPassword } from '../accounts/session.service.ts';
import { createLadder } from '../enclosures/racks.service.ts';
import { freePageName } from './page-name.ts';

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
