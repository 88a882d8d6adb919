import type { ConflictView, ContradictionView } from '@karyotome/contract';
import { canonicalLabel, joinWords, parseGenes, type Conflict, type Explanation } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { supportViews } from '../animals/view-animal.ts';
import { geneticsOf, labelOf, type Genetics } from './genetics.service.ts';

interface Named {
  readonly id: string;
  readonly number: string;
  readonly clutchId: string | null;
}
type Names = ReadonlyMap<string, Pick<Named, 'number'>>;

/** Everything that cannot be true together, with what may have gone wrong. */
export async function listContradictions(work: Work): Promise<ContradictionView[]> {
  const genetics = await geneticsOf(work);
  if (genetics.posterior.conflicts.length === 0) return [];
  const found = await genetics.ask({ ask: 'explain' });
  const animals = await select<Named>(
    work,
    'select id, number, clutch_id as "clutchId" from animals where collection_id = :collectionId',
  );
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  return Promise.all(
    found.map(async ({ conflict, explanations }) => {
      const support = conflict.animals.flatMap((id) => {
        const record = genetics.recorded.get(id)?.identification?.record;
        return record ? [{ record, animal: id }] : [];
      });
      return {
        ...conflictView(genetics, conflict, byId),
        records: [...(await supportViews(work, genetics, support, byId)).values()],
        explanations: explanations.map((explanation) => explanationView(genetics, explanation, byId)),
      };
    }),
  );
}

export function conflictView(genetics: Genetics, conflict: Conflict, byId: Names): ConflictView {
  const numberOf = (id: string): string => byId.get(id)?.number ?? '';
  const who = conflict.animals.map((id) => `${numberOf(id)} (${labelOf(genetics, id)})`).join(', ');
  const where =
    conflict.locus === 'sires'
      ? 'whichever candidate is the sire'
      : conflict.locus === 'sex'
        ? 'whatever its sex'
        : `at ${locusName(genetics, conflict.locus)}`;
  const words =
    conflict.animals.length === 1
      ? `${who} cannot be what was recorded ${where}: its recorded family does not allow it.`
      : `What was recorded of ${who} cannot all be true ${where}.`;
  return {
    locus: conflict.locus,
    words,
    animals: conflict.animals.map((id) => ({ id, number: numberOf(id) })),
  };
}

function locusName({ catalogue }: Genetics, locus: string): string {
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
    words: explanationWords(genetics, kind, named, animals, alleles),
    animals: named,
    genes: kind === 'carries-more' ? carryingMore(genetics, identification?.genes ?? '', alleles) : null,
    recordId: kind === 'identification' || kind === 'carries-more' ? (identification?.record ?? null) : null,
    clutchId: byId.get(first!)?.clutchId ?? null,
  };
}

function explanationWords(
  genetics: Genetics,
  kind: Explanation['kind'],
  named: readonly { number: string }[],
  animals: readonly string[],
  alleles: readonly string[],
): string {
  const who = named.map(({ number }) => number).join(', ');
  const recorded = genetics.recorded.get(animals[0]!)!;
  switch (kind) {
    case 'identification':
      return `${who} is identified wrongly: not ${labelOf(genetics, animals[0]!)}.`;
    case 'sire':
      return `Another male is the sire of ${who}.`;
    case 'carries-more':
      return `${who} carries ${alleles.map((id) => genetics.catalogue.alleleName(id)).join(' and ')}, which was not recorded.`;
    case 'sex':
      return `${who} is not ${recorded.sex}.`;
    case 'bred-alone':
      return `The dam of ${who} bred without a male: every young one is double for what it got.`;
  }
}

/** A statement with one more gene: carried where it would not show, else shown. */
function carryingMore({ catalogue }: Genetics, genes: string, alleles: readonly string[]): string {
  const words = alleles.map((id) => {
    const { allele } = catalogue.alleleById(id)!;
    return allele.expression === 'recessive' ? `het ${allele.name}` : allele.name;
  });
  const before = parseGenes(genes, catalogue);
  const isNormal = before.loci.size === 0 && before.possible.length === 0;
  const text = joinWords([...(isNormal ? [] : [genes]), ...words], catalogue);
  const reading = parseGenes(text, catalogue);
  return reading.unknown.length > 0 ? text : canonicalLabel(reading, catalogue);
}
