import type { Pedigree, PedigreeLocus } from './document.ts';
import { PEDIGREE_FORMAT } from './parse-document.ts';
import { plainError } from './looks.ts';

export interface PedigreeDocument {
  readonly format: typeof PEDIGREE_FORMAT;
  readonly loci: readonly PedigreeLocus[];
  readonly assume: { readonly unrecorded: number };
  readonly animals: readonly object[];
}

/**
 * A pedigree as a `karyotome-pedigree/1` document, which `parsePedigree` reads back. Left out are the records that it was made
 * from, and what is known at loci that it does not list.
 *
 * @param idOf - how an animal is called in the document
 * @example writePedigree({ loci: [], unrecorded: 0.01, animals: [{ id: 'F1', sex: 'female' }] }).animals // [{"id": "F1", "sex": "female"}]
 */
export function writePedigree(
  { loci, unrecorded, animals }: Pedigree,
  idOf: (id: string) => string = (id) => id,
): PedigreeDocument {
  const listed = new Set(loci.map(({ id }) => id));
  return {
    format: PEDIGREE_FORMAT,
    loci,
    assume: { unrecorded },
    animals: animals.map(({ id, sex, dam, sires, founder, calls }) => ({
      id: idOf(id),
      sex,
      ...(dam === undefined ? {} : { dam: idOf(dam) }),
      ...(sires && sires.length > 0
        ? { sires: sires.map((sire) => ({ id: idOf(sire.id), weight: sire.weight })) }
        : {}),
      ...(founder
        ? { founder: Object.fromEntries(Object.entries(founder).filter(([locus]) => listed.has(locus))) }
        : {}),
      ...(calls && calls.length > 0
        ? {
            calls: calls
              .filter(({ locus }) => listed.has(locus))
              .map((call) => ({ locus: call.locus, is: call.is, error: plainError(call) })),
          }
        : {}),
    })),
  };
}
