import {
  assessUnproven,
  claimFromPedigree,
  conflictsOf,
  createCatalogue,
  createEstimator,
  doubtfulRecords,
  eggsUntilSettled,
  essentialPedigree,
  exactly,
  explainConflict,
  findHinges,
  findSupport,
  genotypesAt,
  HOW_OFTEN,
  appearance,
  ClutchPriorReader,
  infer,
  KinshipTable,
  PedigreeEngine,
  RecordCompiler,
  strengthenings,
  suspectRecords,
  toAdditions,
  toCompact,
  withAncestors,
  writePedigree,
  writePlink,
  type Catalogue,
  type ErrorOf,
  type ExplainedConflict,
  type Pedigree,
  type Posterior,
  type RecordedAnimal,
  surprises,
  type SupportingRecord,
  type WeightedGenotype,
} from '@karyotome/core';
import type { Answers, Names, Question, RecordErrors, Snapshot } from './engine-questions.ts';
import { tryCatalogue } from './try-catalogue.ts';
import { createCollectionCache } from '../../cache.ts';

/*
 * Runs in a thread of its own: holds the engine of each collection, brings it up to date with what was recorded, and
 * answers what takes many inferences. A snapshot is known by its token; a question about another one is refused, and the
 * asker sends its records again.
 */

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
  // TypeScript does not see that the answer to a question's word is asked with that question.
  const reply = REPLIES[question.ask] as (about: Asked, question: Question) => Answers[Question['ask']];
  return reply({ ...one, engine: one.engine, pedigree: one.engine.pedigree }, question);
}

/** What a question is asked about. */
interface Asked extends Held {
  readonly engine: PedigreeEngine;
  readonly pedigree: Pedigree;
}

const REPLIES: {
  readonly [A in Exclude<Question['ask'], 'update'>]: (
    about: Asked,
    question: Extract<Question, { ask: A }>,
  ) => Answers[A];
} = {
  support: ({ pedigree, catalogue }, { animal, claim }) =>
    exactly(() => findSupport(pedigree, animal, claim, catalogue)) ?? NOTHING,
  detail: ({ pedigree, catalogue }, { animal, claim, support }) => ({
    hinges: findHinges(pedigree, animal, claim, support, catalogue),
    strengthen: strengthenings(pedigree, animal, claim, support, catalogue),
    fromPedigree: claimFromPedigree(pedigree, animal, claim, catalogue),
  }),
  kinship: ({ pedigree }, { animal, kin }) => {
    const table = new KinshipTable({ animals: withAncestors(pedigree.animals, [animal, ...kin]) });
    return kin.map((id) => ({
      relationship: table.relationship(animal, id),
      kinship: table.kinship(animal, id),
      inbreeding: table.inbreeding(id),
    }));
  },
  kinships: ({ pedigree }, { animals }) => {
    const table = new KinshipTable({ animals: withAncestors(pedigree.animals, animals) });
    return animals.flatMap((one, i) => animals.slice(0, i + 1).map((other) => table.kinship(one, other)));
  },
  proofs: (_, { p, mates }) =>
    mates
      .flatMap(([id, mate]) => {
        const proof = eggsUntilSettled(p, mate);
        return proof ? [[id, proof] as const] : [];
      })
      .toSorted((a, b) => a[1].eggs - b[1].eggs),
  explain: ({ engine }) => explained(engine),
  suspects: ({ engine }, { errors }) => suspectRecords(engine, explained(engine), errorOf(errors)),
  doubtful: ({ engine }, { locus, errors }) => doubtfulRecords(engine, locus, errorOf(errors)) ?? [],
  before: ({ pedigree }, { parents, clutchMates }) => parentsBefore(pedigree, parents, new Set(clutchMates)),
  clutch: ({ pedigree, clutches }, { family }) => {
    const { of, leftOut } = clutches.read(pedigree, family);
    return { of: [...of], leftOut };
  },
  trial: ({ engine, catalogue, animals }, { entries }) => tryCatalogue(engine, catalogue, animals, entries),
  surprises: ({ engine }) => surprises(engine),
  unproven: ({ animals, catalogue }, { mates }) => {
    const free = new Set(mates);
    return catalogue.loci
      .filter(({ isUnproven }) => isUnproven)
      .map(({ id }) => [id, exactly(() => assessUnproven(animals, id, free, catalogue)) ?? null] as const);
  },
  proved: ({ pedigree, catalogue }) => provedByYoung(pedigree, catalogue),
  document: ({ pedigree }, { names }) => writePedigree(pedigree, ownNames(names)),
  plink: ({ engine, pedigree }, { names }) => {
    const placeOf = new Map(engine.index.ids.map((id, at) => [id, at]));
    return writePlink(pedigree, (id) => genotypesAt(engine, placeOf.get(id)!), nameFrom(names));
  },
  essential: ({ pedigree }, { animal, claims }) => ({
    found: exactly(() => essentialPedigree(pedigree, animal, claims)),
  }),
};

function nameFrom(names: Names): (id: string) => string {
  const known = new Map(names);
  return (id) => known.get(id) ?? id;
}

/** Names that several have would make one animal of them: those keep their ids. */
function ownNames(names: Names): (id: string) => string {
  const bearers = new Map<string, number>();
  for (const [, name] of names) bearers.set(name, (bearers.get(name) ?? 0) + 1);
  return nameFrom(names.filter(([, name]) => bearers.get(name) === 1));
}

const explainedOf = new WeakMap<Pedigree, ExplainedConflict[]>();

/** Every conflict with what may have gone wrong; worked out once for each state of the records. */
function explained(engine: PedigreeEngine): ExplainedConflict[] {
  const { pedigree } = engine;
  const known = explainedOf.get(pedigree);
  if (known) return known;
  const found = conflictsOf(engine).map((conflict) => ({
    conflict,
    explanations: exactly(() => explainConflict(pedigree, conflict.loci, conflict.animals)) ?? [],
  }));
  explainedOf.set(pedigree, found);
  return found;
}

const errorOf =
  (errors: RecordErrors): ErrorOf =>
  ({ record, locus }) =>
    Math.max(HOW_OFTEN.identification, errors[record ?? '']?.[locus] ?? 0);

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
