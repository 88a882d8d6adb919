import { NOW } from '../../db/change-rows.ts';
import type { Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';

/** Once answered it stays so: doing it again changes nothing. */
export async function answerInquiry(work: Work, id: string): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id };
  const { inquiries } = work.models;
  const { transaction } = work;
  if ((await inquiries.count({ where, transaction })) === 0) throw notFound('This question');
  await inquiries.update({ answeredAt: NOW }, { where: { ...where, answeredAt: null }, transaction });
}

export async function deleteInquiry(work: Work, id: string): Promise<void> {
  const where = { collectionId: work.actor.collectionId, id };
  const removed = await work.models.inquiries.destroy({ where, transaction: work.transaction });
  if (removed === 0) throw notFound('This question');
}
