import type { Pedigree, PedigreeAnimal } from './document.ts';

export const UNKNOWN = 0;
export const FEMALE = 1;
export const MALE = 2;

/** The family ties of a pedigree as integer arrays. Animals keep their place in the document. */
export interface IndexedPedigree {
  readonly size: number;
  readonly ids: readonly string[];
  readonly indexOf: ReadonlyMap<string, number>;
  /** Ancestors before descendants. */
  readonly order: Int32Array;
  /** Each animal's place in `order`. */
  readonly rank: Int32Array;
  /** UNKNOWN, FEMALE or MALE; being named as a parent settles it. */
  readonly sex: Uint8Array;
  /** -1 where no dam is recorded. */
  readonly dam: Int32Array;
  /** The candidate sires of animal i are `sire[sireStart[i]]` up to, not including, `sire[sireStart[i + 1]]`. */
  readonly sireStart: Int32Array;
  readonly sire: Int32Array;
  /** Of one animal they add up to 1. */
  readonly sireWeight: Float64Array;
  readonly isParent: Uint8Array;
  /** 1 where the dam bred without a male. */
  readonly bredAlone: Uint8Array;
}

/** The number of candidate sires of an animal. */
export function sireCount(ties: IndexedPedigree, animal: number): number {
  return ties.sireStart[animal + 1]! - ties.sireStart[animal]!;
}

export function isFounder(ties: IndexedPedigree, animal: number): boolean {
  return ties.dam[animal]! < 0 && sireCount(ties, animal) === 0;
}

/** @param pedigree - checked: parents exist and nobody is its own ancestor */
export function indexPedigree({ animals }: Pick<Pedigree, 'animals'>): IndexedPedigree {
  const size = animals.length;
  const ids = animals.map((animal) => animal.id);
  const indexOf = new Map(ids.map((id, index) => [id, index]));
  const sex = Uint8Array.from(animals, (a) =>
    a.sex === 'female' ? FEMALE : a.sex === 'male' ? MALE : UNKNOWN,
  );
  const dam = new Int32Array(size).fill(-1);
  const isParent = new Uint8Array(size);
  const sireStart = new Int32Array(size + 1);
  animals.forEach((animal, i) => (sireStart[i + 1] = sireStart[i]! + (animal.sires?.length ?? 0)));
  const sire = new Int32Array(sireStart[size]!);
  const sireWeight = new Float64Array(sireStart[size]!);
  animals.forEach((animal, i) => {
    if (animal.dam !== undefined) {
      dam[i] = indexOf.get(animal.dam)!;
      isParent[dam[i]!] = 1;
      sex[dam[i]!] = FEMALE;
    }
    const sum = (animal.sires ?? []).reduce((total, candidate) => total + candidate.weight, 0);
    animal.sires?.forEach((candidate, k) => {
      const at = indexOf.get(candidate.id)!;
      sire[sireStart[i]! + k] = at;
      sireWeight[sireStart[i]! + k] = candidate.weight / sum;
      isParent[at] = 1;
      sex[at] = MALE;
    });
  });
  const order = ancestorsFirst(animals, indexOf);
  const rank = new Int32Array(size);
  order.forEach((animal, at) => (rank[animal] = at));
  return {
    size,
    ids,
    indexOf,
    order,
    rank,
    sex,
    dam,
    sireStart,
    sire,
    sireWeight,
    isParent,
    bredAlone: Uint8Array.from(animals, (animal) => (animal.bredAlone ? 1 : 0)),
  };
}

/** Kahn's order, parents before young; animals on a circle of descent are left out (`checkDescent` names them). */
export function ancestorsFirst(
  animals: readonly PedigreeAnimal[],
  indexOf: ReadonlyMap<string, number>,
): Int32Array {
  // Each animal's young in one run of `young`, from `start` on.
  const start = new Int32Array(animals.length + 1);
  const waiting = new Int32Array(animals.length);
  const links: number[] = [];
  animals.forEach((animal, i) => {
    for (const id of parentsOf(animal)) {
      const parent = indexOf.get(id)!;
      links.push(parent, i);
      start[parent + 1]!++;
      waiting[i]!++;
    }
  });
  for (let i = 0; i < animals.length; i++) start[i + 1]! += start[i]!;
  const young = new Int32Array(links.length / 2);
  const next = start.slice();
  for (let at = 0; at < links.length; at += 2) young[next[links[at]!]!++] = links[at + 1]!;
  const order = new Int32Array(animals.length);
  let count = 0;
  waiting.forEach((parents, i) => {
    if (parents === 0) order[count++] = i;
  });
  for (let at = 0; at < count; at++) {
    for (let y = start[order[at]!]!; y < start[order[at]! + 1]!; y++) {
      if (--waiting[young[y]!]! === 0) order[count++] = young[y]!;
    }
  }
  return order.subarray(0, count);
}

/** The ids of an animal's recorded parents, candidate sires included. */
export function parentsOf(animal: Pick<PedigreeAnimal, 'dam' | 'sires'>): string[] {
  return [...(animal.dam === undefined ? [] : [animal.dam]), ...(animal.sires ?? []).map((sire) => sire.id)];
}

/** The animals and all their descendants, ancestors first. Cost: one step for each animal of the pedigree. */
export function withDescendants(ties: IndexedPedigree, animals: Iterable<number>): number[] {
  const isIn = new Uint8Array(ties.size);
  for (const animal of animals) isIn[animal] = 1;
  const found: number[] = [];
  for (const i of ties.order) {
    if (isIn[i] === 0) {
      let descends = ties.dam[i]! >= 0 && isIn[ties.dam[i]!] === 1;
      for (let e = ties.sireStart[i]!; !descends && e < ties.sireStart[i + 1]!; e++)
        descends = isIn[ties.sire[e]!] === 1;
      if (!descends) continue;
      isIn[i] = 1;
    }
    found.push(i);
  }
  return found;
}
