import {
  parseGenes,
  shownByReading,
  whyImpossible,
  type Catalogue,
  type Impossible,
  type Parent,
} from '@karyotome/core';
import type { FieldProblem } from '@karyotome/contract';
import { unreadWords } from '@karyotome/words';
import type { Genetics } from './genetics.service.ts';

/** What is wrong with the words of a label, as problems of one field. */
export function genesProblems(text: string, field: string, catalogue: Catalogue): FieldProblem[] {
  return parseGenes(text, catalogue).unknown.map((word) => ({
    field,
    code: `gene.${word.reason}`,
    message: unreadWords(word),
  }));
}

/** What was known of parents before some of their young were looked at. */
export async function parentsBefore(
  genetics: Genetics,
  parents: readonly string[],
  clutchMates: readonly string[],
): Promise<Map<string, Parent>> {
  const answer = await genetics.ask({ ask: 'before', parents, clutchMates });
  return new Map(answer.map(([id, loci]) => [id, { loci: new Map(loci) }]));
}

/** Who was never identified and came from nowhere may carry anything. */
export function isBlank(genetics: Genetics, animalId: string): boolean {
  const animal = genetics.recorded.get(animalId)!;
  return animal.dam === undefined && animal.sires.length === 0 && !animal.identification;
}

/**
 * What was known of an animal's parents before it was looked at; null where one is not recorded, or may carry anything.
 */
export async function knownParents(
  genetics: Genetics,
  animalId: string,
): Promise<Map<string, Parent> | null> {
  const animal = genetics.recorded.get(animalId);
  if (!animal?.dam || animal.sires.length === 0) return null;
  const ids = [animal.dam, ...animal.sires.map(({ id }) => id)];
  return ids.some((id) => isBlank(genetics, id)) ? null : parentsBefore(genetics, ids, [animalId]);
}

/**
 * Why the recorded parents cannot give an animal that looks like this; empty where some candidate sire can, or where a
 * parent was never identified.
 */
export async function whyPairingCannot(
  genetics: Genetics,
  animalId: string,
  genes: string,
): Promise<Impossible[]> {
  const animal = genetics.recorded.get(animalId)!;
  const parents = await knownParents(genetics, animalId);
  if (!parents) return [];
  const contradicted = new Set(genetics.posterior.conflicts.map((conflict) => conflict.locus));
  const shown = Object.fromEntries(
    Object.entries(shownByReading(parseGenes(genes, genetics.catalogue), genetics.catalogue)).filter(
      ([locus]) => !contradicted.has(locus) || parents.get(animal.dam!)!.loci.has(locus),
    ),
  );
  const reasons = animal.sires.map((sire) =>
    whyImpossible(parents.get(sire.id)!, parents.get(animal.dam!)!, shown, genetics.catalogue),
  );
  return reasons.some((list) => list.length === 0) ? [] : reasons.toSorted((a, b) => a.length - b.length)[0]!;
}
