import type { Work } from '../../db/work.ts';
import { lockPageName } from './page-name.queries.ts';

const MOST_LETTERS = 40;

/** A name as it stands in an address: small letters, digits and hyphens. "Thistlecote Burrow" -> "thistlecote-burrow" */
export function toPageName(name: string): string {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}+/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, MOST_LETTERS)
    .replace(/^-+|-+$/g, '');
  return plain.length < 3 ? `collection-${plain}`.replace(/-$/, '') : plain;
}

/** The address of a new collection's front page: by its name, with a part of its id where another one has that. */
export async function freePageName(work: Work, name: string): Promise<string> {
  const pageName = toPageName(name);
  const { models, transaction, actor } = work;
  await lockPageName(work, pageName);
  const isTaken = (await models.collections.count({ where: { pageName }, transaction })) > 0;
  return isTaken ? `${pageName}-${actor.collectionId.slice(0, 8)}` : pageName;
}
