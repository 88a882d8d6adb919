import type { Completeness, UnknownWord } from '@karyotome/core';
import { anyOf } from './reader.ts';

const quoted = (words: readonly string[]): string => words.map((word) => `“${word}”`).join(' and ');

/** What a statement of an animal's genes leaves open. */
export function completenessWords(completeness: Completeness): string {
  switch (completeness) {
    case 'all-known':
      return 'Nothing: what it does not name is not there';
    case 'recessives-unknown':
      return 'Recessive genes: it may carry some unsaid';
    case 'nothing-known':
      return 'Everything that it does not name';
  }
}

/**
 * Why a part of a label was not read, and what may stand in its place.
 *
 * @param areOffered - the suggestions stand beside it: they are not named again
 */
export function unreadWords({ word, reason, suggestions, against }: UnknownWord, areOffered = false): string {
  const areNamed = suggestions.length > 0 && !areOffered;
  const which = areNamed ? `: write ${anyOf(suggestions)}` : '';
  switch (reason) {
    case 'ambiguous':
      return `“${word}” can mean several things${which}`;
    case 'unknown-line':
      return `“${word}” names a line that the catalogue does not have${areNamed ? `${which}, or add the line` : ''}`;
    case 'repeated':
      return `“${word}” names one gene twice${which}`;
    case 'dangling':
      return `“${word}” is followed by no gene`;
    case 'contradictory':
      return against.length > 0
        ? `“${word}” does not fit ${quoted(against)}: an animal has two places at one locus${which}`
        : `“${word}” contradicts itself${which}`;
    case 'impossible':
      return `“${word}” does not fit: its genes lie at different loci, or are not sex-linked`;
    case 'unknown':
      return `“${word}” is not a known gene${areNamed ? `. Did you mean ${anyOf(suggestions)}?` : ''}`;
  }
}
