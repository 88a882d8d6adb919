import { randomBytes, randomUUID } from 'node:crypto';
import { addDays } from '@karyotome/core';
import { digestOf } from '../accounts/secret-code.ts';
import { NOW } from '../../db/change-rows.ts';
import type { HandOverRow } from '../../db/sale-rows.ts';
import type { Actor, Database, Work } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { statementsOf } from '../statements/statements.queries.ts';

/** An address that was not used by then opens nothing any more. */
const OPEN_DAYS = 30;
const TOKEN_BYTES = 18;

/** Makes an address at which an animal's package can be fetched once. */
export async function makeHandOver(work: Work<Actor>, animalId: string): Promise<{ path: string }> {
  const { collectionId, accountId } = work.actor;
  const { number } = await findAnimal(work, animalId);
  if ((await statementsOf(work, { animalId })).length === 0)
    throw new Refusal('conflict', `Nothing is signed of ${number} yet: publish it first.`);
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  await work.models.handOvers.create(
    {
      collectionId,
      id: randomUUID(),
      animalId,
      tokenDigest: digestOf(token),
      authorId: accountId,
      expiresOn: addDays(work.today, OPEN_DAYS),
      openedAt: null,
    },
    { transaction: work.transaction },
  );
  return { path: `/h/${token}` };
}

/** What an address hands over. @throws Refusal where there is nothing at it, or not any more */
export async function handOverAt({ models }: Database, token: string): Promise<HandOverRow> {
  const row = (await models.handOvers.findOne({ where: { tokenDigest: digestOf(token) } }))?.get();
  if (!row) throw new Refusal('not-found', 'There is nothing at this address.');
  return row;
}

/** Takes what an address hands over: whoever comes second finds it taken. */
export async function openHandOver(work: Work, token: string): Promise<string> {
  const { collectionId } = work.actor;
  const { handOvers } = work.models;
  const where = { collectionId, tokenDigest: digestOf(token) };
  const row = (await handOvers.findOne({ where, transaction: work.transaction }))?.get();
  if (!row) throw new Refusal('not-found', 'There is nothing at this address.');
  if (row.openedAt !== null)
    throw new Refusal('conflict', 'The package was fetched already. Ask the breeder for another address.');
  if (row.expiresOn < work.today)
    throw new Refusal('conflict', 'This address has run out. Ask the breeder for another one.');
  await handOvers.update({ openedAt: NOW }, { where, transaction: work.transaction });
  return row.animalId;
}
