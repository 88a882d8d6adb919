import { linkedBySex, sexClashes, shownBy } from '@karyotome/core';
import type { Genetics } from './genetics.service.ts';
import { knownParents } from './identification-check.ts';

const percent = (p: number): string => `${p < 0.1 ? +(p * 100).toFixed(1) : Math.round(p * 100)}%`;

/**
 * What sex-linked genes say against an animal's recorded sex, in words; empty where nothing does, or where a parent was
 * never identified.
 */
export async function sexDoubts(genetics: Genetics, animalId: string): Promise<string[]> {
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
  const other = animal.sex === 'female' ? 'males' : 'females';
  return sexClashes(bySex, animal.sex, shown, catalogue).map(
    ({ label, p, pOther }) =>
      `${label} in a ${animal.sex}: ${percent(p)} of this pair's ${animal.sex}s and ${percent(pOther)} of its ${other} are so. ${p === 0 ? 'The' : 'A crossover, or the'} sex or the identification is wrong: check both`,
  );
}
