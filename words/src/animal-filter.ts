import { LEAST_CHANCE, type AnimalFilter, type Criteria, type Criterion } from '@karyotome/core';
import { say, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';
import { STATUS_WORDS } from './sales.ts';

const rangeWords = (from: number | null, to: number | null, words: (value: number) => string): string =>
  from === null
    ? `at most ${words(to!)}`
    : to === null
      ? `at least ${words(from)}`
      : `${words(from)} to ${words(to)}`;

const CRITERIA: Phrases<Criteria> = {
  sex: ({ sex }) => (sex === 'unknown' ? 'not sexed' : sex),
  genes: ({ text, least }, reader) => {
    if (least === null) return text;
    return least <= LEAST_CHANCE ? `possible ${text}` : `at least ${reader.percent(least)} ${text}`;
  },
  mass: ({ fromG, toG }, reader) => rangeWords(fromG, toG, (value) => reader.mass(value)),
  age: ({ fromDays, toDays }, reader) => `${rangeWords(fromDays, toDays, (value) => reader.days(value))} old`,
  'hatched-in': ({ year }) => `hatched in ${year}`,
  status: ({ status }) => STATUS_WORDS[status],
  bred: ({ season }) => `bred in season ${season}`,
  place: ({ name }) => `in ${name}`,
  'without-tub': () => 'without a tub',
  'of-clutch': ({ name }) => `of clutch ${name}`,
  'not-weighed': ({ days }, reader) =>
    days === 0 ? 'never weighed' : `not weighed for ${reader.days(days)}`,
  'not-eaten': ({ days }, reader) => `no meal for ${reader.days(days)}`,
  refused: ({ meals }, reader) => `refused ${reader.count(meals, 'meal', 'meals')} in a row`,
  'in-shed': () => 'in shed',
  gravid: () => 'gravid',
  'in-quarantine': () => 'in quarantine',
  'under-treatment': () => 'under treatment',
  'shows-signs': () => 'with signs',
  published: () => 'published',
};

const criterionWords = ({ isNot, ...fact }: Criterion, reader: Reader): string =>
  `${isNot ? 'not ' : ''}${say(CRITERIA, fact, reader)}`;

/** How a filter was read, clause by clause: "Clown or het Clown". */
export const filterWords = ({ clauses }: Pick<AnimalFilter, 'clauses'>, reader: Reader): string[] =>
  clauses.map((clause) => clause.map((criterion) => criterionWords(criterion, reader)).join(' or '));
