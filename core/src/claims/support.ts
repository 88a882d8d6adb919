import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { PedigreeEngine } from '../inference/engine.ts';
import { genotypesOf } from '../inference/infer.ts';
import type { Call, Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { unrecordedFounder } from '../pedigree/founders.ts';
import { cachedByList, kinInOrder, withAncestors } from '../pedigree/kin.ts';
import { claimFrom, type Claim } from './claim.ts';

export interface SupportingRecord {
  readonly record: string;
  readonly animal: string;
}

/** Two fractions this close are the same claim. */
const SAME_CHANCE = 0.005;

/** Fetches no more than this many records: a claim that needs more rests on the whole family, and says so. */
const REACH = 60;

export function recordsOf(animal: PedigreeAnimal): string[] {
  const records = [animal.founderRecord, ...(animal.calls ?? []).map((call) => call.record)];
  return [...new Set(records.filter((record) => record !== undefined))];
}

const recordsOfAnimals = cachedByList(
  (animals) => new Map(animals.map((animal) => [animal.id, recordsOf(animal)])),
);

/** Which animals a record says something of. */
const animalsOfRecords = cachedByList((animals) => {
  const found = new Map<string, string[]>();
  for (const [animal, records] of recordsOfAnimals(animals))
    for (const record of records) found.set(record, [...(found.get(record) ?? []), animal]);
  return found;
});

/** An animal as it would be had only some of its records been made. */
function thinned(
  animal: PedigreeAnimal,
  pedigree: Pedigree,
  made: (record: string) => boolean,
): PedigreeAnimal {
  if (animal.founder) {
    if (animal.founderRecord !== undefined && made(animal.founderRecord)) return animal;
    const nothing = Object.fromEntries(pedigree.loci.map((l) => [l.id, unrecordedFounder(l)]));
    return { ...animal, founder: nothing };
  }
  const isMade = (call: Call): boolean => call.record === undefined || made(call.record);
  return (animal.calls ?? []).every(isMade) ? animal : { ...animal, calls: animal.calls!.filter(isMade) };
}

/** The pedigree cut down to what can say anything about some loci: other loci only where a sire is open. */
export function aboutLoci(pedigree: Pedigree, loci: ReadonlySet<string>): Pedigree {
  const coupled = pedigree.animals.some((animal) => (animal.sires?.length ?? 0) > 1);
  return coupled ? pedigree : { ...pedigree, loci: pedigree.loci.filter(({ id }) => loci.has(id)) };
}

export const aboutLocus = (pedigree: Pedigree, locus: string): Pedigree =>
  aboutLoci(pedigree, new Set([locus]));

/** The pedigree as it would be had only these records been made. */
export function withOnly(
  pedigree: Pedigree,
  proband: string,
  loci: ReadonlySet<string>,
  records: ReadonlySet<string>,
): Pedigree {
  const informative = [...records].flatMap((record) => animalsOfRecords(pedigree.animals).get(record) ?? []);
  const animals = withAncestors(pedigree.animals, [proband, ...informative]).map((animal) =>
    thinned(animal, pedigree, (record) => records.has(record)),
  );
  return aboutLoci({ ...pedigree, animals }, loci);
}

/** The claim that a pedigree yields for an animal and an allele; null where its records contradict one another. */
export function claimAt(
  pedigree: Pedigree,
  proband: string,
  { locus, allele }: Pick<Claim, 'locus' | 'allele'>,
  catalogue: Catalogue,
): Claim | null {
  const engine = new PedigreeEngine(pedigree);
  const l = pedigree.loci.findIndex(({ id }) => id === locus);
  const animal = engine.index.indexOf.get(proband)!;
  if (!engine.distribution(animal, l)) return null;
  return claimFrom(locus, allele, genotypesOf(engine, animal, l), catalogue);
}

/**
 * The claim that an animal's ancestors and its own look alone would yield: the trade's "66% het", before siblings and young
 * were looked at.
 *
 * @example claimFromPedigree({ loci: [{ id: 'clown', alleles: ['clown'] }], animals: [], unrecorded: 0.01 }, 'F1', { locus: 'clown', allele: 'clown' }) // null
 */
export function claimFromPedigree(
  pedigree: Pedigree,
  proband: string,
  claim: Pick<Claim, 'locus' | 'allele'>,
  catalogue: Catalogue = CATALOGUE,
): Claim | null {
  const animals = withAncestors(pedigree.animals, [proband]);
  return claimAt(aboutLocus({ ...pedigree, animals }, claim.locus), proband, claim, catalogue);
}

function yields(pedigree: Pedigree, proband: string, claim: Claim, catalogue: Catalogue): boolean {
  const found = claimAt(pedigree, proband, claim, catalogue);
  return found !== null && found.kind === claim.kind && Math.abs(found.p - claim.p) < SAME_CHANCE;
}

/**
 * A smallest set of records that alone yields the claim: no record of it can be left out.
 *
 * Cost: about one inference for each record taken in.
 *
 * @returns null where even all records within reach do not yield it
 * @example findSupport(parsePedigree({ format: 'karyotome-pedigree/1', loci: [{ id: 'clown', alleles: ['clown'] }], animals: [{ id: 'F1', sex: 'female' }] }), 'F1', { locus: 'clown', allele: 'clown', kind: 'excluded', p: 0, label: '' }) // null
 */
export function findSupport(
  pedigree: Pedigree,
  proband: string,
  claim: Claim,
  catalogue: Catalogue = CATALOGUE,
): SupportingRecord[] | null {
  const loci = new Set([claim.locus]);
  return fewestRecords(pedigree, proband, REACH, (records) =>
    yields(withOnly(pedigree, proband, loci, records), proband, claim, catalogue),
  );
}

/**
 * Records are taken in by kinship distance, nearest first, until they suffice; then dropped one by one, farthest first, for as
 * long as the others do.
 *
 * @param reach - fetches no more than about this many
 * @param suffice - whether a set of records is enough; asked about once for each
 * @returns none of which can be left out; null where even all within reach do not suffice
 */
export function fewestRecords(
  pedigree: Pedigree,
  proband: string,
  reach: number,
  suffice: (records: ReadonlySet<string>) => boolean,
): SupportingRecord[] | null {
  const stands = (entries: readonly SupportingRecord[]): boolean =>
    suffice(new Set(entries.map(({ record }) => record)));
  let taken: SupportingRecord[] = [];
  let isEnough = false;
  for (const ring of recordsByDistance(pedigree, proband)) {
    taken = [...taken, ...ring];
    isEnough = ring.length > 0 && stands(taken);
    if (isEnough || taken.length > reach) break;
  }
  if (!isEnough) return null;
  for (const entry of taken.toReversed()) {
    const without = taken.filter((other) => other !== entry);
    if (stands(without)) taken = without;
  }
  return taken;
}

/** The records of an animal, then those of whom it is one step away from, and so on. */
function* recordsByDistance(pedigree: Pedigree, proband: string): Generator<SupportingRecord[]> {
  const byAnimal = recordsOfAnimals(pedigree.animals);
  let ring: SupportingRecord[] = [];
  let reached = 0;
  for (const [animal, distance] of kinInOrder(pedigree.animals, proband)) {
    if (distance > reached) {
      yield ring;
      ring = [];
      reached = distance;
    }
    ring.push(...(byAnimal.get(animal) ?? []).map((record) => ({ record, animal })));
  }
  yield ring;
}

/**
 * The records whose withdrawal breaks the claim, however the rest of the collection stands. They lie in every support, so
 * only those of one support are asked about.
 *
 * @example findHinges(parsePedigree({ format: 'karyotome-pedigree/1', loci: [{ id: 'clown', alleles: ['clown'] }], animals: [{ id: 'F1', sex: 'female' }] }), 'F1', { locus: 'clown', allele: 'clown', kind: 'excluded', p: 0, label: '' }, []) // []
 */
export function findHinges(
  pedigree: Pedigree,
  proband: string,
  claim: Claim,
  support: readonly SupportingRecord[],
  catalogue: Catalogue = CATALOGUE,
): SupportingRecord[] {
  const about = aboutLocus(pedigree, claim.locus);
  return support.filter(({ record, animal }) => {
    const animals = about.animals.map((one) =>
      one.id === animal ? thinned(one, about, (other) => other !== record) : one,
    );
    return !yields({ ...about, animals }, proband, claim, catalogue);
  });
}
