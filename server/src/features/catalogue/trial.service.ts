import type { CatalogueEntryInput, TrialView } from '@karyotome/contract';
import { catalogueFor, entryInputs } from '../../domain/catalogue/catalogue.service.ts';
import { check, keyOf } from '../../domain/catalogue/check-entry.ts';
import { namedAnimals } from '../../domain/genetics/genetics.queries.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import type { Work } from '../../db/work.ts';

/** So many of the animals that would change are listed. */
const MOST_LISTED = 20;

/** What would be claimed otherwise with this entry, in place of one of the same key. Nothing is kept. */
export async function tryEntry(work: Work, entry: CatalogueEntryInput): Promise<TrialView> {
  const known = (await entryInputs(work)).filter(
    (other) => other.kind !== entry.kind || keyOf(other) !== keyOf(entry),
  );
  check(entry, catalogueFor(known));
  const entries = [...known, entry].filter(({ kind }) => kind !== 'marker');
  const genetics = await geneticsOf(work);
  const { changed, contradictions } = await genetics.ask({ ask: 'trial', entries });
  const listed = changed.slice(0, MOST_LISTED);
  const named = await namedAnimals(
    work,
    listed.map(({ animal }) => animal),
  );
  const numbers = new Map(named.map(({ id, number }) => [id, number]));
  const catalogue = catalogueFor(entries);
  return {
    changed: changed.length,
    animals: listed.map(({ animal, before, after }) => ({
      id: animal,
      number: numbers.get(animal) ?? '',
      before: [...before],
      after: [...after],
    })),
    contradictions: contradictions.map((id) => catalogue.locusById(id)?.name ?? id),
  };
}
