import { dictionary } from '@zxcvbn-ts/language-common';
import { LEAST_PASSWORD } from '@karyotome/contract';
import { invalidField } from '../../refusal.ts';

const COMMON = new Set(dictionary['passwords-common'] as readonly string[]);
/** What is put behind a common password to make it look like another one. */
const TAIL = /[\d\W_]+$/;

/**
 * Refuses a password that many people have, or that says who has it.
 *
 * @param field - that the password is sent in
 * @param about - words about whoever chooses it, as their name and address
 * @throws Refusal `invalid` with the field
 */
export function checkNewPassword(password: string, field: string, about: readonly string[]): void {
  if (password.length < LEAST_PASSWORD)
    throw invalidField(field, `must have at least ${LEAST_PASSWORD} characters`, 'string.min');
  const text = password.toLowerCase();
  if (COMMON.has(text) || COMMON.has(text.replace(TAIL, '')) || new Set(text).size < 5)
    throw invalidField(field, 'is one that many people have: choose another', 'password.common');
  const own = about.map((word) => word.toLowerCase()).filter((word) => word.length >= 4);
  if (own.some((word) => text.includes(word)))
    throw invalidField(field, 'must not contain your name or address', 'password.own');
}
