import type { ClaimChangeView } from '@karyotome/contract';
import type { FactOf } from '@karyotome/core';
import { NOT_CLAIMED } from './lineage.ts';
import { say, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';

/** What is written to people, and what each letter is made from. */
export interface Letters {
  /** To the breeder: a visitor asked something. */
  'question-asked': {
    readonly collection: string;
    readonly name: string;
    readonly email: string;
    readonly number: string | null;
    readonly text: string;
  };
  /** To buyers: what is claimed of their animal changed. */
  'claims-changed': {
    readonly collection: string;
    readonly name: string;
    readonly number: string;
    readonly statement: number;
    readonly changes: readonly ClaimChangeView[];
    readonly because: readonly string[];
    /** Of the statement's page. */
    readonly address: string;
  };
  /** To somebody who waits: an animal fits, and is theirs until a day. */
  'animal-offered': {
    readonly collection: string;
    readonly name: string;
    readonly number: string;
    readonly label: string;
    readonly sex: string;
    readonly price: { readonly amount: number; readonly currency: string } | null;
    readonly until: string;
    /** Of its page; null where it has none. */
    readonly address: string | null;
  };
  /** To somebody who has forgotten their password. Never stored: who has its address chooses the password. */
  'password-forgotten': {
    readonly name: string;
    readonly address: string;
    readonly hours: number;
  };
  /** To somebody who may use a collection from now on. Never stored: its address lets one person in. */
  invitation: {
    readonly by: string;
    readonly collection: string;
    readonly address: string;
    readonly until: string;
  };
  /** To owners: somebody fails to sign in under an address, and has to wait. */
  'sign-ins-failed': {
    readonly collection: string;
    /** Whose account it is. */
    readonly name: string;
    readonly on: string;
    /** What the browser calls itself; null where it says nothing. */
    readonly device: string | null;
  };
}
export type LetterFact = FactOf<Letters>;

export interface LetterText {
  readonly subject: string;
  readonly paragraphs: readonly string[];
}

const TEXTS: Phrases<Letters, LetterText> = {
  'question-asked': ({ collection, name, email, number, text }) => ({
    subject: number ? `${name} asks about ${number}` : `${name} asks ${collection}`,
    paragraphs: [text, `${name}, ${email}`, 'The question is in your inbox as well.'],
  }),
  'claims-changed': ({ collection, name, number, statement, changes, because, address }) => ({
    subject: `${number}: what is known of its genes has changed`,
    paragraphs: [
      `Dear ${name},`,
      `we have new evidence about ${number}, and have signed statement ${statement} of it.`,
      ...changes.map(
        ({ from, to }) => `Until now: ${from ?? NOT_CLAIMED}. From now on: ${to ?? NOT_CLAIMED}.`,
      ),
      ...(because.length > 0 ? [`The reason: ${because.join('; ')}.`] : []),
      `The statement and its history: ${address}`,
      collection,
    ],
  }),
  'animal-offered': ({ collection, name, number, label, sex, price, until, address }, reader) => ({
    subject: `${number} fits what you wait for`,
    paragraphs: [
      `Dear ${name},`,
      `${number} is ${sex === 'unknown' ? 'not sexed yet' : `a ${sex}`}: ${label}${price ? `, for ${reader.money(price.amount, price.currency)}` : ''}.`,
      `You are the first on our list that it fits. Please answer by ${reader.day(until)}; after that we ask the next.`,
      ...(address ? [`Its page: ${address}`] : []),
      'Ball pythons are in CITES Appendix II: crossing a border takes permits, and local rules decide on keeping.',
      collection,
    ],
  }),
  'password-forgotten': ({ name, address, hours }, reader) => ({
    subject: 'Another password',
    paragraphs: [
      `Dear ${name},`,
      `somebody asked for another password for your account. If that was you, choose it within ${reader.count(hours, 'hour', 'hours')}; the address is good once:`,
      address,
      'If it was not you, nothing needs doing: the password stays as it is.',
    ],
  }),
  invitation: ({ by, collection, address, until }, reader) => ({
    subject: `${by} invites you to ${collection}`,
    paragraphs: [
      `${by} invites you to the records of ${collection}. The address is good for one person, until ${reader.day(until)}:`,
      address,
      'If you do not know what this is about, nothing needs doing.',
    ],
  }),
  'sign-ins-failed': ({ collection, name, on, device }, reader) => ({
    subject: `Failed sign-ins for ${name}`,
    paragraphs: [
      `On ${reader.day(on)} somebody failed to sign in as ${name} so often that they have to wait before each further try.`,
      ...(device ? [`The browser calls itself: ${device}`] : []),
      `If that was ${name}, nothing needs doing. If not, the account should get another password, one used nowhere else: under Your account. What was done in ${collection} stands under Settings, History.`,
      'This is told once a day for an account.',
    ],
  }),
};

/** What a letter says, a paragraph each. */
export const letterText = (letter: LetterFact, reader: Reader): LetterText => say(TEXTS, letter, reader);
