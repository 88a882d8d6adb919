import type { SexDoubt } from '@karyotome/contract';
import { linkedBySex, sexClashes, shownBy } from '@karyotome/core';
import type { Genetics } from './genetics.service.ts';
import { knownParents } from './identification-check.ts';

/**
 * What sex-linked genes say against an animal's recorded sex; empty where nothing does, or where a parent was
 * never identified.
 */
export async function sexDoubts(genetics: Genetics, animalId: string): Promise<SexDoubt[]> {
  const { recorded, catalogue } = genetics;
  const animal = recorded.get(animalId);
  if (!animal?.identification || animal.sex === 'unknown') return [];
  const parents = await knownParents(genetics, animalId);
  if (!parents) return [];
  const total = animal.sires.reduce((sum, { weight }) => sum + weight, 0);
  const bySex = linkedBySex(
    parents.get(animal.dam!)!,
    animal.sires.map(({ id, weight }) => ({ parent: parents.get(id)!, share: weight / total })),
    catalogue,
  );
  const shown = shownBy(animal.identification.genes, catalogue);
  const { sex } = animal;
  return sexClashes(bySex, sex, shown, catalogue).map(({ label, p, pOther }) => ({ label, sex, p, pOther }));
}
