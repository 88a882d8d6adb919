import { infer } from '../inference/infer.ts';
import type { Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { unrecordedFounder } from '../pedigree/from-records.ts';
import { kinByDistance, withAncestors } from '../pedigree/kin.ts';
import { claimFrom, type Claim } from './claim.ts';

export interface SupportingRecord {
  readonly record: string;
  readonly animal: string;
}

/** Two fractions this close are the same claim. */
const SAME_CHANCE = 0.005;

/** Fetches no more than this many records: a claim that needs more rests on the whole family, and says so. */
const REACH = 60;

function recordsOf(animal: PedigreeAnimal): string[] {
  const records = [animal.founderRecord, ...(animal.calls ?? []).map((call) => call.record)];
  return [...new Set(records.filter((record) => record !== undefined))];
}

/** The pedigree as it would be had only these records been made. */
function withOnly(
  pedigree: Pedigree,
  proband: string,
  locus: string,
  records: ReadonlySet<string>,
): Pedigree {
  const thinned = pedigree.animals.map((animal): PedigreeAnimal => {
    if (animal.founder) {
      if (animal.founderRecord !== undefined && records.has(animal.founderRecord)) return animal;
      const nothing = Object.fromEntries(pedigree.loci.map((l) => [l.id, unrecordedFounder(l)]));
      return { ...animal, founder: nothing };
    }
    const calls = (animal.calls ?? []).filter(
      (call) => call.record !== undefined && records.has(call.record),
    );
    return { ...animal, calls };
  });
  const informative = thinned.filter((animal) => recordsOf(animal).some((record) => records.has(record)));
  const animals = withAncestors(thinned, [proband, ...informative.map((animal) => animal.id)]);
  // Only where a sire is open can another locus say anything about this one.
  const coupled = animals.some((animal) => (animal.sires?.length ?? 0) > 1);
  return {
    ...pedigree,
    animals,
    loci: coupled ? pedigree.loci : pedigree.loci.filter((l) => l.id === locus),
  };
}

function yields(pedigree: Pedigree, proband: string, claim: Claim, records: ReadonlySet<string>): boolean {
  const posterior = infer(withOnly(pedigree, proband, claim.locus, records));
  const genotypes = posterior.animals.get(proband)?.get(claim.locus);
  if (!genotypes) return false;
  const found = claimFrom(claim.locus, claim.allele, genotypes);
  return found.kind === claim.kind && Math.abs(found.p - claim.p) < SAME_CHANCE;
}

/**
 * A smallest set of records that alone yields the claim: no record of it can be left out.
 *
 * Records are taken in by kinship distance, nearest first, until they yield the claim; then dropped one by one, farthest
 * first, for as long as it stands. Cost: about one inference per record taken in.
 *
 * @returns null where even all records within reach do not yield it
 */
export function findSupport(pedigree: Pedigree, proband: string, claim: Claim): SupportingRecord[] | null {
  const byId = new Map(pedigree.animals.map((animal) => [animal.id, animal]));
  const ranked = [...kinByDistance(pedigree.animals, proband)].flatMap(([id, distance]) =>
    recordsOf(byId.get(id)!).map((record) => ({ record, animal: id, distance })),
  );
  let taken: typeof ranked = [];
  for (let reach = 0; ; reach++) {
    const ring = ranked.filter((entry) => entry.distance === reach);
    taken = [...taken, ...ring];
    if (ring.length > 0 && yields(pedigree, proband, claim, new Set(taken.map((t) => t.record)))) break;
    if (taken.length === ranked.length || taken.length > REACH) return null;
  }
  for (const entry of taken.toReversed()) {
    const without = taken.filter((other) => other !== entry);
    if (yields(pedigree, proband, claim, new Set(without.map((t) => t.record)))) taken = without;
  }
  return taken.map(({ record, animal }) => ({ record, animal }));
}
