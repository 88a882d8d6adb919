import { describe, expect, test } from 'vitest';
import { addDays } from '../calendar/days.ts';
import { SEASON_RULES } from '../breeding/rules.ts';
import { parseGenes } from '../notation/parse.ts';
import { toParent } from '../odds/parent.ts';
import type { FilteredAnimal } from './criteria.ts';
import { animalTest } from './fits-filter.ts';
import { isFilter, readFilter, type FilterContext } from './read-filter.ts';

const TODAY = '2026-11-28';
const ago = (days: number): string => addDays(TODAY, -days);
const CONTEXT: FilterContext = {
  today: TODAY,
  seasonRules: SEASON_RULES,
  places: ['Snake room', 'Grow 1'],
  massUnit: 'g',
};
const read = (text: string, more: Partial<FilterContext> = {}) => readFilter(text, { ...CONTEXT, ...more });
const only = (text: string, more: Partial<FilterContext> = {}): Record<string, unknown> => {
  const { clauses, unread } = read(text, more);
  expect(unread, text).toEqual([]);
  expect(clauses, text).toHaveLength(1);
  const { code, facts, isNot } = clauses[0]![0]!;
  return isNot ? { not: code, ...facts } : { code, ...facts };
};

const ANIMAL: FilteredAnimal = {
  sex: 'female',
  massG: 1400,
  weighedOn: ago(20),
  hatchedOn: ago(900),
  status: 'breeder',
  room: 'Snake room',
  rack: 'Grow 1',
  clutch: '2401',
  seasons: [2026],
  ateOn: ago(10),
  refusedInARow: 1,
  isInShed: false,
  isGravid: false,
  isInQuarantine: false,
  isTreated: false,
  showsSigns: false,
  isPublished: false,
};
const fits = (text: string, genes = 'Pastel het Clown', more: Partial<FilteredAnimal> = {}): boolean => {
  const filter = read(text);
  expect(filter.unread, text).toEqual([]);
  return animalTest(filter, TODAY)({ ...ANIMAL, ...more }, () => toParent(parseGenes(genes), 'female'));
};

describe('reading a filter', () => {
  test('the clauses of a sentence, and what is asked in each', () => {
    const { clauses, unread } = read('Female, clown or het clown, over 1,200 g and not bred this season');
    expect(unread).toEqual([]);
    expect(clauses.map((clause) => clause.map(({ code, isNot }) => (isNot ? `not ${code}` : code)))).toEqual([
      ['sex'],
      ['genes', 'genes'],
      ['mass'],
      ['not bred'],
    ]);
  });

  test('masses in every unit, with the definition of the pound', () => {
    expect(only('over 1.2 kg')).toEqual({ code: 'mass', fromG: 1200, toG: null });
    expect(only('under 2 lb')['toG']).toBeCloseTo(907.18474, 5);
    expect(only('at least 16 ounces')['fromG']).toBeCloseTo(453.59237, 5);
    expect(only('between 300 and 500 g')).toEqual({ code: 'mass', fromG: 300, toG: 500 });
    expect(only('300-500 g')).toEqual({ code: 'mass', fromG: 300, toG: 500 });
    expect(only('between 0.5 kg and 900 g')).toEqual({ code: 'mass', fromG: 500, toG: 900 });
    // A number alone is of the collection's unit.
    expect(only('over 100')).toEqual({ code: 'mass', fromG: 100, toG: null });
    expect(only('over 16', { massUnit: 'oz' })['fromG']).toBeCloseTo(453.59237, 5);
  });

  test('ages and years', () => {
    expect(only('older than 2 years')).toEqual({ code: 'age', fromDays: 731, toDays: null });
    expect(only('under 6 months')).toEqual({ code: 'age', fromDays: null, toDays: 183 });
    expect(only('hatched in 2025')).toEqual({ code: 'hatched-in', year: 2025 });
    expect(only('bred in 2025')).toEqual({ code: 'bred', season: 2025 });
    expect(only('bred this season')).toEqual({ code: 'bred', season: 2027 });
  });

  test('what has a "not" of its own, and what is negated', () => {
    expect(only('not sexed')).toEqual({ code: 'sex', sex: 'unknown' });
    expect(only('not weighed for 3 weeks')).toEqual({ code: 'not-weighed', days: 21 });
    expect(only('not eaten in the last 10 days')).toEqual({ code: 'not-eaten', days: 10 });
    expect(only('not pastel')).toMatchObject({ not: 'genes', text: 'pastel' });
    expect(only('not in quarantine')).toMatchObject({ not: 'in-quarantine' });
  });

  test('places by their names, whatever the letters', () => {
    expect(only('in grow 1')).toEqual({ code: 'place', name: 'Grow 1' });
    expect(only('in shed')).toEqual({ code: 'in-shed' });
    expect(read('in the attic').unread).toEqual(['in the attic']);
  });

  test('genes with their chance', () => {
    expect(only('66% het clown')).toMatchObject({ code: 'genes', text: 'het clown', least: 0.66 });
    expect(only('ph clown')).toMatchObject({ text: 'het clown', least: 0.01 });
    expect(only('Super Pastel Clown')).toMatchObject({ text: 'Super Pastel Clown', least: null });
  });

  test('what is not understood is told, and the rest is no filter', () => {
    const filter = read('female, with blue spots, over 100 g');
    expect(filter.unread).toEqual(['with blue spots']);
    expect(isFilter(filter)).toBe(false);
  });

  test('a gene by itself, or a number, is looked for as words are', () => {
    for (const text of ['clown', '2601-04', 'Juniper', '']) expect(isFilter(read(text)), text).toBe(false);
    for (const text of ['female', 'clown or pied', 'not clown', 'for sale', 'in grow 1'])
      expect(isFilter(read(text)), text).toBe(true);
  });
});

describe('who fits', () => {
  test('all clauses hold, and of each one criterion', () => {
    expect(fits('female, clown or het clown, over 1200 g, not bred this season')).toBe(true);
    expect(fits('female, clown or het clown, over 1200 g, bred this season')).toBe(false);
    expect(fits('male or breeder')).toBe(true);
    expect(fits('male, breeder')).toBe(false);
  });

  test('a gene that shows, is carried for sure, or is possible', () => {
    expect(fits('pastel')).toBe(true);
    expect(fits('pastel', 'Super Pastel')).toBe(true);
    expect(fits('super pastel')).toBe(false);
    expect(fits('clown')).toBe(false);
    expect(fits('clown', 'Clown')).toBe(true);
    // Het is not visual.
    expect(fits('het clown', 'Clown')).toBe(false);
    expect(fits('het clown', '66% het Clown')).toBe(true);
    expect(fits('not het clown', 'Pastel')).toBe(true);
  });

  // Of young of two hets that do not show it, two thirds carry it (Mendel, 1866).
  test('a fraction, as the trade writes it', () => {
    expect(fits('66% het clown', '66% het Clown')).toBe(true);
    expect(fits('66% het clown', '50% het Clown')).toBe(false);
    expect(fits('ph clown', '50% het Clown')).toBe(true);
    expect(fits('ph clown', 'Pastel')).toBe(false);
  });

  test('days since', () => {
    expect(fits('not weighed for 20 days')).toBe(true);
    expect(fits('not weighed for 21 days')).toBe(false);
    expect(fits('never weighed')).toBe(false);
    expect(fits('never weighed', 'Pastel', { weighedOn: null })).toBe(true);
    expect(fits('not eaten for 2 weeks')).toBe(false);
    expect(fits('not eaten for 2 weeks', 'Pastel', { ateOn: null })).toBe(true);
    expect(fits('older than 2 years')).toBe(true);
    expect(fits('older than 2 years', 'Pastel', { hatchedOn: null })).toBe(false);
    expect(fits('refused 2')).toBe(false);
    expect(fits('refused')).toBe(true);
  });

  test('a place, a clutch, a state', () => {
    expect(fits('in snake room, clutch 2401, breeder')).toBe(true);
    expect(fits('without a tub')).toBe(false);
    expect(fits('without a tub', 'Pastel', { rack: null, room: null })).toBe(true);
    expect(fits('gravid or in shed', 'Pastel', { isGravid: true })).toBe(true);
    expect(fits('under treatment', 'Pastel', { isTreated: true })).toBe(true);
  });
});
