import type { Pedigree } from './document.ts';

/** Whether the loci, the animals so far and their parents are the same. */
export function isExtension(before: Pedigree, next: Pedigree): boolean {
  if (before.unrecorded !== next.unrecorded || next.animals.length < before.animals.length) return false;
  if (before.loci !== next.loci && JSON.stringify(before.loci) !== JSON.stringify(next.loci)) return false;
  return before.animals.every((animal, i) => {
    const other = next.animals[i]!;
    if (animal === other) return true;
    const sires = animal.sires ?? [];
    return (
      animal.id === other.id &&
      animal.dam === other.dam &&
      animal.bredAlone === other.bredAlone &&
      sires.length === (other.sires?.length ?? 0) &&
      sires.every((sire, k) => sire.id === other.sires![k]!.id && sire.weight === other.sires![k]!.weight)
    );
  });
}
