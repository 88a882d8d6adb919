import type { PedigreeAnimal } from './document.ts';
import { parentsOf } from './index-pedigree.ts';

/**
 * The animals themselves and all their recorded ancestors.
 *
 * @example withAncestors([{ id: 'D', sex: 'female' }, { id: 'H', sex: 'male', dam: 'D' }], ['H']).length // 2
 */
export function withAncestors(animals: readonly PedigreeAnimal[], ids: Iterable<string>): PedigreeAnimal[] {
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const wanted = new Set<string>();
  const queue = [...ids];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    if (wanted.has(id) || !byId.has(id)) continue;
    wanted.add(id);
    queue.push(...parentsOf(byId.get(id)!));
  }
  return animals.filter((animal) => wanted.has(animal.id));
}

/**
 * Everybody connected to an animal through parents and young, mates included, nearest first with their distance.
 *
 * @example [...kinByDistance([{ id: 'D', sex: 'female' }, { id: 'H', sex: 'male', dam: 'D' }], 'H')] // [["H",0],["D",1]]
 */
export function kinByDistance(animals: readonly PedigreeAnimal[], proband: string): Map<string, number> {
  const links = new Map<string, string[]>();
  const link = (a: string, b: string): void => {
    const known = links.get(a);
    if (known) known.push(b);
    else links.set(a, [b]);
  };
  for (const animal of animals) {
    for (const parent of parentsOf(animal)) {
      link(animal.id, parent);
      link(parent, animal.id);
    }
  }
  const distance = new Map([[proband, 0]]);
  for (const [id, steps] of distance) {
    for (const next of links.get(id) ?? []) if (!distance.has(next)) distance.set(next, steps + 1);
  }
  return distance;
}
