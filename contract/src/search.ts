import Joi from 'joi';
import type { AnimalSummary } from './animal-summary.ts';
import { text } from './fields.ts';

/** Whether each word of what is looked for stands somewhere in a text, in whatever order and letters. */
export function hasAllWords(text: string, search: string): boolean {
  const lower = text.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word));
}

/** What is found of each kind: no more than so many, however many there are. */
export const SEARCH_HITS = 8;

export interface SearchQuery {
  /** Of an empty one, nothing is found. */
  q: string;
}
export const searchQuery = Joi.object<SearchQuery, true>({ q: text(100).allow('').default('') });

export interface ClutchHit {
  id: string;
  name: string;
  laidOn: string;
  /** Null: its eggs are still in the incubator. */
  hatchedOn: string | null;
  /** The number of the female that laid it. */
  dam: string;
}
export interface PersonHit {
  id: string;
  name: string;
}
/** What all words of a search were found in. */
export interface SearchView {
  /** Also those that are no longer here. */
  animals: AnimalSummary[];
  clutches: ClutchHit[];
  /** Of the address book; none for those who may not sell. */
  persons: PersonHit[];
}
