import type { PedigreeAnimal } from './document.ts';
import { parentsOf } from './index-pedigree.ts';

/** Animals by their ids, and where each stands in its list. */
const placesOf = cachedByList((animals) => new Map(animals.map((animal, i) => [animal.id, i])));

/** Parents and young of each animal, in the order of the list. */
const linksOf = cachedByList((animals) => {
  const links = new Map<string, string[]>();
  const link = (a: string, b: string): void => {
    const known = links.get(a);
    if (known) known.push(b);
    else links.set(a, [b]);
  };
  for (const animal of animals)
    for (const parent of parentsOf(animal)) {
      link(animal.id, parent);
      link(parent, animal.id);
    }
  return links;
});

/** Made once for each list, which never changes: what asks about few animals does not pay for all of them each time. */
export function cachedByList<T>(make: (animals: readonly PedigreeAnimal[]) => T) {
  const made = new WeakMap<readonly PedigreeAnimal[], { readonly value: T }>();
  return (animals: readonly PedigreeAnimal[]): T => {
    const known = made.get(animals) ?? { value: make(animals) };
    made.set(animals, known);
    return known.value;
  };
}

/**
 * The animals themselves and all their recorded ancestors, in the order of the list.
 *
 * @example withAncestors([{ id: 'D', sex: 'female' }, { id: 'H', sex: 'male', dam: 'D' }], ['H']).length // 2
 */
export function withAncestors<A extends PedigreeAnimal>(animals: readonly A[], ids: Iterable<string>): A[] {
  const places = placesOf(animals);
  const wanted = new Set<number>();
  const queue = [...ids];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    const place = places.get(id);
    if (place === undefined || wanted.has(place)) continue;
    wanted.add(place);
    queue.push(...parentsOf(animals[place]!));
  }
  return [...wanted].toSorted((a, b) => a - b).map((place) => animals[place]!);
}

/**
 * Everybody connected to an animal through parents and young, mates included, nearest first with their distance. Looks no
 * farther than it is asked.
 */
export function* kinInOrder(
  animals: readonly PedigreeAnimal[],
  proband: string,
): Generator<readonly [id: string, distance: number]> {
  const links = linksOf(animals);
  const distance = new Map([[proband, 0]]);
  for (const [id, steps] of distance) {
    yield [id, steps];
    for (const next of links.get(id) ?? []) if (!distance.has(next)) distance.set(next, steps + 1);
  }
}

/**
 * The same as a whole.
 *
 * @example [...kinByDistance([{ id: 'D', sex: 'female' }, { id: 'H', sex: 'male', dam: 'D' }], 'H')] // [["H",0],["D",1]]
 */
export const kinByDistance = (animals: readonly PedigreeAnimal[], proband: string): Map<string, number> =>
  new Map(kinInOrder(animals, proband));
