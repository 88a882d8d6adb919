import {
  changedClaims,
  createCatalogue,
  createEstimator,
  PedigreeEngine,
  PosteriorView,
  RecordCompiler,
  toAdditions,
  toCompact,
  type Catalogue,
  type CatalogueEntry,
  type ChangedClaims,
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
  entries: readonly CatalogueEntry[],
): Trial {
  const other = createCatalogue(toAdditions(entries));
  const tried = new PedigreeEngine(new RecordCompiler(other).compile(animals), createEstimator());
  const known = (one: PedigreeEngine): PosteriorView => new PosteriorView(toCompact(one));
  const clashing = new Set(engine.clashes.flatMap(({ loci }) => loci));
  return {
    changed: changedClaims(
      animals.map(({ id }) => id),
      { posterior: known(engine), catalogue },
      { posterior: known(tried), catalogue: other },
    ),
    contradictions: tried.clashes.flatMap(({ loci }) => loci).filter((locus) => !clashing.has(locus)),
  };
}
