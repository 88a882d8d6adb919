import {
  canonicalLabel,
  claimsFrom,
  compilePedigree,
  findSupport,
  infer,
  joinWords,
  kinByDistance,
  locusById,
  parseGenes,
  type Claim,
  type Parent,
  type Pedigree,
  type Posterior,
  type RecordedAnimal,
  welfareNotes,
  type SupportingRecord,
  type Sureness,
  type WeightedGenotype,
} from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';

/** Everything inferred about one collection as of one revision of its genetic records. */
export interface Genetics {
  readonly revision: string;
  readonly pedigree: Pedigree;
  readonly posterior: Posterior;
  readonly recorded: ReadonlyMap<string, RecordedAnimal>;
  readonly labels: Map<string, string>;
  readonly supports: Map<string, SupportingRecord[] | null>;
}

interface PedigreeRow {
  id: string;
  sex: RecordedAnimal['sex'];
  dam_id: string | null;
  sires: { id: string; weight: number }[] | null;
  record_id: string | null;
  genes: string | null;
  sure: Sureness | null;
}

/** Parents come from the clutch's pairing, or from the animal itself where it was entered with them. */
const PEDIGREE_SQL = `
  select a.id, a.sex,
         coalesce(p.dam_id, a.dam_id) as dam_id,
         coalesce(
           (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight) order by s.sire_id)
              from pairing_sires s where s.collection_id = a.collection_id and s.pairing_id = p.id),
           case when a.sire_id is null then null else json_build_array(json_build_object('id', a.sire_id, 'weight', 1)) end
         ) as sires,
         i.id as record_id, i.body ->> 'genes' as genes, i.body ->> 'sure' as sure
    from animals a
    left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
    left join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
    left join lateral (
      select r.id, r.body from records r
       where r.collection_id = a.collection_id and r.animal_id = a.id and r.kind = 'identification' and r.voided_at is null
       order by r.on_day desc, r.recorded_at desc limit 1) i on true
   where a.collection_id = :collectionId
   order by a.id`;

/** Kept per collection until its genetic records change; a handful of collections fit in memory. */
const KEPT = 8;
const kept = new Map<string, Genetics>();

/** The inferred state of the actor's collection, computed at most once per revision. */
export async function geneticsOf(work: Work): Promise<Genetics> {
  const { collectionId } = work.actor;
  const [row] = await select<{ genetics_revision: string }>(
    work,
    'select genetics_revision from collections where id = :collectionId',
  );
  const revision = row!.genetics_revision;
  const known = kept.get(collectionId);
  if (known?.revision === revision) return known;
  const animals = (await select<PedigreeRow>(work, PEDIGREE_SQL)).map(toRecorded);
  const pedigree = compilePedigree(animals);
  const fresh: Genetics = {
    revision,
    pedigree,
    posterior: infer(pedigree),
    recorded: new Map(animals.map((animal) => [animal.id, animal])),
    labels: new Map(),
    supports: new Map(),
  };
  kept.delete(collectionId);
  kept.set(collectionId, fresh);
  if (kept.size > KEPT) kept.delete(kept.keys().next().value!);
  return fresh;
}

function toRecorded(row: PedigreeRow): RecordedAnimal {
  return {
    id: row.id,
    sex: row.sex,
    ...(row.dam_id ? { dam: row.dam_id } : {}),
    sires: row.sires ?? [],
    ...(row.record_id && row.genes && row.sure
      ? { identification: { record: row.record_id, genes: row.genes, sure: row.sure } }
      : {}),
  };
}

export function claimsOf(genetics: Genetics, animalId: string): Claim[] {
  return claimsFrom(genetics.posterior.animals.get(animalId) ?? new Map());
}

/** A fainter possibility than this stays among the claims, where its odds can be read. */
const WORTH_A_LABEL = 0.01;

/** The label a breeder would write: what shows, what is carried, and in brackets what is possible. */
export function labelOf(genetics: Genetics, animalId: string): string {
  const known = genetics.labels.get(animalId);
  if (known !== undefined) return known;
  const identification = genetics.recorded.get(animalId)?.identification;
  const label = identification ? composeLabel(genetics, animalId, identification.genes) : 'Not identified';
  genetics.labels.set(animalId, label);
  return label;
}

function composeLabel(genetics: Genetics, animalId: string, genes: string): string {
  const parsed = parseGenes(genes);
  // Where the records contradict one another, the label says what was seen and infers nothing.
  if (!genetics.posterior.animals.has(animalId)) return canonicalLabel(parsed);
  const claims = claimsOf(genetics, animalId);
  const shown = claims.filter((claim) => claim.kind === 'visual' || claim.kind === 'double');
  const carried = claims.filter(
    (claim) =>
      claim.kind === 'carrier' ||
      (claim.kind === 'fraction' && claim.p >= WORTH_A_LABEL && !claim.words.startsWith('possible')),
  );
  const bracketed = parsed.possible
    .filter((allele) => !shown.some((claim) => claim.allele === allele))
    .map((allele) => canonicalLabel({ loci: new Map(), phases: new Map(), possible: [allele] }));
  const seen = mergeCompounds(genetics, animalId, shown);
  const words = [...seen, ...carried.map((claim) => claim.words)];
  return joinWords([...(words.length > 0 ? words : ['Normal']), ...bracketed]);
}

/** Two visible alleles of one locus are written by the compound's name, "Freeway", where it has one. */
function mergeCompounds(genetics: Genetics, animalId: string, shown: readonly Claim[]): string[] {
  const done = new Set<string>();
  return shown.flatMap((claim) => {
    if (done.has(claim.locus)) return [];
    done.add(claim.locus);
    const same = shown.filter((other) => other.locus === claim.locus);
    if (same.length < 2) return [claim.words];
    const likeliest = genetics.posterior.animals
      .get(animalId)!
      .get(claim.locus)!
      .toSorted((a, b) => b.p - a.p)[0]!;
    const genotype = likeliest.genotype;
    return [
      canonicalLabel({
        loci: new Map([[claim.locus, [{ genotype, p: 1 }]]]),
        phases: new Map(),
        possible: [],
      }),
    ];
  });
}

export function supportOf(genetics: Genetics, animalId: string, claim: Claim): SupportingRecord[] | null {
  const key = `${animalId}|${claim.locus}|${claim.allele}`;
  const known = genetics.supports.get(key);
  if (known !== undefined) return known;
  const support = findSupport(genetics.pedigree, animalId, claim);
  genetics.supports.set(key, support);
  return support;
}

/** The rule by which a claim's records yield it, in words. */
export function ruleOf(
  genetics: Genetics,
  animalId: string,
  claim: Claim,
  support: readonly SupportingRecord[] | null,
): string {
  if (!support) return "Follows from the records of the whole family, by Mendel's rules.";
  const others = support.filter((record) => record.animal !== animalId);
  const self = genetics.recorded.get(animalId)!;
  const isFounder = self.dam === undefined && self.sires.length === 0;
  const isYoung = others.some(({ animal }) => {
    const record = genetics.recorded.get(animal)!;
    return record.dam === animalId || record.sires.some((sire) => sire.id === animalId);
  });
  if (isYoung) return 'Shown by its offspring: what they show, their parents must have given.';
  if (others.length === 0)
    return isFounder ? 'As stated when the animal came in; no relative is recorded.' : 'Seen on the animal.';
  if (claim.kind === 'carrier')
    return 'A parent gives one copy to every offspring, so this one must carry it.';
  if (claim.kind === 'fraction')
    return "Mendel's odds from its parents, given that the gene does not show on it.";
  return 'Seen on the animal, and its parents can give it.';
}

/** What is known of a parent, for pairing odds: its posterior at every locus. */
export function parentOf(genetics: Genetics, animalId: string): Parent {
  return { loci: genetics.posterior.animals.get(animalId) ?? new Map() };
}

/** Cautions for what an animal most likely is. */
export function cautionsOf(genetics: Genetics, animalId: string): string[] {
  const loci = genetics.posterior.animals.get(animalId) ?? new Map<string, readonly WeightedGenotype[]>();
  return [...loci].flatMap(([id, genotypes]) => {
    const likeliest = genotypes.toSorted((a, b) => b.p - a.p)[0];
    return likeliest ? welfareNotes(locusById(id)!, likeliest.genotype) : [];
  });
}

/** The posterior of an animal's candidate sires; one sure sire has probability 1. */
export function sireOdds(genetics: Genetics, animalId: string): Map<string, number> {
  const sires = genetics.recorded.get(animalId)?.sires ?? [];
  if (sires.length === 1) return new Map([[sires[0]!.id, 1]]);
  const open = genetics.posterior.sires.get(animalId);
  if (open) return new Map(open);
  const sum = sires.reduce((total, sire) => total + sire.weight, 0);
  return new Map(sires.map((sire) => [sire.id, sire.weight / sum]));
}

/** Contradictions among an animal's relatives, itself included. */
export function conflictsNear(genetics: Genetics, animalId: string) {
  if (genetics.posterior.conflicts.length === 0) return [];
  const kin = kinByDistance(genetics.pedigree.animals, animalId);
  return genetics.posterior.conflicts.filter((conflict) => conflict.animals.some((id) => kin.has(id)));
}
