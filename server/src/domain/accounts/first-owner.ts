import { createHmac } from 'node:crypto';
import type { FirstStart } from '@karyotome/contract';
import { locked } from '../../db/locked.ts';
import type { Actor, Database } from '../../db/work.ts';
import { Refusal } from '../../refusal.ts';
import { createCollection } from '../collection/create-collection.ts';
import { checkNewPassword } from './password-rules.ts';
import { isSame } from './secret-code.ts';

/*
 * The first start of an installation: whoever sees what the server writes when it starts makes the first owner. The code is
 * made of the server's own secret, so all its processes know it, and it opens nothing once there is an account.
 */

/** Letters and digits that nobody takes for one another (Crockford's base 32). */
const DIGITS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** Five bits each: 60 in all. */
const LENGTH = 12;
const GROUP = /.{4}(?=.)/g;

/** @returns `K7QM-2XNP-4TVB` */
function codeOf(secret: string): string {
  const bytes = createHmac('sha256', secret).update('first start').digest();
  const code = [...bytes.subarray(0, LENGTH)].map((byte) => DIGITS[byte % DIGITS.length]).join('');
  return code.replace(GROUP, '$&-');
}

export const isFirstStart = async ({ models }: Pick<Database, 'models'>): Promise<boolean> =>
  (await models.accounts.count()) === 0;

/** @returns the code of the first start; null where somebody has an account already */
export const firstStartCode = async (database: Database, secret: string): Promise<string | null> =>
  (await isFirstStart(database)) ? codeOf(secret) : null;

/** As it may be typed: without the strokes, in small letters, O for 0, I or L for 1. */
const typed = (code: string): string =>
  code
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, '')
    .replaceAll('O', '0')
    .replace(/[IL]/g, '1');

/** Any number: of two at once, one makes the owner. */
const LOCK = 20_261_130_1;

/**
 * Makes the first owner with their farm.
 *
 * @throws Refusal `not-found` where the code is another one; `conflict` where somebody has an account already
 */
export async function makeFirstOwner(
  database: Database,
  { code, name, email, password, farm }: FirstStart,
  secret: string,
): Promise<Actor> {
  const refuseLater = async (): Promise<void> => {
    if (!(await isFirstStart(database)))
      throw new Refusal('conflict', 'This server has an owner already: sign in, or ask them to invite you.');
  };
  await refuseLater();
  if (!isSame(typed(code), typed(codeOf(secret))))
    throw new Refusal('not-found', 'This is not the code that the server wrote when it started.');
  checkNewPassword(password, 'password', [name, email.split('@')[0]!, farm.name]);
  return locked(database.sequelize, LOCK, async () => {
    await refuseLater();
    const { name: title, currency, ...settings } = farm;
    return createCollection(
      database,
      { email, name, password },
      title,
      async ({ models, actor, transaction }) => {
        await models.collections.update(
          { ...settings, saleRules: { currency } },
          { where: { id: actor.collectionId }, transaction },
        );
      },
    );
  });
}
