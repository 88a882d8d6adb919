import type { AnimalSummary, ParentView } from '@karyotome/contract';
import { labelOf, sireOdds } from '../genetics/inferred-of-animal.ts';
import { type Genetics } from '../genetics/genetics.service.ts';

type Named = Pick<AnimalSummary, 'id' | 'number' | 'name' | 'sex'>;

/** An animal's recorded parents and theirs, to a depth; candidate sires each with their odds. */
export function parentsOf(
  genetics: Genetics,
  byId: ReadonlyMap<string, Named>,
  animalId: string,
  depth: number,
): ParentView[] {
  const animal = genetics.recorded.get(animalId);
  if (!animal || depth === 0) return [];
  const odds = sireOdds(genetics, animalId);
  const parents = [
    ...(animal.dam ? [{ role: 'dam' as const, id: animal.dam, p: 1 }] : []),
    ...animal.sires.map((sire) => ({ role: 'sire' as const, id: sire.id, p: odds.get(sire.id) ?? 0 })),
  ];
  return parents
    .toSorted((a, b) => (a.role === b.role ? b.p - a.p : a.role < b.role ? 1 : -1))
    .map(({ role, id, p }) => ({
      ...kinView(genetics, byId, role, id, p),
      parents: parentsOf(genetics, byId, id, depth - 1),
    }));
}

export function kinView(
  genetics: Genetics,
  byId: ReadonlyMap<string, Named>,
  role: 'dam' | 'sire',
  id: string,
  p = 1,
): ParentView {
  const { number, name, sex } = byId.get(id)!;
  return { role, id, number, name, sex, label: labelOf(genetics, id), p, parents: [] };
}
