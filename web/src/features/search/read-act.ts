import { MASS_UNITS, type Unit } from '@karyotome/words';
import { findIn } from './find.ts';

/** What is entered: a weight, a note, or what one key of the round enters. */
export type Verb = 'weigh' | 'note' | (typeof ROUND_VERBS)[number][0];

/** By the key of the round that enters the same. */
const ROUND_VERBS = [
  ['t', ['ate', 'eats', 'eaten', 'took', 'taken', 'fed', 'feed']],
  ['r', ['refused', 'refuses', 'refuse']],
  ['n', ['skipped', 'skip']],
  ['d', ['dull']],
  ['b', ['blue']],
  ['c', ['clear', 'cleared']],
  ['s', ['shed', 'sheds']],
  ['k', ['soaked', 'soak']],
  ['l', ['cleaned', 'clean', 'cleans']],
  ['g', ['pushes', 'pushing']],
  ['v', ['regurgitated', 'regurgitates', 'vomited']],
] as const;
const WEIGH = ['weigh', 'weighs', 'weighed', 'weight'];
const NOTE = ['note', 'noted'];

const VERBS = new Map<string, Verb>([
  ...ROUND_VERBS.flatMap(([key, words]) => words.map((word): [string, Verb] => [word, key])),
  ...WEIGH.map((word): [string, Verb] => [word, 'weigh']),
  ...NOTE.map((word): [string, Verb] => [word, 'note']),
]);

const WORDS = [...VERBS].map(([text, verb]) => ({ text, verb }));

/** What was typed, read as an act: on whom is looked for by the words that are left. */
export interface TypedAct {
  readonly verb: Verb;
  readonly target: string;
  /** Grams, of a weight; null where none was typed yet. */
  readonly massG?: number | null;
  readonly note?: string;
}

const LEAST_G = 1;
const MOST_G = 20_000;
const UNIT_WORDS: Readonly<Record<string, (value: number) => number>> = {
  g: MASS_UNITS.g.toStored,
  gram: MASS_UNITS.g.toStored,
  grams: MASS_UNITS.g.toStored,
  oz: MASS_UNITS.oz.toStored,
  ounce: MASS_UNITS.oz.toStored,
  ounces: MASS_UNITS.oz.toStored,
  kg: (value) => value * 1000,
};

/** The verb among words: as it is written, else with a slip. */
function findVerb(words: readonly string[]): { at: number; verb: Verb } | null {
  const exact = words.findIndex((word) => VERBS.has(word));
  if (exact >= 0) return { at: exact, verb: VERBS.get(words[exact]!)! };
  for (const [at, word] of words.entries()) {
    const meant = findIn(WORDS, word).find(({ text }) => Math.abs(text.length - word.length) <= 1);
    if (meant) return { at, verb: meant.verb };
  }
  return null;
}

/** Each word that can be a weight, the last one first, with the words that are left without it. */
function weights(words: readonly string[], unit: Unit): { massG: number; rest: string[] }[] {
  return words
    .flatMap((word, at) => {
      const match = /^(\d+(?:[.,]\d+)?)(g|grams?|oz|ounces?|kg)?$/.exec(word);
      if (!match) return [];
      const next = match[2] === undefined ? UNIT_WORDS[words[at + 1] ?? ''] : undefined;
      const toGrams = (match[2] === undefined ? next : UNIT_WORDS[match[2]]) ?? unit.toStored;
      const massG = toGrams(Number(match[1]!.replace(',', '.')));
      if (massG < LEAST_G || massG > MOST_G) return [];
      const rest = words.filter((_, i) => i !== at && !(next !== undefined && i === at + 1));
      return [{ massG: Math.round(massG * 10) / 10, rest }];
    })
    .toReversed();
}

/**
 * Reads what was typed as acts, in any order of its words: "weigh 2601-04 342", "342 g 2601-04 weigh", "ate grow 1 2-3",
 * "note 2601-04: a scar". More than one where it is not plain which number is the weight.
 *
 * @param unit - what a number without a unit is in
 * @returns none where no act is named
 */
export function readActs(typed: string, unit: Unit): TypedAct[] {
  const whole = typed.trim().split(/\s+/);
  const words = whole.map((word) => word.toLowerCase());
  const found = findVerb(words);
  if (!found) return [];
  const { at, verb } = found;
  const rest = words.filter((_, i) => i !== at);
  if (verb === 'note') {
    // The first words name the animal, up to a colon; without one, the first alone.
    const own = whole.filter((_, i) => i !== at).join(' ');
    const [, target, note] = /^([^:]*):\s*(.*)$/.exec(own) ?? /^(\S*)\s*(.*)$/.exec(own)!;
    return [{ verb, target: target!, note: note! }];
  }
  if (verb !== 'weigh') return [{ verb, target: rest.join(' ') }];
  const read = weights(rest, unit).map((one) => ({ verb, target: one.rest.join(' '), massG: one.massG }));
  return [...read, { verb, target: rest.join(' '), massG: null }].filter(({ target }) => target !== '');
}
