import type { CatalogueEntryInput, TrialView } from '@karyotome/contract';
import type { CatalogueChange } from '@karyotome/core';
import { catalogueFor, entryInputs, inputsBut } from '../../domain/catalogue/catalogue.service.ts';
import { check, keyOf } from '../../domain/catalogue/check-entry.ts';
import { namedAnimals } from '../../domain/genetics/genetics.queries.ts';
import { geneticsOf, type Genetics } from '../../domain/genetics/genetics.service.ts';
import type { Work } from '../../db/work.ts';

/** So many of the animals that would change are listed. */
const MOST_LISTED = 20;

/** What is to be tried, read before it is: the trial itself needs no transaction. */
export interface PlannedTrial {
  readonly genetics: Genetics;
  readonly entries: readonly CatalogueChange[];
  readonly numbers: ReadonlyMap<string, string>;
}

/**
 * A catalogue with an entry more, in place of one of the same key or of the one that is edited.
 *
 * @param replaces - the id of the entry that is edited
 */
export async function planEntry(
  work: Work,
  entry: CatalogueEntryInput,
  replaces: string | null,
): Promise<PlannedTrial> {
  const known = (await inputsBut(work, replaces)).filter(
    (other) => other.kind === 'as-of' || other.kind !== entry.kind || keyOf(other) !== keyOf(entry),
  );
  check(entry, catalogueFor(known));
  return plan(work, [...known, entry]);
}

/** The catalogue with its latest update. */
export async function planUpdate(work: Work): Promise<PlannedTrial> {
  return plan(
    work,
    (await entryInputs(work)).filter(({ kind }) => kind !== 'as-of'),
  );
}

async function plan(work: Work, entries: readonly CatalogueChange[]): Promise<PlannedTrial> {
  const genetics = await geneticsOf(work);
  const named = await namedAnimals(work);
  return {
    genetics,
    // Tells weigh what is seen on one animal; what is inferred from records does not turn on them.
    entries: entries.filter(({ kind }) => kind !== 'marker'),
    numbers: new Map(named.map(({ id, number }) => [id, number])),
  };
}

/** What would be claimed otherwise. Nothing is kept. */
export async function runTrial({ genetics, entries, numbers }: PlannedTrial): Promise<TrialView> {
  const { changed, contradictions } = await genetics.ask({ ask: 'trial', entries });
  const catalogue = catalogueFor(entries);
  return {
    changed: changed.length,
    animals: changed.slice(0, MOST_LISTED).map(({ animal, before, after }) => ({
      id: animal,
      number: numbers.get(animal) ?? '',
      before: [...before],
      after: [...after],
    })),
    contradictions: contradictions.map((id) => catalogue.locusById(id)?.name ?? id),
  };
}
