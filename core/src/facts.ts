/**
 * One finding of a closed set: which one it is, and what it was found from. Words, units and dates are made by whoever shows
 * it (the workspace `words/`); nothing here or on the wire is a sentence.
 */
export interface Fact<Code extends string = string, Facts extends object = object> {
  readonly code: Code;
  readonly facts: Facts;
}

/**
 * The union of facts of a vocabulary: an interface whose keys are the codes, and whose values are what each is found from.
 *
 * @example
 * type Heat = FactOf<{ 'no-thermostat': object; 'too-hot': { celsius: number } }>;
 * const hot: Heat = { code: 'too-hot', facts: { celsius: 36.4 } };
 */
export type FactOf<Vocabulary extends object> = {
  [Code in keyof Vocabulary & string]: Fact<Code, Vocabulary[Code] & object>;
}[keyof Vocabulary & string];
