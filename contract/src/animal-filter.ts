import type { AnimalFilter } from '@karyotome/core';
import Joi from 'joi';
import { text } from './fields.ts';

/** As long as a search of a list may be. */
const MOST_WORDS = 200;

export interface AnimalFilterQuery {
  text: string;
}
export const animalFilterQuery = Joi.object<AnimalFilterQuery, true>({
  text: text(MOST_WORDS).allow('').default(''),
});

/** How a search of animals was read. */
export interface AnimalFilterView extends AnimalFilter {
  /** False: its words are looked for in numbers, names, genes and places. */
  isFilter: boolean;
}

/** A list of animals: the words that find them, under a name. */
export interface AnimalListInput {
  name: string;
  words: string;
}
export interface AnimalListView extends AnimalListInput {
  id: string;
  version: number;
}
export const animalListInput = Joi.object<AnimalListInput, true>({
  name: text(60).min(1).required(),
  words: text(MOST_WORDS).min(1).required(),
});
