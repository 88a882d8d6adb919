import { isGone, type UnprovenGeneView } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { namedAnimals } from './genetics.queries.ts';
import { geneticsOf } from './genetics.service.ts';

/** Genes of the collection's own that are not proven, and what the records say of them. */
export async function listUnproven(work: Work): Promise<UnprovenGeneView[]> {
  const genetics = await geneticsOf(work);
  const loci = genetics.catalogue.loci.filter(({ isUnproven }) => isUnproven);
  if (loci.length === 0) return [];
  const animals = await namedAnimals(work);
  const mates = animals.filter((animal) => !isGone(animal)).map(({ id }) => id);
  const found = new Map(await genetics.ask({ ask: 'unproven', mates }));
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const named = (id: string) => ({ id, number: byId.get(id)!.number });
  return loci.map(({ id, name }) => {
    const one = found.get(id) ?? null;
    return {
      locus: id,
      name,
      shows: (one?.shows ?? []).map(named),
      young: one?.young ?? { showing: 0, others: 0 },
      odds: one?.odds ?? null,
      tests: (one?.tests ?? []).map(({ dam, sire, young, apart }) => ({
        dam: dam === null ? null : named(dam),
        sire: sire === null ? null : named(sire),
        young,
        apart: apart.map((ways) => [...ways]),
      })),
    };
  });
}
