import { readFilter, SEASON_RULES } from '@karyotome/core';
import { expect, test } from 'vitest';
import { filterWords } from './animal-filter.ts';
import { imperial, metric } from './test-facts.ts';

const CONTEXT = {
  today: '2026-11-28',
  seasonRules: SEASON_RULES,
  places: ['Grow 1'],
  massUnit: 'g',
} as const;
const told = (text: string, reader = metric): string[] => filterWords(readFilter(text, CONTEXT), reader);

test('a filter is told back as it was read', () => {
  expect(told('female, Clown or het Clown, over 1200 g, not bred this season')).toEqual([
    'female',
    'Clown or het Clown',
    'at least 1,200 g',
    'not bred in season 2027',
  ]);
  expect(told('between 300 and 500 g, 66% het clown, ph pied', metric)).toEqual([
    '300 g to 500 g',
    'at least 66% het clown',
    'possible het pied',
  ]);
  expect(told('in grow 1; not sexed; not weighed for 3 weeks; never weighed; refused 2')).toEqual([
    'in Grow 1',
    'not sexed',
    'not weighed for 21 days',
    'never weighed',
    'refused 2 meals in a row',
  ]);
});

test('in the units of whoever reads', () => {
  expect(told('over 1 kg', imperial)).toEqual(['at least 35.27 oz']);
});

test('a filter that is told back is read as the same again', () => {
  for (const text of [
    'female, over 1200 g',
    'not sexed, hatched in 2025, in grow 1',
    'without a tub, refused 3, in shed or gravid',
    'not in quarantine, under treatment or with signs, published',
    'of clutch 2604, for sale, not eaten for 10 days, older than 90 days, not bred in 2026',
  ]) {
    const { clauses } = readFilter(text, CONTEXT);
    expect(readFilter(filterWords({ clauses }, metric).join(', '), CONTEXT), text).toEqual({
      clauses,
      unread: [],
    });
  }
});
