import type { ImportKind } from '@karyotome/contract';

/* What headings and words of spreadsheets usually mean. Common practice, no source. */

/** Headings, in small letters without signs, beside the field's own name. */
const HEADINGS: Readonly<Record<string, readonly string[]>> = {
  number: ['id', 'no', 'nr', 'animal', 'animal id', 'snake', 'snake id', 'tag', 'tag number', 'identifier'],
  name: ['nickname', 'called'],
  sex: ['gender', 'm f', 'f m'],
  hatched: ['hatch date', 'hatched on', 'hatch', 'dob', 'birth date', 'date of birth', 'born'],
  genes: ['morph', 'genetics', 'genotype', 'traits'],
  dam: ['mother', 'female', 'dam id', 'dam number'],
  sire: ['father', 'male', 'sire id', 'sire number', 'sires', 'males'],
  weight: [
    'weight g',
    'mass',
    'mass g',
    'grams',
    'weight grams',
    'weight oz',
    'weight kg',
    'weight lb',
    'g',
    'oz',
  ],
  weighed: ['weighed on', 'weight date', 'date weighed'],
  status: ['state of sale', 'availability'],
  note: ['notes', 'comment', 'comments', 'remark', 'remarks'],
  on: [
    'date',
    'day',
    'when',
    'fed',
    'weighed',
    'shed',
    'fed on',
    'weighed on',
    'shed on',
    'shed date',
    'date weighed',
    'feeding date',
    'meal date',
  ],
  prey: ['prey type', 'food', 'feeder', 'prey animal', 'species', 'item'],
  size: ['prey size', 'food size', 'feeder size'],
  preyWeight: ['prey weight', 'prey weight g', 'prey g', 'prey mass', 'food weight', 'feeder weight'],
  state: ['prey state', 'live frozen', 'offered as'],
  taken: ['ate', 'eaten', 'accepted', 'took', 'result'],
  stage: ['shed stage'],
  complete: ['full shed', 'one piece', 'complete shed', 'quality'],
  paired: ['paired on', 'pairing date', 'introduced', 'first paired'],
  laid: ['laid on', 'lay date', 'laid date', 'date laid'],
  eggs: ['egg count', 'number of eggs', 'eggs laid'],
  slugs: ['slug count', 'infertile', 'bad eggs'],
  incubation: ['incubation temperature', 'incubation temp', 'temp', 'incubation c'],
  hatchlings: ['hatchling numbers', 'young', 'babies', 'offspring'],
};

export const folded = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Whether a heading stands for a field, as far as is known to everybody. */
export function isHeadingOf(field: string, title: string): boolean {
  const words = folded(title);
  return words === folded(field.replaceAll(/([A-Z])/g, ' $1')) || (HEADINGS[field] ?? []).includes(words);
}

/** Words in small letters by what they mean, beside the value itself. */
const MEANINGS: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>> = {
  sex: {
    female: ['f', 'fem', '♀', '0.1', 'w'],
    male: ['m', '♂', '1.0'],
    unknown: ['', '?', 'u', 'unsexed', 'unk', 'n/a', '-', '0.0.1', 'tbd'],
  },
  status: {
    'for-sale': ['for sale', 'sale', 'available'],
    'held-back': ['held back', 'holdback', 'hold back', 'keeper', 'keep'],
    breeder: ['breeding', 'adult breeder', 'active'],
    died: ['dead', 'deceased', 'passed'],
    reserved: ['on hold', 'hold', 'deposit'],
    undecided: ['undetermined', 'tbd'],
  },
  prey: { rat: ['rats', 'r'], mouse: ['mice', 'm'], other: ['chick', 'quail', 'gerbil', 'asf'] },
  size: {
    pinky: ['pink', 'pinkie', 'pinkies', 'pinkys'],
    fuzzy: ['fuzz', 'fuzzie', 'fuzzies'],
    hopper: ['hoppers', 'hop'],
    pup: ['pups'],
    weaned: ['weanling', 'weaner', 'weanlings', 'wean'],
    small: ['s', 'sm'],
    medium: ['m', 'med'],
    large: ['l', 'lg', 'xl', 'jumbo'],
    adult: ['adults'],
  },
  state: {
    live: ['alive', 'l'],
    'frozen-thawed': ['ft', 'f/t', 'frozen', 'thawed', 'frozen thawed', 'frozen/thawed'],
    'fresh-killed': ['fk', 'f/k', 'pk', 'p/k', 'prekilled', 'pre-killed', 'fresh killed', 'freshly killed'],
  },
  taken: {
    yes: ['y', 'true', '1', 'x', '✓', 'ate', 'taken', 'took', 'eaten', 'accepted', 'ja', 'oui'],
    no: ['n', 'false', '0', '-', 'refused', 'refuse', 'not eaten', 'declined', 'nein', 'non'],
  },
  complete: {
    yes: ['y', 'true', '1', 'x', '✓', 'full', 'complete', 'whole', 'one piece', 'good', 'perfect'],
    no: ['n', 'false', '0', 'partial', 'incomplete', 'stuck', 'pieces', 'bad', 'poor'],
  },
  stage: {
    shed: ['shed', 'sloughed', 'done'],
    blue: ['in blue', 'opaque'],
    dull: ['pink belly'],
    clear: ['cleared'],
  },
};

/** What a word means as far as is known to everybody; undefined where it is not. */
export function usualMeaning(field: string, word: string, values: readonly string[]): string | undefined {
  const plain = values.find((value) => value === word || value.replaceAll('-', ' ') === word);
  if (plain !== undefined) return plain;
  return Object.entries(MEANINGS[field] ?? {}).find(([, words]) => words.includes(word))?.[0];
}

/** What is in every row the same where no column says it: offered, and said on the screen. */
export const USUALLY_FIXED: Readonly<Partial<Record<ImportKind, Readonly<Record<string, string>>>>> = {
  sheds: { stage: 'shed' },
};
