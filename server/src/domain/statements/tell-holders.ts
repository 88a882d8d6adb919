import type { Work } from '../../db/work.ts';
import { holdersOf } from '../post/letters.queries.ts';
import { writeLetter } from '../post/letters.service.ts';
import { documentOf, statementsOf } from './statements.queries.ts';

/**
 * Drafts a letter to everybody who holds an earlier statement of an animal: those to whom it was sold or for whom it is
 * reserved. Who has not agreed to be written to gets none.
 *
 * @param address - of the animal's page
 */
export async function tellHolders(work: Work, animalId: string, address: string): Promise<void> {
  const [newest] = await statementsOf(work, { animalId });
  if (!newest || newest.statement === 1) return;
  const { issuer, credentialSubject } = documentOf(newest);
  const { changes = [], number, statement } = credentialSubject;
  if (changes.length === 0) return;
  for (const { id, name, email, hasAgreed } of await holdersOf(work, { animalId })) {
    if (email === null || !hasAgreed) continue;
    await writeLetter(work, {
      letter: {
        code: 'claims-changed',
        facts: {
          collection: issuer.name,
          name,
          number,
          statement,
          changes: changes.map(({ locus, from, to }) => ({ locus, from, to })),
          because: [...new Set(changes.map(({ because }) => because))],
          address: `${address}/statements/${statement}`,
        },
      },
      to: email,
      sentKey: `claims-changed ${newest.id} ${id}`,
      personId: id,
      animalId,
      state: 'draft',
    });
  }
}
