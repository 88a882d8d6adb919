import { randomUUID } from 'node:crypto';
import type { LabelOrder, LabelPreview } from '@karyotome/contract';
import { inferring } from '../../db/turns.ts';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import { namedByContent, type FileStore, type StoredFile } from '../../files/file-store.ts';
import { BeginAgain } from '../../db/begin-again.ts';
import { invalidField, notFound } from '../../refusal.ts';
import { inThread } from '../../threads/pool.ts';
import { summaries } from '../../domain/animals/animals.repository.ts';
import { geneticsOf } from '../../domain/genetics/genetics.service.ts';
import { contentKey, contentOf, lastIssues, type LabelContent } from '../../domain/labels/printed-labels.ts';
import { LABEL_STOCK } from './label-sizes.ts';

export interface NewLabel {
  readonly content: LabelContent;
  /** The running number of this animal's labels. */
  readonly issue: number;
}

/** What the labels of an order say, each with the number that it will be known by. */
export async function labelContents(
  work: Work,
  { animalIds, kind }: LabelOrder,
  urlOf: (animalId: string, issue: number) => string,
): Promise<NewLabel[]> {
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

export async function previewLabels(order: LabelOrder, labels: readonly NewLabel[]): Promise<LabelPreview> {
  const stock = LABEL_STOCK[order.size];
  return {
    size: order.size,
    widthMm: stock.widthMm,
    heightMm: stock.heightMm,
    labels: await inThread('draw-labels', { contents: labels.map(({ content }) => content), stock }),
  };
}

const sheetFile = (name: string): StoredFile => ({ folder: 'labels', name });

/** A PDF of labels, stored and not yet entered. */
export interface DrawnSheet {
  readonly id: string;
  readonly file: string;
  readonly labels: readonly NewLabel[];
}

/** Draws a PDF of labels and stores it. */
export async function drawSheet(
  database: Database,
  actor: Actor,
  files: FileStore,
  order: LabelOrder,
  origin: string,
): Promise<DrawnSheet> {
  const stock = LABEL_STOCK[order.size];
  const places = stock.sheet ? stock.sheet.columns * stock.sheet.rows : 1;
  const skip = order.skip ?? 0;
  if (skip >= places) throw invalidField('skip', `must be below ${places}, the places of one sheet`);
  const labels = await inferring.take(() =>
    reading(database, actor, (work) => labelContents(work, order, labelUrl(origin))),
  );
  const pdf = await inThread('label-pdf', {
    contents: labels.map(({ content }) => content),
    stock,
    skip,
    title: `Labels ${labels[0]!.content.number} to ${labels.at(-1)!.content.number}`,
  });
  const id = randomUUID();
  const file = namedByContent(`${id}.pdf`, pdf);
  await files.write(sheetFile(file), pdf);
  return { id, file, labels };
}

export const discardSheet = (files: FileStore, { file }: DrawnSheet): Promise<void> =>
  files.remove([sheetFile(file)]);

/** Enters a drawn sheet and remembers what each label says. Drawn anew where somebody else printed one of them meanwhile. */
export async function printLabels(
  work: Work<Actor>,
  { id, file, labels }: DrawnSheet,
): Promise<{ id: string }> {
  const { collectionId, accountId } = work.actor;
  const issues = await lastIssues(
    work,
    labels.map(({ content }) => content.animalId),
  );
  if (labels.some(({ content, issue }) => (issues.get(content.animalId)?.issue ?? 0) + 1 !== issue))
    throw new BeginAgain();
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
  return { id };
}

export async function readSheet(work: Work, files: FileStore, id: string): Promise<Buffer> {
  const row = await work.models.labelSheets.findOne({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This sheet of labels');
  return files.read(sheetFile(row.get().file));
}
