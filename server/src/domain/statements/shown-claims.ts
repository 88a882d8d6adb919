import type { ClaimRule, Eye, ParentView } from '@karyotome/contract';
import type { ClaimKind, Strengthening, Sureness } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { parentsOf } from '../animals/kin.ts';
import { claimViews, supportedClaims } from '../genetics/claim-views.ts';
import { labelOf } from '../genetics/inferred-of-animal.ts';
import type { Named } from '../genetics/genetics.queries.ts';
import type { Genetics } from '../genetics/genetics.service.ts';

/*
 * What a page shows of a statement: kept with it as it was when it was signed, so that a visitor sets off no inference and
 * reads what the signature covers.
 */

export interface ShownKin {
  readonly id: string;
  readonly role: 'dam' | 'sire';
  readonly number: string;
  readonly name: string | null;
  readonly label: string;
  readonly p: number;
  readonly parents: readonly ShownKin[];
}

export interface ShownClaim {
  readonly locus: string;
  readonly label: string;
  readonly kind: ClaimKind;
  readonly p: number;
  readonly certain: boolean;
  readonly rule: ClaimRule;
  /** Without the people who saw it: nobody has agreed to be named. */
  readonly support:
    | readonly {
        readonly animalId: string;
        readonly number: string;
        readonly on: string;
        readonly label: string;
        readonly sure: Sureness;
        /** Left out in statements that were signed before it was kept: the collection's own. */
        readonly eye?: Eye;
      }[]
    | null;
  /** What would make it surer; null where nothing is known to, or it is certain. */
  readonly surer: {
    readonly kind: Strengthening['kind'];
    readonly animalId: string;
    readonly number: string;
  } | null;
}

export interface ShownClaims {
  readonly label: string;
  readonly claims: readonly ShownClaim[];
  readonly lineage: readonly ShownKin[];
}

/** Ancestors are shown to this depth. */
const GENERATIONS = 3;

/** @param byId - everybody in the pedigree */
export async function shownClaims(
  work: Work,
  genetics: Genetics,
  animalId: string,
  byId: ReadonlyMap<string, Named>,
): Promise<ShownClaims> {
  const supported = await supportedClaims(genetics, animalId);
  const views = await claimViews(work, genetics, animalId, supported, byId);
  const claims = views.map(async (view, i): Promise<ShownClaim> => {
    const { claim, support } = supported[i]!;
    const detail =
      support && !view.certain
        ? await genetics.ask({ ask: 'detail', animal: animalId, claim, support })
        : null;
    const surer = detail?.strengthen[0];
    const { locus, label, kind, p, certain, rule } = view;
    return {
      locus,
      label,
      kind,
      p,
      certain,
      rule,
      support:
        view.support?.map(({ animalId: id, animalNumber: number, on, label: seen, sure, eye }) => ({
          animalId: id,
          number,
          on,
          label: seen,
          sure,
          eye,
        })) ?? null,
      surer: surer
        ? { kind: surer.kind, animalId: surer.animal, number: byId.get(surer.animal)!.number }
        : null,
    };
  });
  return {
    label: labelOf(genetics, animalId),
    claims: await Promise.all(claims),
    lineage: parentsOf(genetics, byId, animalId, GENERATIONS).map(toShownKin),
  };
}

const toShownKin = ({ id, role, number, name, label, p, parents }: ParentView): ShownKin => ({
  id,
  role,
  number,
  name,
  label,
  p,
  parents: parents.map(toShownKin),
});
