import { createCollectionCache } from '../../cache.ts';
import { inferring } from '../../db/turns.ts';
import { reading, type Work } from '../../db/work.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { publishedAnimals } from '../animals/animals.repository.ts';
import { claimsOf, supportOf } from '../genetics/inferred-of-animal.ts';
import { geneticsOf } from '../genetics/genetics.service.ts';
import { publicationStamp } from './publications.queries.ts';

/** Record -> the published claims that rest on it, each with the number of the animal that it is published of. */
type PublishedSupport = ReadonlyMap<string, readonly { label: string; number: string }[]>;

const supports = createCollectionCache<{ stamp: string; support: PublishedSupport }>();

/** Changes when what is published, or what is inferred, may have. */
async function stampOf(work: Work): Promise<string> {
  const [row] = await publicationStamp(work);
  return row!.stamp;
}

/**
 * The records that published claims rest on. It takes many inferences, so a write that asks is undone and begun again when
 * they are there: nobody else waits meanwhile.
 *
 * @throws BeginAgain
 */
export async function publishedSupport(work: Work): Promise<PublishedSupport> {
  if ((await publishedAnimals(work)).length === 0) return new Map();
  const stamp = await stampOf(work);
  const known = supports.get(work.actor.collectionId);
  if (known?.stamp === stamp) return known.support;
  throw new BeginAgain(() => inferring.take(() => reading(work, work.actor, computeSupport)));
}

async function computeSupport(work: Work): Promise<void> {
  const { collectionId } = work.actor;
  const stamp = await stampOf(work);
  const genetics = await geneticsOf(work);
  const support = new Map<string, { label: string; number: string }[]>();
  for (const { id, number } of await publishedAnimals(work)) {
    for (const claim of claimsOf(genetics, id)) {
      for (const { record } of (await supportOf(genetics, id, claim)) ?? [])
        support.set(record, [...(support.get(record) ?? []), { label: claim.label, number }]);
    }
  }
  supports.set(collectionId, { stamp, support });
}
