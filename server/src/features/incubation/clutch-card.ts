import { randomUUID } from 'node:crypto';
import { type Actor, type Work } from '../../db/work.ts';
import { namedByContent, type FileStore, type StoredFile } from '../../files/file-store.ts';
import { notFound } from '../../refusal.ts';
import { inThread } from '../../threads/pool.ts';
import { collectionOf } from '../../domain/collection/collection-of.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';
import type { CardOrder } from './card-pdf.ts';
import { viewClutch } from '../../domain/incubation/clutch-view.service.ts';
import { printedCard } from './clutch-card.queries.ts';

const cardFile = (name: string): StoredFile => ({ folder: 'cards', name });

export interface DrawnCard {
  readonly id: string;
  readonly file: string;
}

/** What a card says now. @param locale - of whoever prints it */
export async function cardOrder(work: Work, clutchId: string, locale: string): Promise<CardOrder> {
  const clutch = await viewClutch(work, clutchId);
  const { name, massUnit, temperatureUnit } = await collectionOf(work);
  return {
    clutch,
    collection: name,
    printedOn: work.today,
    reader: { locale, massUnit, temperatureUnit },
  };
}

/** Draws a card and stores it. */
export async function drawAndStoreCard(files: FileStore, order: CardOrder): Promise<DrawnCard> {
  const pdf = await inThread('card-pdf', order);
  const id = randomUUID();
  const file = namedByContent(`${id}.pdf`, pdf);
  await files.write(cardFile(file), pdf);
  return { id, file };
}

/** Keeps a drawn card with its clutch. */
export async function keepCard(
  work: Work<Actor>,
  clutchId: string,
  { id, file }: DrawnCard,
): Promise<{ id: string }> {
  await findClutch(work, clutchId);
  const { collectionId, accountId } = work.actor;
  await work.models.clutchCards.create(
    { collectionId, id, clutchId, file, authorId: accountId },
    { transaction: work.transaction },
  );
  return { id };
}

export const discardCard = (files: FileStore, { file }: DrawnCard): Promise<void> =>
  files.remove([cardFile(file)]);

export async function readCard(
  work: Work,
  files: FileStore,
  id: string,
): Promise<{ pdf: Buffer; name: string }> {
  const [row] = await printedCard(work, { id });
  if (!row) throw notFound('This card');
  return { pdf: await files.read(cardFile(row.file)), name: `clutch-${row.name}.pdf` };
}
