import { randomUUID } from 'node:crypto';
import { BIN_DAYS, type BinEntry, type BinKind, type Restored } from '@karyotome/contract';
import { touchGenetics, type Actor, type Database, type Work } from '../../db/work.ts';
import type { FileStore } from '../../files/file-store.ts';
import { isLoose } from '../../db/faults.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { restingOn } from '../animals/ancestry.ts';
import { childAndParentRows } from '../animals/animals.queries.ts';
import { findAnimal, refuseIfPublished } from '../animals/animals.service.ts';
import { discardPicture } from '../pictures/pictures.service.ts';
import {
  beginMove,
  binEntries,
  endEntries,
  endMove,
  eraseExpired,
  erasedPersons,
  insertEntry,
  keptEntry,
  keptOfAnimal,
  pairingsOf,
  pictureSubject,
  putBack,
  statedAnimals,
  stillFree,
  takeOut,
  youngInBin,
  type Content,
  type KeptEntry,
} from './bin.queries.ts';

/** What is inferred rests on these. */
const isGenetic = (kind: BinKind): boolean => kind === 'animal' || kind === 'pairing';

/**
 * Deletes an animal with everything that was recorded of it; for some days it can be restored. Its number stays used.
 *
 * @throws Refusal `conflict` that says what rests on it
 */
export async function deleteAnimal(work: Work<Actor>, id: string, reason: string): Promise<{ id: string }> {
  const animal = await findAnimal(work, id);
  await refuseIfPublished(work, id, 'it cannot be deleted');
  await refuseIfStated(work, id);
  await refuseIfParent(work, animal);
  return moveIn(work, { kind: 'animal', id, animalId: id, number: animal.number, name: animal.name, reason });
}

/** A statement that was signed names its animal and those that it descends from: whoever holds it can ask for their records. */
async function refuseIfStated(work: Work, id: string): Promise<void> {
  const resting = await restingOn(work, await statedAnimals(work), [id]);
  if (resting.length > 0)
    throw new Refusal(
      'conflict',
      `A signed statement of ${resting.map(({ number }) => number).join(', ')} rests on this animal: it cannot be deleted.`,
    );
}

async function refuseIfParent(
  work: Work,
  { id, number }: { readonly id: string; readonly number: string },
): Promise<void> {
  const isParent = (await childAndParentRows(work)).some(({ parent }) => parent === id);
  if (isParent || (await pairingsOf(work, { id })) > 0)
    throw new Refusal(
      'conflict',
      `${number} is a parent or was paired: it cannot be deleted. Mark it as mistaken, or correct the pairing first.`,
    );
  const young = await youngInBin(work, { id });
  if (young.length > 0)
    throw new Refusal(
      'conflict',
      `${number} is a parent of ${young.join(', ')} in the bin: erase the young first, or restore it.`,
    );
}

/** Puts a picture into the bin. */
export async function deletePicture(work: Work<Actor>, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const picture = (
    await work.models.pictures.findOne({ where: { collectionId, id }, transaction: work.transaction })
  )?.get();
  if (!picture) throw notFound('This picture');
  const { animalId, caption } = picture;
  const number = await pictureSubject(work, { id });
  await moveIn(work, { kind: 'picture', id, animalId, number, name: caption || null, reason: null });
}

/** Takes something with all that belongs to it out of its tables, and keeps it aside. @returns the entry's id */
export async function moveIn(
  work: Work<Actor>,
  {
    id,
    ...entry
  }: Omit<KeptEntry, 'content'> & { readonly name: string | null; readonly reason: string | null },
): Promise<{ id: string }> {
  const binId = randomUUID();
  await beginMove(work);
  const content = await takeOut(work, entry.kind, id);
  await endMove(work);
  await insertEntry(work, { ...entry, id: binId, authorId: work.actor.accountId, content });
  if (isGenetic(entry.kind)) await touchGenetics(work);
  return { id: binId };
}

export const listBin = (work: Work): Promise<BinEntry[]> => binEntries(work, BIN_DAYS);

/**
 * Puts back what was deleted.
 *
 * @throws Refusal `conflict` where what it belongs to is deleted as well
 */
export async function restore(work: Work, id: string): Promise<Restored> {
  const entry = await findEntry(work, id);
  const { kind, animalId } = entry;
  if (kind === 'picture' && animalId !== null) await refuseWithoutAnimal(work, entry);
  const { content, isWithoutPlace } =
    kind === 'animal' ? await asItIsNow(work, entry) : { content: entry.content, isWithoutPlace: false };
  await beginMove(work);
  await putBack(work, kind, content);
  await endMove(work).catch(refuseLoneRows);
  await endEntries(work, [id], 'restored');
  if (isGenetic(kind)) await touchGenetics(work);
  return { animalId, isWithoutPlace };
}

/** Its females and males, its ladder: what rows name is held against what is there when all of them are back. */
function refuseLoneRows(error: unknown): never {
  if (!isLoose(error)) throw error;
  throw new Refusal('conflict', 'What it belongs to is gone, or deleted as well: restore that first.', {
    cause: error,
  });
}

async function findEntry(work: Work, id: string): Promise<KeptEntry> {
  const entry = await keptEntry(work, id);
  if (!entry) throw notFound('What was deleted');
  return entry;
}

async function refuseWithoutAnimal(work: Work, { animalId, number }: KeptEntry): Promise<void> {
  const { models, actor, transaction } = work;
  const where = { collectionId: actor.collectionId, id: animalId! };
  if ((await models.animals.count({ where, transaction })) === 0)
    throw new Refusal('conflict', `${number} is deleted as well: restore the animal first.`);
}

/** What changed meanwhile: its tub may be taken, its egg may be gone, a buyer may have been erased. */
async function asItIsNow(
  work: Work,
  { content, number }: KeptEntry,
): Promise<{ content: Content; isWithoutPlace: boolean }> {
  const [animal] = content['animals'] as readonly [Record<string, string | null>];
  const parents = [animal['dam_id'], animal['sire_id']].filter((parent) => parent != null);
  const [tubId, eggId] = [animal['tub_id'] ?? null, animal['egg_id'] ?? null];
  const free = await stillFree(work, { tubId, eggId, parents });
  if (free.parents < new Set(parents).size)
    throw new Refusal('conflict', `A parent of ${number} is deleted as well: restore the parent first.`);
  const events = content['status_events'] ?? [];
  const erased = await erasedPersons(
    work,
    events.flatMap(({ person_id: person }) => (typeof person === 'string' ? [person] : [])),
  );
  return {
    content: {
      ...content,
      animals: [{ ...animal, tub_id: free.tub ? tubId : null, egg_id: free.egg ? eggId : null }],
      status_events: events.map((event) =>
        erased.has(String(event['person_id'])) ? { ...event, note: null } : event,
      ),
    },
    isWithoutPlace: tubId !== null && !free.tub,
  };
}

/** Erases for good what was deleted, the files with it; of an animal, its pictures that were deleted before as well. */
export async function erase(work: Work, files: FileStore, id: string): Promise<void> {
  const entry = await findEntry(work, id);
  const entries =
    entry.kind === 'animal' && entry.animalId !== null
      ? await keptOfAnimal(work, { animalId: entry.animalId })
      : [entry];
  await endEntries(
    work,
    entries.map((one) => one.id),
    'erased',
  );
  work.transaction.afterCommit(() => {
    discardAll(
      files,
      entries.map(({ content }) => content),
    ).catch(work.onFault);
  });
}

/** Erases what has been in the bin for its time. What a crash leaves of files is swept at the next start. */
export async function emptyBin({ sequelize }: Database, files: FileStore): Promise<void> {
  const contents = await sequelize.transaction((transaction) => eraseExpired(transaction, BIN_DAYS));
  await discardAll(files, contents);
}

async function discardAll(files: FileStore, contents: readonly Content[]): Promise<void> {
  for (const { pictures = [] } of contents)
    for (const picture of pictures) {
      const { file, thumb_file: thumbFile, original_file: originalFile } = picture as Record<string, string>;
      await discardPicture(files, {
        file: file!,
        thumbFile: thumbFile ?? null,
        originalFile: originalFile ?? null,
      });
    }
}
