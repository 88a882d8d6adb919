import {
  changedClaims,
  createCatalogue,
  createEstimator,
  genotypesAt,
  PedigreeEngine,
  RecordCompiler,
  toAdditions,
  type Catalogue,
  type CatalogueChange,
  type ChangedClaims,
  type Known,
  type RecordedAnimal,
} from '@karyotome/core';

/** What another catalogue would change: claims by animal, and loci at which the records would newly contradict. */
export interface Trial {
  readonly changed: readonly ChangedClaims[];
  readonly contradictions: readonly string[];
}

/** Reads the same records by another catalogue. Cost: one inference of the whole collection. */
export function tryCatalogue(
  engine: PedigreeEngine,
  catalogue: Catalogue,
  animals: readonly RecordedAnimal[],
  entries: readonly CatalogueChange[],
): Trial {
  const other = createCatalogue(toAdditions(entries));
  const tried = new PedigreeEngine(new RecordCompiler(other).compile(animals), createEstimator());
  const clashing = new Set(engine.clashes.flatMap(({ loci }) => loci));
  return {
    changed: changedClaims(
      animals.map(({ id }) => id),
      knownOf(engine, catalogue),
      knownOf(tried, other),
    ),
    contradictions: tried.clashes.flatMap(({ loci }) => loci).filter((locus) => !clashing.has(locus)),
  };
}

function knownOf(engine: PedigreeEngine, catalogue: Catalogue): Known {
  const placeOf = new Map(engine.pedigree.animals.map(({ id }, place) => [id, place]));
  return { catalogue, genotypes: (animal) => genotypesAt(engine, placeOf.get(animal)!) };
}
