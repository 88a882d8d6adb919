import type { ObservationsChange, SortingChange } from '@karyotome/contract';
import type { Actor, Work } from '../../db/work.ts';
import { invalidField, stale } from '../../refusal.ts';
import { findAnimal } from '../../domain/animals/animals.service.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';
import { catalogueOf } from '../../domain/catalogue/catalogue.service.ts';
import { changeAsRead, createOnce, NOW } from '../../db/change-rows.ts';
import { clutchMates } from './bench.queries.ts';

/** Keeps what was seen of an animal, marker by marker. The version is 0 where nothing was seen yet. */
export async function changeObservations(
  work: Work<Actor>,
  animalId: string,
  { observations }: ObservationsChange,
  version: number,
): Promise<{ version: number }> {
  await findAnimal(work, animalId);
  const known = new Set((await catalogueOf(work)).markers.map(({ id }) => id));
  const unknown = Object.keys(observations).find((marker) => !known.has(marker));
  if (unknown !== undefined) throw invalidField(`observations.${unknown}`, 'is no marker of the catalogue');
  const { collectionId, accountId } = work.actor;
  if (version === 0) {
    const key = { collectionId, animalId };
    const values = { observations, authorId: accountId };
    if (!(await createOnce(work, work.models.observations, key, values))) throw stale('This');
    return { version: 1 };
  }
  const next = await changeAsRead(
    work,
    work.models.observations,
    'This',
    { collectionId, animalId },
    version,
    { observations, authorId: accountId, seenAt: NOW },
  );
  return { version: next };
}

/** Keeps how a clutch lies sorted on the table. The version is 0 where it was never sorted. */
export async function changeSorting(
  work: Work,
  clutchId: string,
  { groups }: SortingChange,
  version: number,
): Promise<{ version: number }> {
  await findClutch(work, clutchId);
  const mates = await clutchMates(work, { clutchId });
  const known = new Set(mates.map(({ id }) => id));
  const seen = new Set<string>();
  groups.forEach(({ animalIds }, g) =>
    animalIds.forEach((id, i) => {
      if (!known.has(id)) throw invalidField(`groups.${g}.animalIds.${i}`, 'is not of this clutch');
      if (seen.has(id)) throw invalidField(`groups.${g}.animalIds.${i}`, 'lies in two groups');
      seen.add(id);
    }),
  );
  const where = { collectionId: work.actor.collectionId, clutchId };
  if (version === 0) {
    if (!(await createOnce(work, work.models.clutchSortings, where, { groups }))) throw stale('This');
    return { version: 1 };
  }
  return {
    version: await changeAsRead(work, work.models.clutchSortings, 'This', where, version, { groups }),
  };
}
