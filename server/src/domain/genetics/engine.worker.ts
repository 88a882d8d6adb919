import {
  claimFromPedigree,
  conflictsOf,
  CostError,
  createCatalogue,
  createEstimator,
  eggsUntilSettled,
  essentialPedigree,
  explainConflict,
  findHinges,
  findSupport,
  appearance,
  ClutchPriorReader,
  infer,
  KinshipTable,
  PedigreeEngine,
  RecordCompiler,
  strengthenings,
  toAdditions,
  toCompact,
  withAncestors,
  type Catalogue,
  type CatalogueEntry,
  type ClutchFamily,
  type Hypothesis,
  type Claim,
  type CompactPosterior,
  type Conflict,
  type Essential,
  type Explanation,
  type Mate,
  type Pedigree,
  type Posterior,
  type Proof,
  type RecordedAnimal,
  surprises,
  type Surprise,
  type StatedClaim,
  type Strengthening,
  type SupportingRecord,
  type WeightedGenotype,
} from '@karyotome/core';
import { tryCatalogue, type Trial } from './try-catalogue.ts';
import { createCollectionCache } from '../../cache.ts';

/*
 * Runs in a thread of its own: holds the engine of each collection, brings it up to date with what was recorded, and
 * answers what takes many inferences. A snapshot is known by its token; a question about another one is refused, and the
 * asker sends its records again.
 */

/** A collection's genetic records as of one revision. */
export interface Snapshot {
  readonly collection: string;
  readonly token: number;
  readonly entries: readonly CatalogueEntry[];
  readonly animals: readonly RecordedAnimal[];
}

export type Question =
  | { readonly ask: 'update'; readonly snapshot: Snapshot }
  | ({
      readonly collection: string;
      readonly token: number;
      /** Sent along where the thread may hold another: taken up before the question, in the same turn. */
      readonly snapshot?: Snapshot;
    } & (
      | { readonly ask: 'support'; readonly animal: string; readonly claim: Claim }
      | {
          readonly ask: 'detail';
          readonly animal: string;
          readonly claim: Claim;
          /** As `support` answered it. */
          readonly support: readonly SupportingRecord[];
        }
      | { readonly ask: 'proofs'; readonly p: number; readonly mates: readonly (readonly [string, Mate])[] }
      | { readonly ask: 'explain' }
      | { readonly ask: 'kinship'; readonly animal: string; readonly kin: readonly string[] }
      | { readonly ask: 'kinships'; readonly animals: readonly string[] }
      | {
          readonly ask: 'before';
          readonly parents: readonly string[];
          readonly clutchMates: readonly string[];
        }
      | { readonly ask: 'clutch'; readonly family: ClutchFamily }
      | { readonly ask: 'surprises' }
      | { readonly ask: 'trial'; readonly entries: readonly CatalogueEntry[] }
      | { readonly ask: 'proved' }
      | {
          readonly ask: 'essential';
          readonly animal: string;
          readonly claims: readonly Pick<StatedClaim, 'locus' | 'genotypes'>[];
        }
    ));

export interface Answers {
  update: CompactPosterior;
  support: SupportingRecord[] | null;
  detail: {
    hinges: SupportingRecord[];
    strengthen: Strengthening[];
    fromPedigree: Claim | null;
  };
  /** Each one's coefficients of relationship and of kinship with the animal, and of inbreeding. */
  kinship: { relationship: number; kinship: number; inbreeding: number }[];
  /** Of each pair: place i (i + 1) / 2 + j for j at most i. */
  kinships: number[];
  proofs: (readonly [string, Proof])[];
  explain: { conflict: Conflict; explanations: Explanation[] }[];
  before: (readonly [string, (readonly [string, readonly WeightedGenotype[]])[]])[];
  /** What each clutch-mate can be but for its own identification. */
  clutch: { of: (readonly [string, readonly Hypothesis[]])[]; leftOut: readonly string[] };
  /** What another catalogue would change: claims by animal, and loci at which the records would newly contradict. */
  trial: Trial;
  /** What founders carry though nobody said so. */
  surprises: Surprise[];
  /** What their own young proved of animals: locus -> phenotype, where it was open before. */
  proved: (readonly [string, Record<string, string>])[];
  /** The smallest pedigree that yields claims of an animal; null where there is no exact one. */
  essential: { found: Essential | null };
}

interface Held {
  readonly entries: string;
  readonly catalogue: Catalogue;
  animals: readonly RecordedAnimal[];
  readonly compiler: RecordCompiler;
  engine: PedigreeEngine | null;
  readonly clutches: ClutchPriorReader;
  token: number;
}

const held = createCollectionCache<Held>();

/** @returns null where the collection's snapshot is not the one asked about */
export default function answer(question: Question): Answers[Question['ask']] | null {
  if (question.ask === 'update') return toCompact(update(question.snapshot));
  if (question.snapshot) update(question.snapshot);
  const one = held.get(question.collection);
  if (!one?.engine || one.token !== question.token) return null;
  const { pedigree } = one.engine;
  switch (question.ask) {
    case 'support':
      return exactly(() => findSupport(pedigree, question.animal, question.claim, one.catalogue)) ?? NOTHING;
    case 'detail': {
      const { animal, claim, support } = question;
      return {
        hinges: findHinges(pedigree, animal, claim, support, one.catalogue),
        strengthen: strengthenings(pedigree, animal, claim, support, one.catalogue),
        fromPedigree: claimFromPedigree(pedigree, animal, claim, one.catalogue),
      };
    }
    case 'kinship': {
      const { animal, kin } = question;
      const table = new KinshipTable({ animals: withAncestors(pedigree.animals, [animal, ...kin]) });
      return kin.map((id) => ({
        relationship: table.relationship(animal, id),
        kinship: table.kinship(animal, id),
        inbreeding: table.inbreeding(id),
      }));
    }
    case 'kinships': {
      const { animals } = question;
      const table = new KinshipTable({ animals: withAncestors(pedigree.animals, animals) });
      return animals.flatMap((one, i) => animals.slice(0, i + 1).map((other) => table.kinship(one, other)));
    }
    case 'proofs':
      return question.mates
        .flatMap(([id, mate]) => {
          const proof = eggsUntilSettled(question.p, mate);
          return proof ? [[id, proof] as const] : [];
        })
        .toSorted((a, b) => a[1].eggs - b[1].eggs);
    case 'explain':
      return conflictsOf(one.engine).map((conflict) => ({
        conflict,
        explanations: exactly(() => explainConflict(pedigree, conflict.loci, conflict.animals)) ?? [],
      }));
    case 'before':
      return parentsBefore(pedigree, question.parents, new Set(question.clutchMates));
    case 'clutch': {
      const { of, leftOut } = one.clutches.read(pedigree, question.family);
      return { of: [...of], leftOut };
    }
    case 'trial':
      return tryCatalogue(one.engine, one.catalogue, one.animals, question.entries);
    case 'surprises':
      return surprises(one.engine);
    case 'proved':
      return provedByYoung(pedigree, one.catalogue);
    case 'essential':
      return { found: exactly(() => essentialPedigree(pedigree, question.animal, question.claims)) };
  }
}

/** @returns null where the exact answer is out of reach */
function exactly<T>(ask: () => T): T | null {
  try {
    return ask();
  } catch (error) {
    if (error instanceof CostError) return null;
    throw error;
  }
}

/** Stands for "no support within reach": null says that the snapshot is another one. */
const NOTHING: SupportingRecord[] = [];

function update({ collection, token, entries, animals }: Snapshot): PedigreeEngine {
  const key = JSON.stringify(entries);
  let one = held.get(collection);
  if (one?.entries !== key) {
    const catalogue = createCatalogue(toAdditions(entries));
    one = {
      entries: key,
      catalogue,
      animals,
      compiler: new RecordCompiler(catalogue),
      engine: null,
      clutches: new ClutchPriorReader(),
      token,
    };
  }
  one.animals = animals;
  const pedigree = one.compiler.compile(animals);
  if (one.engine) one.engine.update(pedigree);
  else one.engine = new PedigreeEngine(pedigree, createEstimator());
  one.token = token;
  held.set(collection, one);
  return one.engine;
}

/**
 * What was known of a pair before their young of one clutch were looked at: from their ancestors, and from their other
 * young. The clutch cannot testify for itself when it is asked what its parents can give.
 */
function parentsBefore(
  pedigree: Pedigree,
  parents: readonly string[],
  clutchMates: ReadonlySet<string>,
): Answers['before'] {
  const isParent = new Set(parents);
  const otherYoung = pedigree.animals.filter(
    (animal) =>
      !clutchMates.has(animal.id) &&
      ((animal.dam !== undefined && isParent.has(animal.dam)) ||
        (animal.sires ?? []).some((sire) => isParent.has(sire.id))),
  );
  const known = read(pedigree, [...parents, ...otherYoung.map((animal) => animal.id)], clutchMates);
  // Where other young contradict the parents' records, the ancestors alone are asked.
  const posterior = known.conflicts.length > 0 ? read(pedigree, parents, clutchMates) : known;
  return parents.map((id) => [id, [...(posterior.animals.get(id) ?? [])]]);
}

/** Surer than this, either way, is proved; between them a look was open. */
const PROVED = 0.99;

/** What the young of animals prove of how they look, where parents and ancestors had left it open. */
function provedByYoung(pedigree: Pedigree, catalogue: Catalogue): Answers['proved'] {
  const youngOf = new Map<string, string[]>();
  for (const { id, dam, sires = [] } of pedigree.animals)
    for (const parent of [dam, ...sires.map((sire) => sire.id)])
      if (parent !== undefined) youngOf.set(parent, [...(youngOf.get(parent) ?? []), id]);
  return pedigree.animals.flatMap((animal) => {
    const young = youngOf.get(animal.id);
    if (!young || (animal.calls ?? []).length === 0) return [];
    const silent = new Set([animal.id]);
    const before = read(pedigree, [animal.id], silent);
    const after = read(pedigree, [animal.id, ...young], silent);
    if (after.conflicts.length > 0 || before.conflicts.length > 0) return [];
    const phenotype: Record<string, string> = {};
    for (const [id, genotypes] of after.animals.get(animal.id)!) {
      const locus = catalogue.locusById(id)!;
      const chances = (list: readonly WeightedGenotype[], text: string): number =>
        list.reduce((sum, { genotype, p }) => (appearance(locus, genotype) === text ? sum + p : sum), 0);
      const likeliest = genotypes.toSorted((a, b) => b.p - a.p)[0]!;
      const text = appearance(locus, likeliest.genotype);
      const wasOpen = chances(before.animals.get(animal.id)!.get(id)!, text) < PROVED;
      if (wasOpen && chances(genotypes, text) >= PROVED) phenotype[id] = text;
    }
    return Object.keys(phenotype).length > 0 ? [[animal.id, phenotype] as const] : [];
  });
}

function read(pedigree: Pedigree, ids: readonly string[], silent: ReadonlySet<string>): Posterior {
  const animals = withAncestors(pedigree.animals, ids).map((animal) =>
    silent.has(animal.id) ? { ...animal, calls: [] } : animal,
  );
  return infer({ ...pedigree, animals }, createEstimator());
}
