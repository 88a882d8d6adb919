import { randomUUID } from 'node:crypto';
import type { NewRecord, Sex, Trust } from '@karyotome/contract';
import type { ReceivedAnimal } from '@karyotome/lineage';
import type { BreederRow } from '../../db/sale-rows.ts';
import { NOW, raiseVersion } from '../../db/change-rows.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { notFound, Refusal } from '../../refusal.ts';
import { usedNumbers } from '../animals/animals.queries.ts';
import { useNumber } from '../animals/animals.service.ts';
import { ancestorsOf } from '../animals/ancestry.ts';
import { catalogueOf } from '../catalogue/catalogue.service.ts';
import { FIRST_TRUST, readReceived, readRecords, type Received, type ReceivedRelative } from './received.ts';
import { countingStatement, knownAnimals, type KnownAnimal } from './taken.queries.ts';

/** Whether the animal came to live here, or only its evidence is wanted. */
export type TakenAs = 'own' | 'outside';

const NUMBER_LENGTH = 40;

/**
 * Takes in what another breeder signed of an animal: the animal, its relatives as animals that were never here, and what is
 * said of them as evidence. What the collection recorded itself of an animal stands; of its own animals nothing is taken, as
 * it would come back as if it were new.
 *
 * @returns the animal's id
 * @throws Refusal where it does not hold, or is older than what is here
 */
export async function takeIn(
  work: Work<Actor>,
  received: ReceivedAnimal,
  as: TakenAs,
  trust: Trust | null,
): Promise<string> {
  const { statement, verification } = received;
  const { issuer, credentialSubject: subject } = statement;
  if (!verification.valid)
    throw new Refusal(
      'conflict',
      `What is said of ${subject.number} does not hold: nothing of it was taken in.`,
    );
  const read = readReceived(received, await catalogueOf(work));
  const [before] = await countingStatement(work, { animalId: read.id });
  if (before && before.did === issuer.id && before.statement >= subject.statement)
    throw new Refusal(
      'conflict',
      `Statement ${before.statement} of ${subject.number} is here already: this one is number ${subject.statement}.`,
    );
  const breeder = await knownBreeder(work, issuer, trust);
  const known = new Map(
    (await knownAnimals(work, { ids: read.relatives.map(({ id }) => id) })).map((animal) => [
      animal.id,
      animal,
    ]),
  );
  refuseOtherSexes(read, known);
  const own = (id: string): boolean => known.has(id) && !known.get(id)!.isTaken;
  const numbers = await numbersFor(work, read, issuer.name, subject.number, as);
  for (const relative of read.relatives) {
    if (known.has(relative.id)) continue;
    const isSubject = relative.id === read.id;
    await addAnimal(work, relative, numbers.get(relative.id)!, {
      name: isSubject ? (subject.name ?? null) : null,
      hatchedOn: isSubject ? (subject.hatchedOn ?? null) : null,
      isHere: isSubject && as === 'own',
    });
  }
  if (before) await letCountNoMore(work, before.id);
  const takenId = await keepStatement(work, received, read, breeder.id, own);
  await refuseCircles(work, read);
  if (as === 'own' && !own(read.id))
    await addRecords(work, read.id, takenId, readRecords(received, work.today));
  await touchGenetics(work);
  return read.id;
}

/** Keeps what was signed, and what it says of each animal that is not the collection's own. @returns its id here */
async function keepStatement(
  work: Work<Actor>,
  { statement, document }: ReceivedAnimal,
  read: Received,
  breederId: string,
  isOwn: (id: string) => boolean,
): Promise<string> {
  const { collectionId, accountId } = work.actor;
  const { transaction, models } = work;
  const { statement: count, asOf } = statement.credentialSubject;
  const takenId = randomUUID();
  await models.takenStatements.create(
    {
      collectionId,
      id: takenId,
      breederId,
      statementId: statement.id,
      animalId: read.id,
      statement: count,
      asOf,
      document,
      authorId: accountId,
      removedAt: null,
    },
    { transaction },
  );
  await models.statedEvidence.bulkCreate(
    read.relatives
      .filter(({ id }) => !isOwn(id))
      .map(({ id, body }) => ({ collectionId, id: randomUUID(), takenId, animalId: id, body })),
    { transaction },
  );
  return takenId;
}

/** With the collection's own records nobody may come to be their own ancestor. */
async function refuseCircles(work: Work, { relatives }: Received): Promise<void> {
  const above = await ancestorsOf(
    work,
    relatives.map(({ id }) => id),
  );
  if ([...above].some(([id, ancestors]) => ancestors.has(id)))
    throw new Refusal(
      'conflict',
      'With this statement an animal of the collection would be its own ancestor: the parents recorded here or there are wrong.',
    );
}

/** What is a dam there cannot be a male here, nor the other way round. */
function refuseOtherSexes({ relatives }: Received, known: ReadonlyMap<string, KnownAnimal>): void {
  for (const { body } of relatives) {
    const dam = body.dam === undefined ? undefined : known.get(body.dam);
    const male = body.sires.map(({ id }) => known.get(id)).find((sire) => sire?.sex === 'female');
    const wrong = dam?.sex === 'male' ? dam : male;
    if (wrong)
      throw new Refusal(
        'conflict',
        `${wrong.number} is ${wrong.sex} here, and a ${wrong === dam ? 'dam' : 'sire'} in the statement.`,
      );
  }
}

async function knownBreeder(
  work: Work,
  { id: did, name }: { readonly id: string; readonly name: string },
  trust: Trust | null,
): Promise<BreederRow> {
  const { collectionId } = work.actor;
  const { breeders } = work.models;
  const { transaction } = work;
  const row = (await breeders.findOne({ where: { collectionId, did }, transaction }))?.get();
  if (!row) {
    const values = {
      collectionId,
      id: randomUUID(),
      did,
      name,
      trust: trust ?? FIRST_TRUST,
      version: 1,
    } as const;
    return (await breeders.create(values, { transaction })).get();
  }
  if (trust !== null && trust !== row.trust)
    await raiseVersion<BreederRow>(work, breeders, { collectionId, id: row.id }, { trust });
  return row;
}

/** Numbers that are free here: the breeder's own where it is, else with the breeder's name. */
async function numbersFor(
  work: Work,
  { id: subjectId, relatives }: Received,
  breeder: string,
  number: string,
  as: TakenAs,
): Promise<ReadonlyMap<string, string>> {
  const used = new Set(await usedNumbers(work));
  const free = (wanted: string): string => {
    let candidate = wanted.slice(0, NUMBER_LENGTH);
    for (let i = 2; used.has(candidate); i++) {
      const suffix = ` ${i}`;
      candidate = `${wanted.slice(0, NUMBER_LENGTH - suffix.length)}${suffix}`;
    }
    used.add(candidate);
    return candidate;
  };
  const numbers = new Map<string, string>();
  for (const [i, { id, named }] of relatives.entries()) {
    const own = id === subjectId ? number : (named ?? `relative ${i + 1} of ${number}`);
    // One that never lives here is told apart from the collection's own at sight.
    const isOwn = id === subjectId && as === 'own' && !used.has(own);
    const wanted = isOwn ? own : `${own}, ${breeder}`;
    numbers.set(id, free(wanted));
  }
  return numbers;
}

async function addAnimal(
  work: Work,
  { id, sex }: ReceivedRelative,
  number: string,
  {
    name,
    hatchedOn,
    isHere,
  }: { readonly name: string | null; readonly hatchedOn: string | null; readonly isHere: boolean },
): Promise<void> {
  await useNumber(work, number);
  await work.models.animals.create(
    {
      collectionId: work.actor.collectionId,
      id,
      number,
      name,
      sex: sex satisfies Sex,
      hatchedOn,
      damId: null,
      sireId: null,
      clutchId: null,
      tubId: null,
      status: isHere ? 'undecided' : 'outside',
      note: null,
      version: 1,
    },
    { transaction: work.transaction },
  );
}

/** Records that came along are the breeder's: they are read, and never changed here. */
async function addRecords(
  work: Work<Actor>,
  animalId: string,
  takenId: string,
  records: readonly NewRecord[],
): Promise<void> {
  const { collectionId, accountId } = work.actor;
  const { transaction, models } = work;
  // An amended statement brings all of them again.
  await models.records.destroy({
    where: { collectionId, animalId, takenId: await earlierOf(work, animalId) },
    transaction,
  });
  await models.records.bulkCreate(
    records.map(({ kind, on, body, note }) => ({
      collectionId,
      id: randomUUID(),
      animalId,
      kind,
      onDay: on,
      body: { ...body },
      note: note ?? null,
      authorId: accountId,
      takenId,
    })),
    { transaction },
  );
}

async function earlierOf(work: Work, animalId: string): Promise<string[]> {
  const { collectionId } = work.actor;
  const rows = await work.models.takenStatements.findAll({
    where: { collectionId, animalId },
    transaction: work.transaction,
  });
  return rows.map((row) => row.get().id);
}

/** Marks a statement as removed: its evidence is kept, and counts no more. */
async function letCountNoMore(work: Work, takenId: string): Promise<void> {
  const { collectionId } = work.actor;
  const { transaction, models } = work;
  await models.takenStatements.update(
    { removedAt: NOW },
    { where: { collectionId, id: takenId }, transaction },
  );
}

/** Lets a statement count no more. It is kept, and so are the animals that came with it. */
export async function removeTaken(work: Work, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const row = await work.models.takenStatements.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This statement');
  if (row.get().removedAt !== null) return;
  await letCountNoMore(work, id);
  await touchGenetics(work);
}
