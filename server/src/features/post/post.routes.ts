import { ROUTES, type ReceivedLetterView } from '@karyotome/contract';
import { simpleParser } from 'mailparser';
import { discardLetter, sendLetters } from '../../domain/post/letters.service.ts';
import { letterViews } from '../../domain/post/letters.queries.ts';
import type { Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { notFound } from '../../refusal.ts';

export function letterRoutes({ list, read, write }: Endpoints, isSimulated: boolean): void {
  read(ROUTES.post, () => Promise.resolve({ isSimulated }));
  list(ROUTES.letters, ({ work }) => letterViews(work));
  write(ROUTES.sendLetters, ({ work, body }) => sendLetters(work, body.ids));
  write(ROUTES.discardLetter, ({ work, id }) => discardLetter(work, id));
  read(ROUTES.receivedLetter, ({ work, id }) => received(work, id));
}

const addressesOf = (field: { text: string } | { text: string }[] | undefined): string =>
  [field ?? []]
    .flat()
    .map(({ text }) => text)
    .join(', ');

async function received(work: Work, letterId: string): Promise<ReceivedLetterView> {
  const { collectionId } = work.actor;
  const row = await work.models.simulatedMail.findOne({
    where: { collectionId, letterId },
    order: [['receivedAt', 'DESC']],
    transaction: work.transaction,
  });
  if (!row) throw notFound('This letter at the simulated post office');
  const { message, receivedAt } = row.get();
  const { from, to, subject = '', text = '', html } = await simpleParser(message);
  return {
    from: addressesOf(from),
    to: addressesOf(to),
    subject,
    text,
    html: html || '',
    receivedAt: receivedAt.toISOString(),
  };
}
