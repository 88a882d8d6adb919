import { randomUUID } from 'node:crypto';
import type {
  NewOpinion,
  NewOpinionLink,
  OpinionLinkView,
  OpinionView,
  OutsideOpinions,
} from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { now } from '../../clock.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { codeFor, digestOf } from '../../domain/accounts/secret-code.ts';
import { findAnimal } from '../../domain/animals/animals.service.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';
import { catalogueOf } from '../../domain/catalogue/catalogue.service.ts';
import { genesProblems } from '../../domain/genetics/identification-check.ts';
import { openLinkRows, opinionRows, picturesInClutch } from './opinions.queries.ts';

/** A one-time address is good for so many days. */
const LINK_DAYS = 30;

/** Records what somebody else says an animal is. */
export async function addOpinion(
  work: Work<Actor>,
  animalId: string,
  opinion: NewOpinion,
): Promise<{ id: string }> {
  await findAnimal(work, animalId);
  const problems = genesProblems(opinion.genes, 'genes', await catalogueOf(work));
  if (problems.length > 0)
    throw new Refusal('invalid', 'Some words of the genes need a correction.', problems);
  const id = randomUUID();
  await work.models.opinions.create(
    {
      collectionId: work.actor.collectionId,
      id,
      animalId,
      byName: opinion.by,
      genes: opinion.genes,
      sure: opinion.sure,
      note: opinion.note || null,
      onDay: work.today,
      authorId: work.actor.accountId,
    },
    { transaction: work.transaction },
  );
  return { id };
}

export async function removeOpinion(work: Work, id: string): Promise<void> {
  const removed = await work.models.opinions.destroy({
    where: { collectionId: work.actor.collectionId, id },
    transaction: work.transaction,
  });
  if (removed === 0) throw notFound('This opinion');
}

/** Opinions on animals, oldest first, by animal. */
export async function opinionsOn(
  work: Work,
  animalIds: readonly string[],
): Promise<Map<string, OpinionView[]>> {
  const found = new Map<string, OpinionView[]>();
  if (animalIds.length === 0) return found;
  const rows = await opinionRows(work, { animalIds });
  for (const { animalId, ...opinion } of rows) found.set(animalId, [...(found.get(animalId) ?? []), opinion]);
  return found;
}

/** The secret of an address, which is told once. */
const tokenOf = (id: string, secret: string): string => codeFor('opinion link', id, secret);

export const linkPath = (id: string, secret: string): string => `/opinion/${tokenOf(id, secret)}`;

/** Makes an address at which somebody without an account sees pictures of some clutch-mates and says what they are. */
export async function createLink(
  work: Work<Actor>,
  clutchId: string,
  { animalIds, note }: NewOpinionLink,
  secret: string,
): Promise<{ id: string }> {
  const { collectionId, accountId } = work.actor;
  await findClutch(work, clutchId);
  const mates = await picturesInClutch(work, { clutchId });
  const pictures = new Map(mates.map((mate) => [mate.id, mate.pictures]));
  animalIds.forEach((id, i) => {
    if (!pictures.has(id)) throw invalidField(`animalIds.${i}`, 'is not of this clutch');
    if (pictures.get(id) === 0) throw invalidField(`animalIds.${i}`, 'has no picture yet to judge by');
  });
  const id = randomUUID();
  await work.models.opinionLinks.create(
    {
      collectionId,
      id,
      clutchId,
      tokenDigest: digestOf(tokenOf(id, secret)),
      animalIds: [...animalIds],
      note: note || null,
      authorId: accountId,
      expiresOn: addDays(work.today, LINK_DAYS),
    },
    { transaction: work.transaction },
  );
  return { id };
}

/** From now on the address answers nobody. */
export async function revokeLink(work: Work, id: string): Promise<void> {
  const [changed] = await work.models.opinionLinks.update(
    { revokedAt: now() },
    {
      where: { collectionId: work.actor.collectionId, id, revokedAt: null, usedAt: null },
      transaction: work.transaction,
    },
  );
  if (changed === 0) throw notFound('This address');
}

/** Addresses of a clutch that still wait for their answer. */
export const openLinks = (work: Work, clutchId: string): Promise<OpinionLinkView[]> =>
  openLinkRows(work, { clutchId });

/** Takes the one answer to an address. A second one finds it used. */
export async function answerLink(
  work: Work,
  link: { id: string; animalIds: readonly string[] },
  answer: OutsideOpinions,
  key: string | null,
): Promise<void> {
  const { collectionId } = work.actor;
  const [taken] = await work.models.opinionLinks.update(
    { usedAt: now(), answerKey: key },
    { where: { collectionId, id: link.id, usedAt: null, revokedAt: null }, transaction: work.transaction },
  );
  if (taken === 0) throw new Refusal('not-found', 'This address was used already, or withdrawn.');
  const catalogue = await catalogueOf(work);
  const problems = answer.opinions.flatMap(({ animalId, genes }, i) =>
    link.animalIds.includes(animalId)
      ? genesProblems(genes, `opinions.${i}.genes`, catalogue)
      : [{ field: `opinions.${i}.animalId`, code: 'rule', message: 'is not asked about here' }],
  );
  if (problems.length > 0)
    throw new Refusal('invalid', 'Some words of the genes need a correction.', problems);
  await work.models.opinions.bulkCreate(
    answer.opinions.map(({ animalId, genes, sure, note }) => ({
      collectionId,
      id: randomUUID(),
      animalId,
      byName: answer.by,
      genes,
      sure,
      note: note || null,
      onDay: work.today,
      linkId: link.id,
    })),
    { transaction: work.transaction },
  );
}
