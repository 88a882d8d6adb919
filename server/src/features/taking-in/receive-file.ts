import { createCatalogue, compilePedigree, infer, toAdditions, CostError } from '@karyotome/core';
import { receiveFile, type ReceivedAnimal } from '@karyotome/lineage';
import type { Trial } from '../../domain/taking-in/preview.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'receive-file': (input: { readonly bytes: Uint8Array }) => Promise<ReceivedAnimal[]>;
    'try-inference': typeof tryInference;
  }
}

/** Reads and verifies a file. Runs in a thread: signatures, digests and inference take their time. */
export const receive = ({ bytes }: { readonly bytes: Uint8Array }): Promise<ReceivedAnimal[]> =>
  receiveFile(bytes);

/**
 * What could not all be true. Runs in a thread.
 *
 * @returns by locus, the animals whose records cannot hold together; empty where that is out of reach
 */
export function tryInference({ entries, animals }: Trial): { locus: string; animals: readonly string[] }[] {
  try {
    const pedigree = compilePedigree(animals, createCatalogue(toAdditions(entries)));
    return infer(pedigree).conflicts.map(({ locus, animals: clashing }) => ({ locus, animals: clashing }));
  } catch (error) {
    if (error instanceof CostError) return [];
    throw error;
  }
}
