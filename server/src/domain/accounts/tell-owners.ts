import { writing, type Database } from '../../db/work.ts';
import { notifyChanged } from '../changes/notify.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { ownerAddresses } from '../post/letters.queries.ts';
import { writeLetter } from '../post/letters.service.ts';
import { accountByEmail } from './accounts.queries.ts';

/**
 * Writes to the owners of every collection that an account may use: somebody failed so often to sign in under its address that
 * they have to wait. Once a day for an account.
 *
 * @param device - what the browser calls itself; null where it says nothing
 */
export async function tellOwners(database: Database, email: string, device: string | null): Promise<void> {
  for (const { collectionId, accountId, name } of await accountByEmail(database, email)) {
    await writing(database, { collectionId }, async (work) => {
      const facts = { collection: (await collectionOf(work)).name, name, on: work.today, device };
      for (const { email: to } of await ownerAddresses(work))
        await writeLetter(work, {
          letter: { code: 'sign-ins-failed', facts },
          to,
          sentKey: `sign-ins-failed ${accountId} ${work.today} ${to}`,
          state: 'waiting',
        });
    });
    notifyChanged(collectionId, { tags: ['letters'], page: null });
  }
}
