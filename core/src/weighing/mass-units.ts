/** Grams in a unit of mass: exact by definition of the avoirdupois pound, 453.59237 g, of 16 ounces. */
export const GRAMS_PER_UNIT = { g: 1, kg: 1000, oz: 28.349523125, lb: 453.59237 } as const;
