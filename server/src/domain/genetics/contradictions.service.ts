import { createHash } from 'node:crypto';
import type { ConflictView, ContradictionView, SurpriseView } from '@karyotome/contract';
import { canonicalLabel, joinWords, parseGenes, type Conflict, type Explanation } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { canonicalOf } from '../catalogue/canonical.ts';
import { supportViews } from './support-views.ts';
import { geneticsOf, type Genetics } from './genetics.service.ts';
import { labelOf } from './inferred-of-animal.ts';
import { namedAnimals, type Named } from './genetics.queries.ts';
type Names = ReadonlyMap<string, Pick<Named, 'number'>>;

/** Everything that cannot be true together, with what may have gone wrong. */
export async function listContradictions(work: Work): Promise<ContradictionView[]> {
  const genetics = await geneticsOf(work);
  if (genetics.posterior.conflicts.length === 0) return [];
  const found = await genetics.ask({ ask: 'explain' });
  const animals = await namedAnimals(work);
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  return Promise.all(
    found.map(async ({ conflict, explanations }) => {
      const support = conflict.animals.flatMap((id) => {
        const record = genetics.recorded.get(id)?.identification?.record;
        return record ? [{ record, animal: id }] : [];
      });
      return {
        id: createHash('sha256').update(JSON.stringify(conflict)).digest('base64url').slice(0, 22),
        ...conflictView(genetics, conflict, byId),
        records: [...(await supportViews(work, genetics, support, byId)).values()],
        explanations: explanations.map((explanation) => explanationView(genetics, explanation, byId)),
      };
    }),
  );
}

/** What descendants say of founders that nobody said, the surest first. */
export async function listSurprises(work: Work): Promise<SurpriseView[]> {
  const genetics = await geneticsOf(work);
  const found = await genetics.ask({ ask: 'surprises' });
  if (found.length === 0) return [];
  const named = await namedAnimals(work, [...new Set(found.map(({ animal }) => animal))]);
  const byId = new Map(named.map((animal) => [animal.id, animal]));
  return found.map(({ animal, locus, alleles, pBefore, p }) => ({
    id: `${animal} ${locus}`,
    animal: { id: animal, number: byId.get(animal)?.number ?? '' },
    stated: canonicalOf(genetics.recorded.get(animal)?.identification?.genes ?? '', genetics.catalogue),
    alleles: alleles.map((id) => genetics.catalogue.alleleName(id)),
    pBefore,
    p,
    genes: carryingMore(genetics, genetics.recorded.get(animal)?.identification?.genes ?? '', alleles),
  }));
}

export function conflictView(genetics: Genetics, conflict: Conflict, byId: Names): ConflictView {
  const isLocus = conflict.locus !== 'sires' && conflict.locus !== 'sex';
  return {
    locus: conflict.locus,
    locusName: isLocus ? locusName(genetics, conflict.locus) : null,
    animals: conflict.animals.map((id) => ({
      id,
      number: byId.get(id)?.number ?? '',
      label: labelOf(genetics, id),
    })),
  };
}

export function locusName({ catalogue }: Genetics, locus: string): string {
  return catalogue.locusById(locus)?.name ?? catalogue.alleleName(locus);
}

function explanationView(
  genetics: Genetics,
  { kind, animals, alleles, share }: Explanation,
  byId: ReadonlyMap<string, Named>,
): ContradictionView['explanations'][number] {
  const named = animals.map((id) => ({ id, number: byId.get(id)?.number ?? '' }));
  const [first] = animals;
  const identification = genetics.recorded.get(first!)?.identification;
  return {
    kind,
    share,
    label: labelOf(genetics, first!),
    sex: genetics.recorded.get(first!)!.sex,
    alleles: alleles.map((id) => genetics.catalogue.alleleName(id)),
    animals: named,
    genes: kind === 'carries-more' ? carryingMore(genetics, identification?.genes ?? '', alleles) : null,
    recordId: kind === 'identification' || kind === 'carries-more' ? (identification?.record ?? null) : null,
    clutchId: byId.get(first!)?.clutchId ?? null,
  };
}

/** A statement with one more gene: carried where it would not show, else shown. */
function carryingMore({ catalogue }: Genetics, genes: string, alleles: readonly string[]): string {
  const words = alleles.map((id) => {
    const { allele } = catalogue.alleleById(id)!;
    return allele.expression === 'recessive' ? `het ${allele.name}` : allele.name;
  });
  const before = parseGenes(genes, catalogue);
  const isNormal = before.loci.size === 0 && before.possible.length === 0;
  // Its canonical label does not say "Normal", which it would not be any more.
  const text = joinWords([...(isNormal ? [] : [canonicalLabel(before, catalogue)]), ...words], catalogue);
  const reading = parseGenes(text, catalogue);
  return reading.unknown.length > 0 ? text : canonicalLabel(reading, catalogue);
}
