/** One kind of enclosure on a ladder, with the weights it suits. */
export interface LadderStep {
  readonly name: string;
  /** Grams; a step is outgrown above `maxG`. Null: no upper end. */
  readonly minG: number;
  readonly maxG: number | null;
  /** Inside length x width x height in words, as keepers write it; may be empty. */
  readonly inside: string;
  /** Meals taken in a row before the step is entered, where the ladder asks for it. */
  readonly mealsBefore?: number;
}

export interface LadderPreset {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly LadderStep[];
}

const step = (
  name: string,
  minG: number,
  maxG: number | null,
  inside = '',
  mealsBefore?: number,
): LadderStep => ({
  name,
  minG,
  maxG,
  inside,
  ...(mealsBefore === undefined ? {} : { mealsBefore }),
});

/** Enclosure ladders that people use. Common practice, no source; every number is the keeper's to change. */
export const LADDER_PRESETS: readonly LadderPreset[] = [
  {
    id: 'four-step-rack',
    name: 'Four-step rack',
    steps: [
      step('Hatchling tub', 0, 300),
      step('Yearling tub', 250, 600, '20 × 53 cm'),
      step('Sub-adult tub', 600, 2500),
      step('Adult tub', 2000, null),
    ],
  },
  {
    id: 'two-tub-economy',
    name: 'Two-tub economy',
    steps: [step('Hatchling tub', 0, 300), step('Mid tub', 300, 2500), step('Largest tub', 2500, null)],
  },
  {
    id: 'narrow-then-deep',
    name: 'Narrow-then-deep',
    steps: [
      step('Narrow hatchling tub', 0, 400),
      step('Longer tub', 350, 1200),
      step('Deep tub', 1100, 2500),
      step('Adult tub', 2500, null),
    ],
  },
  {
    id: 'meals-first',
    name: 'Meals-first',
    steps: [
      step('Smallest box', 0, 150),
      step('Small tub', 100, 350, '', 7),
      step('9 L box', 300, 900),
      step('12 L box', 800, 1500),
      step('Divided 33 L box', 1300, null),
    ],
  },
];
