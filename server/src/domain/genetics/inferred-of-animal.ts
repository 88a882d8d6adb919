import { NOT_IDENTIFIED, unprovenCaution } from '@karyotome/words';
import type { ClaimRule } from '@karyotome/contract';
import {
  canonicalLabel,
  claimsFrom,
  isPossible,
  joinWords,
  kinByDistance,
  parseGenes,
  POSSIBLE_HET,
  parseParent,
  welfareNotes,
  WILD,
  type Claim,
  type Parent,
  type SupportingRecord,
  type ParsedGenes,
} from '@karyotome/core';
import type { Genetics } from './genetics.service.ts';

export function claimsOf(genetics: Genetics, animalId: string): Claim[] {
  return claimsFrom(genetics.posterior.genotypes(animalId), genetics.catalogue);
}

/** A fainter possibility than this stays among the claims, where its odds can be read. */
const WORTH_A_LABEL = 0.01;

/** The label a breeder would write: what shows, what is carried, and in brackets what is possible. */
export function labelOf(genetics: Genetics, animalId: string): string {
  const known = genetics.labels.get(animalId);
  if (known !== undefined) return known;
  const recorded = genetics.recorded.get(animalId);
  // What another breeder says of it is in the posterior: it has no text of its own here.
  const genes = recorded?.identification?.genes ?? (recorded?.stated ? '' : null);
  const label = genes === null ? NOT_IDENTIFIED : composeLabel(genetics, animalId, genes);
  genetics.labels.set(animalId, label);
  return label;
}

function composeLabel(genetics: Genetics, animalId: string, genes: string): string {
  const { catalogue, posterior } = genetics;
  const parsed = parseGenes(genes, catalogue);
  const claims = claimsOf(genetics, animalId);
  const shown = claims.filter((claim) => claim.kind === 'visual' || claim.kind === 'double');
  // Where the records contradict one another, or leave one of several open, the label says what was seen.
  const inferred = posterior.genotypes(animalId);
  const silent = [...parsed.loci].filter(
    ([locus]) =>
      !inferred.has(locus) || (parsed.either.has(locus) && !shown.some((claim) => claim.locus === locus)),
  );
  const possible = stillPossible(parsed, claims);
  const carried = claims.filter(
    (claim) =>
      claim.kind === 'sure-carrier' ||
      (claim.kind === 'possible-carrier' && claim.p >= WORTH_A_LABEL && !possible.includes(claim.allele)),
  );
  const bracketed = possible.map((allele) =>
    canonicalLabel({ ...parsed, loci: new Map(), phases: new Map(), possible: [allele] }, catalogue),
  );
  const asSeen = silent.map(([locus, genotypes]) => ({
    locus,
    label: canonicalLabel({ ...parsed, loci: new Map([[locus, genotypes]]), possible: [] }, catalogue),
  }));
  const seen = [...shownLabels(genetics, animalId, shown, parsed.names), ...asSeen];
  const words = [
    ...seen.toSorted((a, b) => catalogue.compareLoci(a.locus, b.locus)).map((one) => one.label),
    ...carried.map((claim) => claim.label),
  ];
  return joinWords([...(words.length > 0 ? words : ['Normal']), ...bracketed], catalogue);
}

/**
 * The possible genes of which nothing more is known than the text says. A possible het whose odds the records have moved is
 * written with its odds instead.
 */
function stillPossible({ possible, possibleHets }: ParsedGenes, claims: readonly Claim[]): string[] {
  return possible.filter((allele) => {
    const claim = claims.find((one) => one.allele === allele);
    if (!claim || !possibleHets.includes(allele)) return claim?.kind !== 'visual' && claim?.kind !== 'double';
    return claim.kind === 'possible-carrier' && Math.abs(claim.p - POSSIBLE_HET) < 1e-6;
  });
}

/** Two visible alleles of one locus are written by the compound's name, "Freeway"; a name is kept as it was typed. */
function shownLabels(
  genetics: Genetics,
  animalId: string,
  shown: readonly Claim[],
  names: ParsedGenes['names'],
): { locus: string; label: string }[] {
  const done = new Set<string>();
  return shown.flatMap((claim) => {
    if (done.has(claim.locus)) return [];
    done.add(claim.locus);
    const same = shown.filter((other) => other.locus === claim.locus);
    if (same.length < 2 && !names.has(claim.allele)) return [claim];
    const likeliest = genetics.posterior
      .genotypes(animalId)
      .get(claim.locus)!
      .toSorted((a, b) => b.p - a.p)[0]!;
    const loci = new Map([[claim.locus, [{ genotype: likeliest.genotype, p: 1 }]]]);
    return [
      {
        locus: claim.locus,
        label: canonicalLabel({ loci, phases: new Map(), possible: [], names }, genetics.catalogue),
      },
    ];
  });
}

/** A smallest set of records that alone yields a claim; null where it rests on the whole family. */
export async function supportOf(
  genetics: Genetics,
  animalId: string,
  claim: Claim,
): Promise<SupportingRecord[] | null> {
  const found = await genetics.ask({ ask: 'support', animal: animalId, claim });
  return found!.length > 0 ? found : null;
}

/** The rule by which a claim's records yield it. */
export function ruleOf(
  genetics: Genetics,
  animalId: string,
  claim: Claim,
  support: readonly SupportingRecord[] | null,
): ClaimRule {
  if (!support) return 'whole-family';
  const others = support.filter((record) => record.animal !== animalId);
  const self = genetics.recorded.get(animalId)!;
  const isFounder = self.dam === undefined && self.sires.length === 0;
  const isYoung = others.some(({ animal }) => {
    const record = genetics.recorded.get(animal)!;
    return record.dam === animalId || record.sires.some((sire) => sire.id === animalId);
  });
  if (isYoung) return isPossible(claim.kind) ? 'offspring-lower-odds' : 'offspring-show-it';
  if (others.length === 0) return isFounder ? 'stated-on-entry' : 'seen';
  if (claim.kind === 'sure-carrier') return 'certain-parent';
  return isPossible(claim.kind) ? 'parents-odds' : 'seen-and-possible';
}

/**
 * What is known of a parent, for pairing odds: its posterior at every locus; where the records of a locus contradict one
 * another and nothing can be inferred, what was seen of the animal itself.
 */
export function parentOf({ posterior, recorded, catalogue }: Genetics, animalId: string): Parent {
  const inferred = posterior.genotypes(animalId);
  const animal = recorded.get(animalId);
  if (posterior.conflicts.length === 0 || !animal?.identification) return { loci: inferred };
  const sex = animal.sex === 'male' ? 'male' : 'female';
  const seen = parseParent(animal.identification.genes, sex, catalogue).parent.loci;
  return { loci: new Map([...seen].filter(([locus]) => !inferred.has(locus)).concat([...inferred])) };
}

/** Cautions for what an animal most likely is, and for what it shows that nobody has proven. */
export function cautionsOf(genetics: Genetics, animalId: string): string[] {
  return [...welfareOf(genetics, animalId), ...unprovenOf(genetics, animalId).map(unprovenCaution)];
}

/** Names of the genes that an animal was seen to show, and that are not proven. */
function unprovenOf({ catalogue, recorded }: Genetics, animalId: string): string[] {
  const genes = recorded.get(animalId)?.identification?.genes;
  if (genes === undefined) return [];
  return [...parseGenes(genes, catalogue).loci.keys()].flatMap((id) => {
    const locus = catalogue.locusById(id)!;
    return locus.isUnproven ? [locus.name] : [];
  });
}

function welfareOf(genetics: Genetics, animalId: string): string[] {
  return [...genetics.posterior.genotypes(animalId)].flatMap(([id, genotypes]) => {
    const likeliest = genotypes.toSorted((a, b) => b.p - a.p)[0];
    return likeliest ? welfareNotes(genetics.catalogue.locusById(id)!, likeliest.genotype) : [];
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

/** Contradictions that an animal, a parent or young of it has a part in. */
export function conflictsNear(genetics: Genetics, animalId: string) {
  if (genetics.posterior.conflicts.length === 0) return [];
  const kin = kinByDistance([...genetics.recorded.values()], animalId);
  return genetics.posterior.conflicts.filter((conflict) =>
    conflict.animals.some((id) => (kin.get(id) ?? Infinity) <= 1),
  );
}

/** Genes that a recorded parent may have and the animal has not, by name. */
export function excludedOf(genetics: Genetics, animalId: string): string[] {
  const { dam } = genetics.recorded.get(animalId)!;
  const own = genetics.posterior.genotypes(animalId);
  const sires = [...sireOdds(genetics, animalId)].filter(([, p]) => p > 1e-9).map(([id]) => id);
  const parents = [...(dam ? [dam] : []), ...sires];
  const possible = new Set(
    parents.flatMap((parent) =>
      [...genetics.posterior.genotypes(parent)].flatMap(([locus, genotypes]) =>
        own.has(locus)
          ? genotypes.flatMap(({ genotype }) => genotype.filter((allele) => allele !== WILD))
          : [],
      ),
    ),
  );
  const had = new Set([...own.values()].flat().flatMap(({ genotype }) => [...genotype]));
  return [...possible]
    .filter((allele) => !had.has(allele))
    .map((allele) => genetics.catalogue.alleleName(allele));
}
