import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { AnimalSummary, LabelOrder, LabelPreview, PrintedLabelView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { invalidField, notFound } from '../../http/problems.ts';
import { summaries } from '../animals/animals.repository.ts';
import { parentsOf } from '../animals/kin.ts';
import { geneticsOf, type Genetics } from '../genetics/genetics.service.ts';
import { contentKey, drawLabel, type LabelContent } from './draw-label.ts';
import { labelPdf } from './label-pdf.ts';
import { LABEL_STOCK } from './label-sizes.ts';

type Labelled = Pick<AnimalSummary, 'id' | 'number' | 'sex' | 'label' | 'hatchedOn' | 'identified'>;

/** What an animal's label says. */
function contentOf(
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

async function contents(
  work: Work,
  { animalIds, kind }: LabelOrder,
  urlOf: (animalId: string, issue: number) => string,
): Promise<{ content: LabelContent; issue: number }[]> {
  const genetics = await geneticsOf(work);
  const byId = new Map((await summaries(work, genetics)).map((animal) => [animal.id, animal]));
  const issues = await lastIssues(work, animalIds);
  return animalIds.map((id, i) => {
    const animal = byId.get(id);
    if (!animal) throw invalidField(`animalIds.${i}`, 'names no animal of this collection');
    const issue = (issues.get(id)?.issue ?? 0) + 1;
    return { content: contentOf(genetics, byId, animal, kind, urlOf(id, issue)), issue };
  });
}

/** Where a label's code leads: the record, with the label's own issue, so that an old label is known. */
export const labelUrl =
  (origin: string) =>
  (animalId: string, issue: number): string =>
    `${origin}/animals/${animalId}?label=${issue}`;

export async function previewLabels(work: Work, order: LabelOrder, origin: string): Promise<LabelPreview> {
  const stock = LABEL_STOCK[order.size];
  const labels = await contents(work, order, labelUrl(origin));
  return {
    size: order.size,
    widthMm: stock.widthMm,
    heightMm: stock.heightMm,
    labels: labels.map(({ content }) => drawLabel(content, stock)),
  };
}

const sheetPath = (dataDir: string, file: string): string => join(dataDir, 'labels', file);

/** Makes a PDF of labels, keeps it, and remembers what each label says. */
export async function printLabels(
  work: Work,
  dataDir: string,
  order: LabelOrder,
  origin: string,
): Promise<{ id: string }> {
  const { collectionId, accountId } = work.actor;
  const stock = LABEL_STOCK[order.size];
  // Two people printing at once would give one issue twice: they wait for one another here.
  await work.models.collections.findByPk(collectionId, { transaction: work.transaction, lock: true });
  const labels = await contents(work, order, labelUrl(origin));
  const places = stock.sheet ? stock.sheet.columns * stock.sheet.rows : 1;
  const skip = order.skip ?? 0;
  if (skip >= places) throw invalidField('skip', `must be below ${places}, the places of one sheet`);
  const pdf = await labelPdf(
    labels.map(({ content }) => drawLabel(content, stock)),
    stock,
    skip,
    `Labels ${labels[0]!.content.number} to ${labels.at(-1)!.content.number}`,
  );
  const id = randomUUID();
  const file = `${id}.pdf`;
  await mkdir(join(dataDir, 'labels'), { recursive: true });
  await writeFile(sheetPath(dataDir, file), pdf);
  try {
    await work.models.labelSheets.create(
      { collectionId, id, file, authorId: accountId },
      { transaction: work.transaction },
    );
    await work.models.printedLabels.bulkCreate(
      labels.map(({ content, issue }) => ({
        collectionId,
        animalId: content.animalId,
        issue,
        sheetId: id,
        kind: content.kind,
        content: contentKey(content),
      })),
      { transaction: work.transaction },
    );
  } catch (error) {
    await rm(sheetPath(dataDir, file), { force: true });
    throw error;
  }
  return { id };
}

export async function readSheet(work: Work, dataDir: string, id: string): Promise<Buffer> {
  const row = await work.models.labelSheets.findOne({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This sheet of labels');
  return readFile(sheetPath(dataDir, row.get().file));
}

interface LastLabel {
  readonly issue: number;
  readonly kind: PrintedLabelView['kind'];
  readonly content: string;
  readonly printedAt: string;
}

async function lastIssues(work: Work, animalIds: readonly string[]): Promise<Map<string, LastLabel>> {
  if (animalIds.length === 0) return new Map();
  const rows = await select<LastLabel & { animalId: string }>(
    work,
    `select distinct on (animal_id) animal_id as "animalId", issue, kind, content, printed_at as "printedAt"
       from printed_labels where collection_id = :collectionId and animal_id in (:animalIds)
      order by animal_id, issue desc`,
    { animalIds },
  );
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
