import type { ClaimView } from '@karyotome/contract';
import { isCertain, isPossible, type Claim, type SupportingRecord } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import type { Genetics } from './genetics.service.ts';
import { claimsOf, ruleOf, supportOf } from './inferred-of-animal.ts';
import { supportViews } from './support-views.ts';

/** A claim with a smallest set of records that alone yields it; null where it rests on the whole family. */
export interface SupportedClaim {
  readonly claim: Claim;
  readonly support: SupportingRecord[] | null;
}

/** An animal's claims, each with what it rests on. */
export function supportedClaims(genetics: Genetics, animalId: string): Promise<SupportedClaim[]> {
  return Promise.all(
    claimsOf(genetics, animalId).map(async (claim) => ({
      claim,
      support: await supportOf(genetics, animalId, claim),
    })),
  );
}

/** The same as it is answered, with the records by their numbers. */
export async function claimViews(
  work: Work,
  genetics: Genetics,
  animalId: string,
  claims: readonly SupportedClaim[],
  byId: ReadonlyMap<string, { number: string }>,
): Promise<ClaimView[]> {
  const records = await supportViews(
    work,
    genetics,
    claims.flatMap(({ support }) => support ?? []),
    byId,
  );
  return claims.map(({ claim, support }) => ({
    ...claim,
    certain: !isPossible(claim.kind) && isCertain(claim.p),
    rule: ruleOf(genetics, animalId, claim, support),
    support: support?.map(({ record }) => records.get(record)!) ?? null,
  }));
}
