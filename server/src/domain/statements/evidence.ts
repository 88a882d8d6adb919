import { canonicalLabel, parseGenes, shownByReading, type Catalogue, type Pedigree } from '@karyotome/core';
import type { Evidence } from '@karyotome/lineage';
import type { StatedBody } from '../../db/sale-rows.ts';
import { withoutGene } from '@karyotome/words';
import type { IdentificationRow } from '../genetics/genetics.queries.ts';

/**
 * What the founders and calls of a pedigree were read from, gene by gene. By whose eye is left out: nobody has agreed to be
 * named.
 *
 * @param animalOf - record id -> the animal that it is of
 */
export function evidenceOf(
  pedigree: Pedigree,
  rows: readonly IdentificationRow[],
  animalOf: ReadonlyMap<string, string>,
  catalogue: Catalogue,
): Evidence[] {
  const founders = new Set(pedigree.animals.flatMap(({ id, founder }) => (founder ? [id] : [])));
  return rows.flatMap(({ id, on, body: { genes, sure } }) => {
    const animal = animalOf.get(id)!;
    const isFounder = founders.has(animal);
    const parsed = parseGenes(genes, catalogue);
    const shown = shownByReading(parsed, catalogue);
    return pedigree.loci.map(({ id: locus }): Evidence => {
      const genotypes = parsed.loci.get(locus);
      // What an animal with recorded parents carries unseen must come from them: in its text it is no evidence.
      const isNamed = genotypes !== undefined && (isFounder || shown[locus] !== '');
      return {
        animal,
        locus,
        kind: isFounder ? 'statement' : 'identification',
        on,
        sure,
        words: isNamed
          ? canonicalLabel({ ...parsed, loci: new Map([[locus, genotypes]]), possible: [] }, catalogue)
          : withoutGene(catalogue.locusById(locus)!.name),
      };
    });
  });
}

/** What other breeders stated of animals of a pedigree: passed on as they worded it. */
export function statedEvidence(
  rows: readonly { readonly animalId: string; readonly body: StatedBody }[],
  pedigree: Pedigree,
): Evidence[] {
  const loci = new Set(pedigree.loci.map(({ id }) => id));
  return rows.flatMap(({ animalId, body }) =>
    body.evidence.filter(({ locus }) => loci.has(locus)).map((one) => ({ animal: animalId, ...one })),
  );
}
