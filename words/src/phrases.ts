import type { Fact } from '@karyotome/core';
import type { Reader } from './reader.ts';

/** A phrase for every code of a vocabulary: a code without one does not compile. */
export type Phrases<Vocabulary extends object, Phrase = string> = {
  readonly [Code in keyof Vocabulary]: (facts: Vocabulary[Code], reader: Reader) => Phrase;
};

/** The phrase of a fact. */
export function say<Vocabulary extends object, Phrase>(
  phrases: Phrases<Vocabulary, Phrase>,
  { code, facts }: Fact<keyof Vocabulary & string>,
  reader: Reader,
): Phrase {
  return phrases[code](facts as Vocabulary[typeof code], reader);
}

/** A phrase in two parts: what is, and why it matters or what follows. */
export interface Told {
  readonly text: string;
  readonly why: string;
}

/** Joins sentences, each with its full stop. */
export function sentences(parts: readonly (string | null | undefined | false)[]): string {
  return parts
    .filter((part): part is string => typeof part === 'string' && part !== '')
    .map((part) => (/[.!?]$/.test(part) ? part : `${part}.`))
    .join(' ');
}

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
