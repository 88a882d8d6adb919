/** Which of a male's sex chromosomes carries a sex-linked allele: on the Y he makes males with it, on the X females. */
export type Phase = 'male-maker' | 'female-maker';

/** What stands before a gene and says how it is there. */
export interface Modifiers {
  readonly super?: boolean;
  /** It is carried in one copy. */
  readonly het?: boolean;
  /** It shows, and is no part of a list of carried genes. */
  readonly visual?: boolean;
  readonly possible?: boolean;
  /** The chance that it is there, within 0 to 1. */
  readonly chance?: number;
  readonly phase?: Phase;
  /** How many of the genes that follow it holds for: all of them for a plural. */
  readonly reach?: number;
}

/** `66%` and `33%` are the trade's spelling of 2/3 and 1/3; any other percentage is taken as written. */
export function percentToProbability(percent: number): number {
  if (percent === 66) return 2 / 3;
  if (percent === 33) return 1 / 3;
  return percent / 100;
}

const HET: Modifiers = { het: true };
const HETS: Modifiers = { het: true, reach: Number.POSITIVE_INFINITY };
const POSSIBLE: Modifiers = { possible: true };
const POSSIBLE_HET: Modifiers = { possible: true, het: true };
const VISUAL: Modifiers = { visual: true };
const hets = (reach: number): Modifiers => ({ het: true, reach });

/** Words in lower case, without blanks between them: "double het" is "doublehet". A map: an object knows "constructor". */
const MODIFIER_WORDS: ReadonlyMap<string, Modifiers> = new Map<string, Modifiers>([
  ['super', { super: true }],
  ['homozygous', { super: true }],
  ['het', HET],
  ['heterozygous', HET],
  ['carrier', HET],
  ['hets', HETS],
  ['dh', hets(2)],
  ['doublehet', hets(2)],
  ['dblhet', hets(2)],
  ['th', hets(3)],
  ['triplehet', hets(3)],
  ['quadhet', hets(4)],
  ['quadruplehet', hets(4)],
  ['visual', VISUAL],
  ['vis', VISUAL],
  ...['pos', 'poss', 'possible', 'possibly', 'possibles', 'maybe'].map((word) => [word, POSSIBLE] as const),
  ['ph', POSSIBLE_HET],
  ['mm', { phase: 'male-maker' }],
  ['malemaker', { phase: 'male-maker' }],
  ['fm', { phase: 'female-maker' }],
  ['femalemaker', { phase: 'female-maker' }],
]);

/** Words in the longest modifier. */
export const LONGEST_MODIFIER = 2;

export const modifierOf = (squeezed: string): Modifiers | undefined => MODIFIER_WORDS.get(squeezed);

/** A modifier that was written together with its gene ("superpastel"): the modifier, and how many letters it takes. */
export function gluedModifier(
  word: string,
): { readonly modifiers: Modifiers; readonly length: number } | null {
  const found = /^(super|het|poss?(?=[^s]))/.exec(word);
  return found ? { modifiers: MODIFIER_WORDS.get(found[0])!, length: found[0].length } : null;
}
