import type { AnimalSummary, LabelKind, LabelOrder, PrintedLabelView } from '@karyotome/contract';
import { type Work } from '../../db/work.ts';
import { parentsOf } from '../animals/kin.ts';
import type { Genetics } from '../genetics/genetics.service.ts';
import { type LastLabel, lastPrinted } from './labels.queries.ts';

/** What a label says, line by line. */
export interface LabelContent {
  readonly animalId: string;
  readonly number: string;
  readonly kind: LabelKind;
  readonly sex: 'female' | 'male' | 'unknown';
  /** The canonical label, possible genes in brackets. */
  readonly genes: string;
  readonly hatchedOn: string | null;
  /** "F-01 × M-02", candidate sires joined by "or". */
  readonly parents: string;
  /** Where the code leads. */
  readonly url: string;
}

/** What a printed label said, to be held against what it would say now. */
export function contentKey({ kind, number, sex, genes, hatchedOn, parents }: LabelContent): string {
  return kind === 'numbers' ? number : [number, sex, genes, hatchedOn ?? '', parents].join('\n');
}

type Labelled = Pick<AnimalSummary, 'id' | 'number' | 'sex' | 'label' | 'hatchedOn' | 'identified'>;

/** What an animal's label says. */
export function contentOf(
  genetics: Genetics,
  byId: ReadonlyMap<string, AnimalSummary>,
  animal: Labelled,
  kind: LabelOrder['kind'],
  url: string,
): LabelContent {
  const parents = parentsOf(genetics, byId, animal.id, 1).filter(({ p }) => p > 0.005);
  const named = (role: 'dam' | 'sire'): string =>
    parents
      .filter((parent) => parent.role === role)
      .map(({ number }) => number)
      .join(' or ');
  const [sire, dam] = [named('sire'), named('dam')];
  return {
    animalId: animal.id,
    number: animal.number,
    kind,
    sex: animal.sex,
    genes: animal.label,
    hatchedOn: animal.hatchedOn,
    parents: sire && dam ? `${sire} × ${dam}` : sire || dam,
    url,
  };
}

export async function lastIssues(work: Work, animalIds: readonly string[]): Promise<Map<string, LastLabel>> {
  if (animalIds.length === 0) return new Map();
  const rows = await lastPrinted(work, { animalIds });
  return new Map(rows.map(({ animalId, ...label }) => [animalId, label]));
}

/** The last label of each animal that has one, and whether it still says what is known. */
export async function printedLabels(
  work: Work,
  genetics: Genetics,
  byId: ReadonlyMap<string, AnimalSummary>,
  animalIds: readonly string[],
): Promise<Map<string, PrintedLabelView>> {
  const last = await lastIssues(work, animalIds);
  return new Map(
    [...last].map(([id, { issue, kind, content, printedAt }]) => {
      const animal = byId.get(id)!;
      const now = contentKey(contentOf(genetics, byId, animal, kind, ''));
      // A label of numbers alone is printed before anybody has looked.
      const isOutOfDate = now !== content || (kind === 'numbers' && animal.identified);
      return [id, { issue, kind, printedAt, isOutOfDate }];
    }),
  );
}
