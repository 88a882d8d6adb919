import { pairingCautions } from '@karyotome/core';
import type { Genetics } from '../genetics/genetics.service.ts';
import { parentOf } from '../genetics/inferred-of-animal.ts';

/** Cautions of a female and the males she is with, each once; mates of earlier seasons are left out. */
export function cautionsOfPairing(
  genetics: Genetics,
  {
    damId,
    sires,
  }: { readonly damId: string; readonly sires: readonly { readonly id: string; readonly stored: boolean }[] },
): string[] {
  const dam = parentOf(genetics, damId);
  const present = sires.filter(({ stored }) => !stored);
  return [
    ...new Set(present.flatMap(({ id }) => pairingCautions(parentOf(genetics, id), dam, genetics.catalogue))),
  ];
}
