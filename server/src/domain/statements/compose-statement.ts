import type { AnimalSummary } from '@karyotome/contract';
import { statedClaims, withAncestors, writePedigree, type Claim } from '@karyotome/core';
import { STATEMENT_FORMAT, type Compared, type StatementSubject } from '@karyotome/lineage';
import type { Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { identificationsByIds, namedAnimals } from '../genetics/genetics.queries.ts';
import { geneticsOf, type Genetics } from '../genetics/genetics.service.ts';
import { cautionsOf, claimsOf } from '../genetics/inferred-of-animal.ts';
import { statedByIds } from '../taking-in/taken.queries.ts';
import { evidenceOf, statedEvidence } from './evidence.ts';
import { offerOf } from '../sales/offers.service.ts';
import { statedPictures } from './stated-pictures.ts';
import { shownClaims, type ShownClaims } from './shown-claims.ts';
import type { FileStore } from '../../files/file-store.ts';

/** What a statement would say now, before it has a number. */
export interface Composition {
  readonly animalId: string;
  readonly subject: Omit<StatementSubject, 'statement' | 'previous' | 'changes'>;
  readonly shown: ShownClaims;
}

const urn = (id: string): string => `urn:uuid:${id}`;

/** How a statement names and describes its animal. */
export const statedAnimal = ({
  number,
  name,
  sex,
  hatchedOn,
}: Pick<AnimalSummary, 'number' | 'name' | 'sex' | 'hatchedOn'>): Pick<
  StatementSubject,
  'number' | 'name' | 'sex' | 'hatchedOn'
> => ({
  number,
  ...(name === null ? {} : { name }),
  sex,
  ...(hatchedOn === null ? {} : { hatchedOn }),
});

/** What would be claimed now, without what it rests on. */
export const comparedClaims = (genetics: Genetics, animalId: string): Compared[] =>
  claimsOf(genetics, animalId).map(({ locus, label, p }: Claim) => ({ locus, words: label, p }));

/** Composes a statement to be signed: with the pictures that buyers see, whose files are read for their digests. */
export async function composeToSign(work: Work, files: FileStore, animalId: string): Promise<Composition> {
  const { subject, ...composition } = await composeStatement(work, animalId);
  const pictures = await statedPictures(work, files, animalId);
  return { ...composition, subject: { ...subject, ...(pictures.length > 0 ? { pictures } : {}) } };
}

/**
 * Composes what a statement of an animal says: its claims, and the smallest pedigree that yields them. It takes many
 * inferences.
 */
export async function composeStatement(work: Work, animalId: string): Promise<Composition> {
  const animal = await findAnimal(work, animalId);
  const genetics = await geneticsOf(work);
  const claims = statedClaims(genetics.posterior.genotypes(animalId), genetics.catalogue);
  const { found } = await genetics.ask({
    ask: 'essential',
    animal: animalId,
    claims: claims.map(({ locus, genotypes }) => ({ locus, genotypes })),
  });
  if (!found)
    throw new Refusal(
      'conflict',
      `What ${animal.number} carries cannot be computed exactly, and so not stated.`,
    );
  const { pedigree, p, records } = found;
  const rows =
    records.length === 0
      ? []
      : await identificationsByIds(work, { ids: records.map(({ record }) => record) });
  const animalOf = new Map(records.map(({ record, animal: of }) => [record, of]));
  const byId = new Map((await namedAnimals(work)).map((one) => [one.id, one]));
  const { ancestors } = await offerOf(work, animalId);
  // Ancestors are named but those that the breeder hides; other relatives, whose evidence counts, are in it by id only.
  const named = withAncestors(pedigree.animals, [animalId])
    .filter(({ id }) => id === animalId || ancestors[id] !== 'hidden')
    .map(({ id }) => [urn(id), byId.get(id)!.number]);
  return {
    animalId,
    shown: await shownClaims(work, genetics, animalId, byId),
    subject: {
      id: urn(animalId),
      format: STATEMENT_FORMAT,
      asOf: work.today,
      ...statedAnimal(animal),
      pedigree: writePedigree(pedigree, urn),
      named: Object.fromEntries(named) as Record<string, string>,
      evidence: [
        ...evidenceOf(pedigree, rows, animalOf, genetics.catalogue),
        ...statedEvidence(await statedByIds(work, { ids: records.map(({ record }) => record) }), pedigree),
      ].map((one) => ({ ...one, animal: urn(one.animal) })),
      claims: claims.map(({ locus, kind, genotypes, label }, i) => ({
        animal: urn(animalId),
        locus,
        kind,
        genotypes,
        p: Math.round(p[i]! * 1e6) / 1e6,
        words: label,
      })),
      cautions: cautionsOf(genetics, animalId),
    },
  };
}
