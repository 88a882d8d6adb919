import { seasonOf, type SeasonRules } from '../breeding/rules.ts';
import type { IsoDay } from '../calendar/days.ts';
import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import type { FactOf } from '../facts.ts';
import { parseGenes } from '../notation/parse.ts';
import type { AnimalStatus } from '../sales/status-event.ts';
import { GRAMS_PER_UNIT } from '../weighing/mass-units.ts';
import type { AnimalFilter, Criteria, Criterion } from './criteria.ts';

/** What a text is read against. */
export interface FilterContext {
  readonly today: IsoDay;
  readonly seasonRules: Pick<SeasonRules, 'seasonFromMonth'>;
  /** Names of rooms and racks. */
  readonly places: readonly string[];
  /** Of a mass without a unit. */
  readonly massUnit: 'g' | 'oz';
  readonly catalogue?: Catalogue;
}

type Read = (match: RegExpExecArray, context: FilterContext) => FactOf<Criteria> | null;

/** By the first letter of how a unit is written. */
const GRAMS: Readonly<Record<string, number>> = {
  g: GRAMS_PER_UNIT.g,
  k: GRAMS_PER_UNIT.kg,
  o: GRAMS_PER_UNIT.oz,
  l: GRAMS_PER_UNIT.lb,
  p: GRAMS_PER_UNIT.lb,
};
const DAYS: Readonly<Record<string, number>> = { day: 1, week: 7, month: 30.4375, year: 365.25 };

const NUMBER = String.raw`(\d+(?:\.\d+)?)`;
const UNIT = '(g|grams?|kg|kilograms?|oz|ounces?|lbs?|pounds?)?';
const MASS = String.raw`${NUMBER}\s*${UNIT}`;
const SPAN = String.raw`(\d+(?:\.\d+)?)\s*(day|week|month|year)s?`;
/** Without a unit it is of the collection's. */
const grams = ({ massUnit }: FilterContext, value = '', unit: string = massUnit): number =>
  Number(value) * GRAMS[unit.charAt(0)]!;
const days = (value = '', unit = ''): number => Math.round(Number(value) * DAYS[unit]!);

const STATUSES: Readonly<Record<string, AnimalStatus>> = {
  undecided: 'undecided',
  'held back': 'held-back',
  'for sale': 'for-sale',
  reserved: 'reserved',
  sold: 'sold',
  breeder: 'breeder',
  breeders: 'breeder',
  dead: 'died',
  died: 'died',
};

/* Every pattern is matched whole, against lower case. */
const PATTERNS: readonly (readonly [RegExp, Read])[] = [
  [/^(?:females?|♀)$/, () => ({ code: 'sex', facts: { sex: 'female' } })],
  [/^(?:males?|♂)$/, () => ({ code: 'sex', facts: { sex: 'male' } })],
  [/^(?:unsexed|not sexed)$/, () => ({ code: 'sex', facts: { sex: 'unknown' } })],
  [
    new RegExp(`^(?:over|above|more than|at least|heavier than|from|>=?)\\s*${MASS}$`),
    ([, value, unit], context) => ({
      code: 'mass',
      facts: { fromG: grams(context, value, unit), toG: null },
    }),
  ],
  [
    new RegExp(`^(?:under|below|less than|at most|lighter than|up to|<=?)\\s*${MASS}$`),
    ([, value, unit], context) => ({
      code: 'mass',
      facts: { fromG: null, toG: grams(context, value, unit) },
    }),
  ],
  [
    // With a dash and no unit it would be a number of an animal: "2601-04".
    new RegExp(`^${MASS}\\s*(?:to\\s*|[-–]\\s*(?=.*[a-z]$))${MASS}$`),
    ([, low, lowUnit, high, unit], context) => ({
      code: 'mass',
      facts: { fromG: grams(context, low, lowUnit ?? unit), toG: grams(context, high, unit) },
    }),
  ],
  [
    new RegExp(`^(?:older than|over|at least)\\s*${SPAN}(?: old)?$`),
    ([, value, unit]) => ({ code: 'age', facts: { fromDays: days(value, unit), toDays: null } }),
  ],
  [
    new RegExp(`^(?:younger than|under|at most)\\s*${SPAN}(?: old)?$`),
    ([, value, unit]) => ({ code: 'age', facts: { fromDays: null, toDays: days(value, unit) } }),
  ],
  [/^hatched(?: in)? (\d{4})$/, ([, year]) => ({ code: 'hatched-in', facts: { year: Number(year) } })],
  [
    /^bred(?: this season)?$/,
    (_, { today, seasonRules }) => ({ code: 'bred', facts: { season: seasonOf(today, seasonRules) } }),
  ],
  [/^bred in (?:season )?(\d{4})$/, ([, year]) => ({ code: 'bred', facts: { season: Number(year) } })],
  [/^(?:without|no) (?:a )?tub$/, () => ({ code: 'without-tub', facts: {} })],
  [/^(?:of |from )?clutch (\S+)$/, ([, name]) => ({ code: 'of-clutch', facts: { name: name! } })],
  [/^never weighed$/, () => ({ code: 'not-weighed', facts: { days: 0 } })],
  [
    new RegExp(`^not weighed (?:for|in)(?: the last)? ${SPAN}$`),
    ([, value, unit]) => ({ code: 'not-weighed', facts: { days: days(value, unit) } }),
  ],
  [
    new RegExp(`^(?:not (?:eaten|ate|fed)|no meal) (?:for|in)(?: the last)? ${SPAN}$`),
    ([, value, unit]) => ({ code: 'not-eaten', facts: { days: days(value, unit) } }),
  ],
  [
    /^refused(?: (?:at least )?(\d+)(?: meals?)?(?: in a row)?)?$/,
    ([, meals]) => ({ code: 'refused', facts: { meals: Number(meals ?? 1) } }),
  ],
  [/^(?:in shed|shedding)$/, () => ({ code: 'in-shed', facts: {} })],
  [/^gravid$/, () => ({ code: 'gravid', facts: {} })],
  [/^(?:in )?quarantine$/, () => ({ code: 'in-quarantine', facts: {} })],
  [/^(?:under treatment|treated)$/, () => ({ code: 'under-treatment', facts: {} })],
  [/^(?:with|shows) signs$/, () => ({ code: 'shows-signs', facts: {} })],
  [/^published$/, () => ({ code: 'published', facts: {} })],
  [/^in (.+)$/, ([, name], { places }) => placeOf(name!, places)],
];

function placeOf(name: string, places: readonly string[]): FactOf<Criteria> | null {
  const found = places.find((one) => one.toLowerCase() === name);
  return found === undefined ? null : { code: 'place', facts: { name: found } };
}

/** "66% het clown", "possible het clown": with a chance. */
const CHANCES: readonly (readonly [RegExp, (match: RegExpExecArray) => { text: string; least: number }])[] = [
  [
    /^(?:at least )?(\d{1,3})\s?%\s*(het .+)$/,
    ([, percent, text]) => ({ text: text!, least: Number(percent) / 100 }),
  ],
  [/^(?:possible|poss\.?|possibly|maybe) (.+)$/, ([, text]) => ({ text: text!, least: LEAST_CHANCE })],
  [/^ph (.+)$/, ([, text]) => ({ text: `het ${text!}`, least: LEAST_CHANCE })],
];
/** Fainter than this, nobody calls a gene possible. */
export const LEAST_CHANCE = 0.01;

function readGenes(typed: string, catalogue: Catalogue): FactOf<Criteria> | null {
  const lower = typed.toLowerCase();
  for (const [pattern, read] of CHANCES) {
    const match = pattern.exec(lower);
    if (match && isOfGenes(read(match).text, catalogue)) return { code: 'genes', facts: read(match) };
  }
  return isOfGenes(typed, catalogue) ? { code: 'genes', facts: { text: typed, least: null } } : null;
}

function isOfGenes(text: string, catalogue: Catalogue): boolean {
  const { unknown, loci, isNormal } = parseGenes(text, catalogue);
  return unknown.length === 0 && (loci.size > 0 || isNormal);
}

function readCriterion(typed: string, context: FilterContext): Criterion | null {
  const lower = typed.toLowerCase();
  for (const [pattern, read] of PATTERNS) {
    const match = pattern.exec(lower);
    const fact = match && read(match, context);
    if (fact) return { ...fact, isNot: false };
  }
  const status = Object.hasOwn(STATUSES, lower) ? STATUSES[lower] : undefined;
  if (status !== undefined) return { code: 'status', facts: { status }, isNot: false };
  const negated = /^(?:not|no|without) (.+)$/i.exec(typed);
  if (negated) {
    const inner = readCriterion(negated[1]!, context);
    return inner && { ...inner, isNot: !inner.isNot };
  }
  const genes = readGenes(typed, context.catalogue ?? CATALOGUE);
  return genes && { ...genes, isNot: false };
}

/**
 * Reads what is asked of animals: clauses parted by commas, semicolons or "and", all of which hold; in each, criteria parted
 * by "or", one of which holds. What is not understood is told, never left out silently.
 *
 * @example readFilter('female, clown or het clown, over 1200 g, not bred this season', { today: '2026-11-28', seasonRules: SEASON_RULES, places: [], massUnit: 'g' }).clauses.map((clause) => clause.map(({ code }) => code)) // [["sex"], ["genes", "genes"], ["mass"], ["bred"]]
 */
export function readFilter(text: string, context: FilterContext): AnimalFilter {
  const unread: string[] = [];
  const clauses = text
    // A comma in a number parts nothing, nor does the "and" of "between".
    .replaceAll(/(\d),(?=\d{3}\b)/g, '$1')
    .replaceAll(/\bbetween (\S+(?: ?[a-z]+)?) and (?=\d)/gi, '$1 to ')
    .split(/[,;]|\band\b/i)
    .map((clause) => clause.trim())
    .filter((clause) => clause !== '')
    .map((clause) =>
      clause
        .split(/\bor\b/i)
        .map((part) => part.trim())
        .flatMap((part) => {
          const criterion = readCriterion(part, context);
          if (criterion === null) unread.push(part);
          return criterion ?? [];
        }),
    )
    .filter((clause) => clause.length > 0);
  return { clauses, unread };
}

/**
 * Whether a text asks something, rather than names something to be found in numbers, names and genes: one gene by itself is
 * looked for as a word is.
 *
 * @example isFilter(readFilter('clown', { today: '2026-11-28', seasonRules: SEASON_RULES, places: [], massUnit: 'g' })) // false
 */
export function isFilter({ clauses, unread }: AnimalFilter): boolean {
  const criteria = clauses.flat();
  return (
    unread.length === 0 &&
    (criteria.length > 1 || criteria.some(({ code, isNot }) => code !== 'genes' || isNot))
  );
}
