import type { TakeInConflicts, TakeInPreview } from '@karyotome/contract';
import { CALL_ERROR, type CatalogueChange, type FactOf, type RecordedAnimal } from '@karyotome/core';
import type { ReceivedAnimal, Statement, StatementSubject } from '@karyotome/lineage';
import type { Work } from '../../db/work.ts';
import { catalogueOf, entryInputs } from '../catalogue/catalogue.service.ts';
import { pedigreeRows } from '../genetics/genetics.queries.ts';
import { toRecorded } from '../genetics/to-recorded.ts';
import { claimChanges } from '@karyotome/lineage';
import { FIRST_TRUST, readReceived, readRecords, type Received, type ReceivedRelative } from './received.ts';
import { countingStatement, knownAnimals, type KnownAnimal } from './taken.queries.ts';

/** What would be inferred once a statement is among the records: for a trial, elsewhere than in the engine. */
export interface Trial {
  readonly entries: readonly CatalogueChange[];
  readonly animals: readonly RecordedAnimal[];
}

export interface Previewed {
  readonly preview: TakeInPreview;
  readonly trial: Trial;
  /** The numbers of those in the trial, as they are called here or by the breeder. */
  readonly numbers: ReadonlyMap<string, string>;
}

/** What taking in an animal would do, but for what can only be inferred. */
export async function previewTakeIn(work: Work, received: ReceivedAnimal): Promise<Previewed> {
  const { issuer, credentialSubject: subject } = received.statement;
  const read = readReceived(received, await catalogueOf(work));
  const known = new Map(
    (await knownAnimals(work, { ids: read.relatives.map(({ id }) => id) })).map((animal) => [
      animal.id,
      animal,
    ]),
  );
  const [before] = await countingStatement(work, { animalId: read.id });
  const recorded = new Map((await pedigreeRows(work)).map((row) => [row.id, toRecorded(row)]));
  const earlier = before ? (JSON.parse(before.document) as Statement).credentialSubject.claims : null;
  const here = known.get(read.id);
  const isBehind = before?.did === issuer.id && before.statement >= subject.statement;
  const preview: TakeInPreview = {
    verification: received.verification,
    subject: subjectView(read.id, subject),
    breeder: await breederView(work, issuer),
    here: here ? { number: here.number, isOwn: !here.isTaken, statement: before?.statement ?? null } : null,
    relatives: read.relatives
      .filter(({ id }) => id !== read.id)
      .map(({ id, named, isAncestor }) => ({ id, named, isAncestor, number: known.get(id)?.number ?? null })),
    changes: earlier ? claimChanges(earlier, subject.claims) : [],
    conflicts: [
      ...read.relatives.flatMap((relative) =>
        conflictsWith(relative, known.get(relative.id), recorded.get(relative.id)),
      ),
      ...otherHatchDate(here, subject.hatchedOn),
      ...read.unknownLoci.map((locus) => ({ code: 'gene-unknown', facts: { locus } }) as const),
    ],
    records: readRecords(received, work.today).length,
    pictures: received.pictures.length,
    isNew: received.verification.valid && !isBehind,
  };
  const numbers = new Map([
    ...read.relatives.map(({ id, named }) => [id, named ?? subject.number] as const),
    ...[...known.values()].map(({ id, number }) => [id, number] as const),
  ]);
  return {
    preview,
    numbers,
    trial: { entries: await entryInputs(work), animals: tried(recorded, read, known) },
  };
}

const subjectView = (id: string, subject: StatementSubject): TakeInPreview['subject'] => ({
  id,
  number: subject.number,
  name: subject.name ?? null,
  sex: subject.sex,
  hatchedOn: subject.hatchedOn ?? null,
  label: subject.claims.map(({ words }) => words).join(' '),
});

async function breederView(
  work: Work,
  { id: did, name }: { readonly id: string; readonly name: string },
): Promise<TakeInPreview['breeder']> {
  const row = await work.models.breeders.findOne({
    where: { collectionId: work.actor.collectionId, did },
    transaction: work.transaction,
  });
  return { did, name, trust: row?.get().trust ?? FIRST_TRUST, isKnown: row !== null };
}

function otherHatchDate(here: KnownAnimal | undefined, there: string | undefined): FactOf<TakeInConflicts>[] {
  if (!here || there === undefined || here.hatchedOn === null || here.hatchedOn === there) return [];
  return [{ code: 'other-hatch-date', facts: { number: here.number, here: here.hatchedOn, there } }];
}

/** What the collection recorded otherwise of an animal of its own. */
function conflictsWith(
  { sex, body }: ReceivedRelative,
  known: KnownAnimal | undefined,
  recorded: RecordedAnimal | undefined,
): FactOf<TakeInConflicts>[] {
  if (!known || known.isTaken || !recorded) return [];
  const { number } = known;
  const conflicts: FactOf<TakeInConflicts>[] = [];
  if (sex !== 'unknown' && known.sex !== 'unknown' && sex !== known.sex)
    conflicts.push({ code: 'other-sex', facts: { number, here: known.sex, there: sex } });
  if (body.dam !== undefined && recorded.dam !== undefined && body.dam !== recorded.dam)
    conflicts.push({ code: 'other-dam', facts: { number } });
  const sires = new Set(recorded.sires.map(({ id }) => id));
  if (body.sires.length > 0 && sires.size > 0 && !body.sires.some(({ id }) => sires.has(id)))
    conflicts.push({ code: 'other-sires', facts: { number } });
  return conflicts;
}

/** The collection's animals as they would be recorded with the statement among them. */
function tried(
  recorded: ReadonlyMap<string, RecordedAnimal>,
  { relatives }: Received,
  known: ReadonlyMap<string, KnownAnimal>,
): RecordedAnimal[] {
  const all = new Map(recorded);
  for (const { id, sex, body } of relatives) {
    const here = known.get(id);
    if (here && !here.isTaken) continue;
    const { dam, sires, founder, calls } = body;
    const base = all.get(id) ?? { id, sex, sires: [] };
    all.set(id, {
      ...base,
      ...(dam === undefined ? {} : { dam }),
      sires,
      stated: { record: id, error: CALL_ERROR.certain, calls, ...(founder ? { founder } : {}) },
    });
  }
  return [...all.values()];
}
