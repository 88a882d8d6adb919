import { randomUUID } from 'node:crypto';
import type { CatalogueEntryInput, CatalogueView, OccurrenceView } from '@karyotome/contract';
import {
  BUILT_IN_VERSION,
  createCatalogue,
  parseGenes,
  toAdditions,
  updatesSince,
  type Catalogue,
  type CatalogueChange,
} from '@karyotome/core';
import { changeRow } from '../../db/change-rows.ts';
import { createCache } from '../../cache.ts';
import { check, keyOf } from './check-entry.ts';
import { isTaken } from '../../db/faults.ts';
import { touchGenetics, type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { type Entry, entryRows, recordedGenes, versionRow } from './catalogue.queries.ts';

/** Catalogues by what they add: building one takes a few milliseconds, reading records needs it all the time. */
const MAX_CACHED_CATALOGUES = 16;
const catalogues = createCache<Catalogue>(MAX_CACHED_CATALOGUES);

export function catalogueFor(entries: readonly CatalogueChange[]): Catalogue {
  const key = JSON.stringify(entries);
  const known = catalogues.get(key);
  if (known) return known;
  const made = createCatalogue(toAdditions(entries));
  catalogues.set(key, made);
  return made;
}

/** The built-in catalogue with the collection's additions. */
export async function catalogueOf(work: Work): Promise<Catalogue> {
  return catalogueFor(await entryInputs(work));
}

/** All that makes the collection's catalogue of the built-in one: its entries, and the version it reads by. */
export async function entryInputs(work: Work): Promise<CatalogueChange[]> {
  return inputsBut(work, null);
}

/** Nothing where no update changes what was said: then the catalogue is the same. */
const asOf = (version: string): CatalogueChange[] =>
  updatesSince(version).length > 0 ? [{ kind: 'as-of', version }] : [];

export async function viewCatalogue(work: Work): Promise<CatalogueView> {
  const [entries, [row], texts] = await Promise.all([entryRows(work), versionRow(work), geneTexts(work)]);
  const { version } = row!;
  const updates = updatesSince(version);
  const changed = new Set(updates.flatMap(({ before }) => Object.keys(before)));
  return {
    version: updates.length > 0 ? version : BUILT_IN_VERSION,
    update: updates.length > 0 ? { version: BUILT_IN_VERSION, loci: [...changed] } : null,
    entries: entries.map((one) => ({
      ...one,
      usedBy: unreadableWith(changesIn(entries, version, one.id), texts).length,
    })),
  };
}

/** How many animals each locus is named of, the most first. Apart from the catalogue, which every page reads. */
export async function viewOccurrence(work: Work): Promise<OccurrenceView[]> {
  const catalogue = await catalogueOf(work);
  const animals = new Map<string, Set<string>>();
  for (const { number, genes } of await geneTexts(work))
    for (const locus of parseGenes(genes, catalogue).loci.keys())
      animals.set(locus, (animals.get(locus) ?? new Set()).add(number));
  return [...animals]
    .map(([locus, numbers]) => ({ locus, animals: numbers.size }))
    .toSorted((a, b) => b.animals - a.animals || catalogue.compareLoci(a.locus, b.locus));
}

/** From now on the collection reads by an update whose changes were seen. */
export async function takeUpdate(work: Work<Actor>, { version }: { version: string }): Promise<void> {
  if (version !== BUILT_IN_VERSION) throw invalidField('version', `is not ${BUILT_IN_VERSION}`);
  await work.models.collections.update(
    { catalogueVersion: version },
    { where: { id: work.actor.collectionId }, transaction: work.transaction },
  );
  await touchGenetics(work);
}

/** The genes of every identification that counts, with the animal's number. */
function geneTexts(work: Work): Promise<{ number: string; genes: string }[]> {
  return recordedGenes(work);
}

/** The numbers of animals whose records could no longer be read with these entries. */
function unreadableWith(
  entries: readonly CatalogueChange[],
  texts: readonly { number: string; genes: string }[],
): string[] {
  const catalogue = catalogueFor(entries);
  const broken = texts.filter(({ genes }) => parseGenes(genes, catalogue).unknown.length > 0);
  return [...new Set(broken.map(({ number }) => number))];
}

export async function addEntry(work: Work<Actor>, entry: CatalogueEntryInput): Promise<{ id: string }> {
  const { collectionId, accountId } = work.actor;
  const known = await entryInputs(work);
  check(entry, catalogueFor(known));
  if (entry.kind === 'allelism') await refuseIfUnreadable(work, [...known, entry], 'locus');
  const id = randomUUID();
  try {
    await work.models.catalogueEntries.create(
      { collectionId, id, kind: entry.kind, key: keyOf(entry), body: entry, authorId: accountId, version: 1 },
      { transaction: work.transaction },
    );
  } catch (error) {
    if (isTaken(error)) throw new Refusal('conflict', 'The catalogue has this entry already.');
    throw error;
  }
  await touchGenetics(work);
  return { id };
}

/** @returns the entry, and all that makes the catalogue but for it */
async function findEntry(work: Work, id: string): Promise<{ one: Entry; others: CatalogueChange[] }> {
  const [entries, [row]] = await Promise.all([entryRows(work), versionRow(work)]);
  const one = entries.find((entry) => entry.id === id);
  if (!one) throw notFound('This entry');
  return { one, others: changesIn(entries, row!.version, id) };
}

/** All that makes the catalogue but for one entry. */
export async function inputsBut(work: Work, id: string | null): Promise<CatalogueChange[]> {
  const [entries, [row]] = await Promise.all([entryRows(work), versionRow(work)]);
  return changesIn(entries, row!.version, id);
}

const changesIn = (entries: readonly Entry[], version: string, butId: string | null): CatalogueChange[] => [
  ...entries.filter(({ id }) => id !== butId).map(({ entry }) => entry),
  ...asOf(version),
];

/** Puts another wording in an entry's place. Refused where records could then no longer be read. */
export async function changeEntry(
  work: Work,
  id: string,
  entry: CatalogueEntryInput,
  version: number,
): Promise<{ id: string }> {
  const { one, others } = await findEntry(work, id);
  if (entry.kind !== one.entry.kind) throw invalidField('kind', `must stay ${one.entry.kind}`);
  check(entry, catalogueFor(others));
  await refuseIfUnreadable(work, [...others, entry], entry.kind === 'alias' ? 'word' : 'name');
  await changeRow(
    work,
    work.models.catalogueEntries,
    'The entry',
    { id, version },
    { key: keyOf(entry), body: entry },
  );
  await touchGenetics(work);
  return { id };
}

export async function removeEntry(work: Work, id: string): Promise<void> {
  const { others } = await findEntry(work, id);
  await refuseIfUnreadable(work, others);
  await work.models.catalogueEntries.destroy({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
  });
  await touchGenetics(work);
}

async function refuseIfUnreadable(
  work: Work,
  entries: readonly CatalogueChange[],
  field?: string,
): Promise<void> {
  const numbers = unreadableWith(entries, await geneTexts(work));
  if (numbers.length === 0) return;
  const some = numbers.slice(0, 5).join(', ') + (numbers.length > 5 ? ` and ${numbers.length - 5} more` : '');
  const reason = `the identifications of ${some} are written with it`;
  if (field) throw invalidField(field, `cannot change: ${reason}`);
  throw new Refusal('conflict', `This entry cannot be taken out: ${reason}.`);
}
