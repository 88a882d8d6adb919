import { infer, withAncestors, type Parent, type Pedigree, type Posterior } from '@karyotome/core';
import type { Genetics } from './genetics.service.ts';

/**
 * What was known of a pair before their young of one clutch were looked at: from their ancestors, and from their other
 * young. The clutch cannot testify for itself when it is asked what its parents can give.
 *
 * @param clutchMates - ids whose own records do not count
 */
export function parentsBefore(
  genetics: Genetics,
  parentIds: readonly string[],
  clutchMates: ReadonlySet<string>,
): Map<string, Parent> {
  const { pedigree } = genetics;
  const isParent = new Set(parentIds);
  const otherYoung = pedigree.animals.filter(
    (animal) =>
      !clutchMates.has(animal.id) &&
      ((animal.dam !== undefined && isParent.has(animal.dam)) ||
        (animal.sires ?? []).some((sire) => isParent.has(sire.id))),
  );
  const known = read(pedigree, [...parentIds, ...otherYoung.map((animal) => animal.id)], clutchMates);
  // Where other young contradict the parents' records, the ancestors alone are asked.
  const posterior = known.conflicts.length > 0 ? read(pedigree, parentIds, clutchMates) : known;
  return new Map(parentIds.map((id) => [id, { loci: posterior.animals.get(id) ?? new Map() }]));
}

function read(pedigree: Pedigree, ids: readonly string[], silent: ReadonlySet<string>): Posterior {
  const animals = withAncestors(pedigree.animals, ids).map((animal) =>
    silent.has(animal.id) ? { ...animal, calls: [] } : animal,
  );
  return infer({ ...pedigree, animals });
}
